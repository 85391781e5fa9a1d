import * as z from "zod/mini";
import { languageSchema } from "../language/schema";
import { isLanguageTag } from "../language/tag";
import { fieldOwners, fieldTypes } from "../tokens/fields";
import { words } from "./fields";
import { roleField, zoneField } from "./people";
import { t } from "../words/forms";

/** The house itself. */
export const houseSchema = z.strictObject({
  name: words(200, t.error("writeTheNameThatLettersPrint")),
  casePrefix: z
    .string()
    .check(z.trim(), z.toUpperCase(), z.regex(/^[A-Z]{1,6}$/, t.error("oneToSixLetters"))),
  timeZone: zoneField,
  languages: z
    .array(z.string().check(z.refine(isLanguageTag, t.error("aLanguageByItsTag"))))
    .check(
      z.minLength(1, t.error("chooseALanguageAtLeast")),
      z.maxLength(50, t.error("atMostLanguages", { most: 50 })),
    ),
  region: z.nullable(z.string().check(z.regex(/^[A-Z]{2}$/, t.error("chooseACountryOfTheList")))),
});
export type HouseInput = z.infer<typeof houseSchema>;

const label = words(200, t.error("sayWhatItIsCalled"));

/** What a field is, whatever it is of. */
const fieldShape = {
  label,
  /** What it is chosen from, where it is a choice. */
  options: z._default(
    z.array(words(200, t.error("writeTheChoice"))).check(
      z.maxLength(100, t.error("atMostChoices", { most: 100 })),
      z.refine((all) => new Set(all).size === all.length, t.error("eachChoiceOnce")),
    ),
    [],
  ),
  /** Cases of which topics have it; empty for all. */
  topics: z._default(z.array(words(100)).check(z.maxLength(100)), []),
  required: z._default(z.boolean(), false),
};

/** A field that the house adds to its cases, customers, organisations or colleagues. */
export const newFieldSchema = z
  .strictObject({
    ...fieldShape,
    type: z.enum(fieldTypes),
    of: z._default(z.enum(fieldOwners), "case"),
  })
  .check(
    z.refine(({ type, options }) => type !== "choice" || options.length > 1, {
      path: ["options"],
      error: () => t("atLeastTwoChoices"),
    }),
  );
export type NewField = z.infer<typeof newFieldSchema>;

/** What is called otherwise of a field, or asked otherwise; what it is of and its kind stay. */
export const fieldChangeSchema = z.strictObject(fieldShape);
export type FieldChange = z.infer<typeof fieldChangeSchema>;

/** Kinds of a house fact. */
export const factTypes = ["text", "long_text", "money", "date", "link", "number"] as const;
export type FactType = (typeof factTypes)[number];

/** Whether values of a kind are words, which may read otherwise in another language. */
export function isWorded(type: string): boolean {
  return type === "text" || type === "long_text" || type === "link";
}

/** A house fact that is added; its value is read by its kind. */
export const newFactSchema = z.strictObject({
  label,
  type: z.enum(factTypes),
  value: z.unknown(),
  changedBy: roleField,
});
export type NewFact = z.infer<typeof newFactSchema>;

/** Who may change a house fact, what it is called, and the language of its values: null where they read the same in all. */
export const factDescriptionSchema = z.strictObject({
  label,
  changedBy: roleField,
  language: z.optional(z.nullable(languageSchema)),
});

/** A fact's value, which is read by its kind, and the same in other languages, by their tags; empty texts are none. */
export const factValueSchema = z.strictObject({
  value: z.unknown(),
  texts: z._default(z.record(languageSchema, words(5000)), {}),
});
export type FactInput = z.infer<typeof factValueSchema>;
export type FactDescription = z.infer<typeof factDescriptionSchema>;
