import * as z from "zod/mini";
import { languageSchema } from "../language/schema";
import { isTimeZone } from "../tokens/context";
import { idField, words, wordsOrNone } from "./fields";
import { t } from "../words/forms";

/** Shortest password, in characters (NIST SP 800-63B asks for no other rule but that it is not easily guessed). */
const SHORTEST_PASSWORD = 10;

/** A password that is chosen. */
export const passwordField = z
  .string()
  .check(
    z.minLength(SHORTEST_PASSWORD, t.error("atLeastCharacters", { most: SHORTEST_PASSWORD })),
    z.maxLength(1000, t.error("atMostCharacters", { most: 1000 })),
  );

/** A password that is chosen by a link. */
export const firstPasswordSchema = z.strictObject({ password: passwordField });

/** One's password, changed. */
export const changedPasswordSchema = z.strictObject({
  old: z
    .string()
    .check(
      z.minLength(1, t.error("writeYourPresentPassword")),
      z.maxLength(1000, t.error("atMostCharacters", { most: 1000 })),
    ),
  password: passwordField,
});

/** An IANA time zone. */
export const zoneField = z
  .string()
  .check(
    z.minLength(1, t.error("chooseATimeZone")),
    z.refine(isTimeZone, t.error("chooseATimeZoneOfTheList")),
  );

/** A telephone number of a team; what is no number is told when it is kept. */
export const numberSchema = z.strictObject({
  number: words(60, t.error("writeATelephoneNumber")),
  team: idField,
});
export type NumberInput = z.infer<typeof numberSchema>;

const names = {
  name: words(200, t.error("writeTheNameAsLettersPrintIt")),
  firstName: words(100, t.error("writeTheFirstName")),
};

const printed = { title: wordsOrNone(200), department: wordsOrNone(200), phone: wordsOrNone(200) };

/** What a person says of themselves. */
export const ownDetailsSchema = z.strictObject({ ...names, ...printed, timeZone: zoneField });
export type OwnDetails = z.infer<typeof ownDetailsSchema>;

/** An address of mail, in lower case. */
export const addressField = z
  .string()
  .check(
    z.trim(),
    z.toLowerCase(),
    z.maxLength(254, t.error("atMostCharacters", { most: 254 })),
    z.email(t.error("writeAnEmailAddress")),
  );

/** What somebody may do. */
export const roleField = z.enum(["agent", "curator", "lead"]);

/** A colleague who is invited. */
export const invitationSchema = z.strictObject({
  ...names,
  email: addressField,
  role: roleField,
  team: idField,
});
export type Invitation = z.infer<typeof invitationSchema>;

/** A colleague, as a lead changes them. */
export const colleagueSchema = z.strictObject({
  ...names,
  ...printed,
  email: addressField,
  role: roleField,
  team: idField,
  furtherTeams: z.array(idField).check(z.maxLength(100, t.error("atMostTeams", { most: 100 }))),
});
export type ColleagueInput = z.infer<typeof colleagueSchema>;

/** To whom goes what a colleague leaves behind. */
export const successorSchema = z.strictObject({ successor: idField });

const teamName = words(100, t.error("sayWhatTheTeamIsCalled"));

/** Texts by the tags of their languages; empty ones are none. */
function textsField(most: number) {
  return z.pipe(
    z.record(languageSchema, words(most)),
    z.transform((texts: Record<string, string>) =>
      Object.fromEntries(Object.entries(texts).filter(([, text]) => text !== "")),
    ),
  );
}

/** Minutes within which something is answered. */
export const withinField = z
  .int(t.error("aNumberOfMinutes"))
  .check(
    z.gte(5, t.error("atLeastMinutes", { least: 5 })),
    z.lte(60 * 24 * 60, t.error("atMostDays", { most: 60 })),
  );

/** A team: its name, the address of its mail, and within how many minutes it answers. */
export const teamSchema = z.strictObject({
  name: teamName,
  /** Its name in other languages, by their tags. */
  names: z._default(textsField(100), {}),
  mailbox: addressField,
  answerWithin: withinField,
});
export type TeamInput = z.infer<typeof teamSchema>;
