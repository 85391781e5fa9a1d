import * as z from "zod/mini";
import { idField, words, wordsOrNone } from "./fields";
import { t } from "../words/forms";

/** Kinds of a field that a contact form asks besides. */
export const formFieldKinds = ["text", "long_text", "number", "date", "choice", "yes_no"] as const;

/** A field that a lead adds to a contact form. */
const formFieldSchema = z.strictObject({
  label: words(120, t.error("sayWhatItIsCalled")),
  kind: z.enum(formFieldKinds),
  required: z._default(z.boolean(), false),
  options: z._default(z.array(words(120, t.error("writeTheOption"))).check(z.maxLength(50)), []),
});
export type FormField = z.infer<typeof formFieldSchema>;

/** A contact form as a lead keeps it. */
export const contactFormSchema = z.strictObject({
  key: z
    .string()
    .check(
      z.trim(),
      z.toLowerCase(),
      z.regex(/^[a-z0-9][a-z0-9-]{0,39}$/, t.error("lettersDigitsAndHyphens")),
    ),
  title: words(120, t.error("sayWhatItIsCalled")),
  intro: words(2000),
  team: idField,
  topics: z.array(words(80, t.error("writeTheOption"))).check(z.maxLength(50)),
  fields: z.array(formFieldSchema).check(z.maxLength(20)),
  asksBooking: z.boolean(),
  takesFiles: z.boolean(),
  thanks: words(2000, t.error("writeWhatIsSaidAfterwards")),
  firstMail: wordsOrNone(5000),
  isOn: z.boolean(),
});
export type ContactFormInput = z.infer<typeof contactFormSchema>;

/** Names of a contact form's own fields; those that a lead adds stand beside them by their place. */
export const ownFields = {
  email: "email",
  name: "name",
  booking: "booking",
  topic: "topic",
  message: "message",
  files: "files",
  /** Nobody sees it; programs fill it in. */
  trap: "website",
  /** When the form was opened, signed. */
  opened: "opened",
} as const;

/** The name of a field that a lead added. @param at its place, from 0 */
export function nameOfField(at: number): string {
  return `field-${at}`;
}
