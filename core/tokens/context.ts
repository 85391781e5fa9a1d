import * as z from "zod/mini";
import { languageSchema } from "../language/schema";
import { t } from "../words/tokens";

/** An amount with its ISO 4217 currency. */
export const moneySchema = z.strictObject({
  amount: z.number(),
  currency: z.string().check(z.regex(/^[A-Z]{3}$/, t.error("threeCapitalLetters"))),
});
export type Money = z.infer<typeof moneySchema>;

/** A detail as it is stored: JSON. Dates are ISO 8601 texts; what a customer wrote is just text. */
const detail = z.union([z.string(), z.number(), z.boolean(), z.null(), moneySchema, z.array(z.string())]);
export type Detail = z.infer<typeof detail>;

const group = z._default(z.record(z.string().check(z.maxLength(80)), detail), {});

/** What the inbound message says, for conditions. */
const messageSchema = z.partial(
  z.strictObject({
    subject: z.string(),
    body: z.string(),
    from: z.string(),
    to: z.string(),
    channel: z.string(),
    language: languageSchema,
    has_attachment: z.boolean(),
  }),
);

/** The languages of a value: of the one that stands in its group (null: it reads the same in all), and of further texts. */
const languages = z.strictObject({
  language: z.nullable(languageSchema),
  others: z._default(z.record(languageSchema, z.string()), {}),
});

/** All that a letter may read: groups of details, the clock and the house's time zone. */
export const contextSchema = z.strictObject({
  case: group,
  customer: group,
  organisation: group,
  booking: group,
  /** What other outside systems say, each under its own name: `SOURCE_KEY`. */
  detail: group,
  agent: group,
  house: group,
  /** Where each question is answered: its address, or `true` where its answers stand beside the words. */
  ask: group,
  /** What the customer pressed last, by question. */
  answer: group,
  message: z._default(messageSchema, {}),
  /** Values that may read otherwise in another language, by the names of their tokens. */
  written: z._default(z.record(z.string().check(z.maxLength(160)), languages), {}),
  now: z.iso.datetime({ offset: true }),
  time_zone: z.string().check(z.refine(isTimeZone, t.error("notATimeZone"))),
});
export type Context = z.infer<typeof contextSchema>;

/** The groups that tokens read from. */
export const tokenGroups = [
  "case",
  "customer",
  "organisation",
  "booking",
  "detail",
  "agent",
  "house",
  "ask",
  "answer",
] as const;
export type TokenGroup = (typeof tokenGroups)[number];

/** Whether Intl knows the IANA name of a time zone. */
export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat("en", { timeZone: name });
    return true;
  } catch {
    return false;
  }
}
