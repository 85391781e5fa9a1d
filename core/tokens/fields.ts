import { isAmong } from "../text/among";
import * as z from "zod/mini";
import { safeHref } from "../document/links";
import { dayField } from "../forms/fields";
import { t } from "../words/forms";
import { moneySchema, type Detail } from "./context";

/** Whose fields a house adds: those are the groups that their tokens are in. */
export const fieldOwners = ["case", "customer", "organisation", "agent"] as const;
export type FieldOwner = (typeof fieldOwners)[number];

/** Kinds of a field's value, as somebody chooses them. */
export const fieldTypes = [
  "text",
  "long_text",
  "number",
  "money",
  "date",
  "choice",
  "yes_no",
  "link",
] as const;
export type FieldType = (typeof fieldTypes)[number];

/** Whether cases of a topic have what is of some topics; of none is of all. @param topic null where it is not known */
export function isOnTopic(topics: readonly string[], topic: string | null): boolean {
  return isAmong(topics, topic);
}

/** A value that was read, or what is wrong with it. */
export type FieldValue = { ok: true; value: Detail } | { ok: false; problem: string };

const text = (most: number) =>
  z.string().check(z.trim(), z.maxLength(most, t.error("atMostCharacters", { most })));
const number = z.union([
  z.number(t.error("aNumber")),
  z.pipe(
    z.string().check(z.trim(), z.regex(/^[-+]?\d+(?:[.,]\d+)?$/, t.error("aNumber"))),
    z.transform((written: string) => Number(written.replace(",", "."))),
  ),
]);
const money = z.object({ amount: number, currency: z.string().check(z.trim(), z.toUpperCase()) });
const yesNo = z.union([
  z.boolean(),
  z.pipe(
    z.enum(["yes", "no"], t.error("yesOrNo")),
    z.transform((said: "yes" | "no") => said === "yes"),
  ),
]);

/**
 * Reads what was given as a field's value.
 * @param given as a form, a file or a program has it; null and nothing take the value away
 */
export function readFieldValue(
  { type, options }: { type: FieldType; options: readonly string[] },
  given: unknown,
): FieldValue {
  if (isNothing(given)) return { ok: true, value: null };
  const read = schemaOf(type, options).safeParse(given);
  return read.success
    ? { ok: true, value: read.data === "" ? null : read.data }
    : { ok: false, problem: read.error.issues[0]?.message ?? t("aValueOfThatKind") };
}

function isNothing(given: unknown): boolean {
  if (typeof given === "object" && given !== null && "amount" in given) return isNothing(given.amount);
  return given === null || given === undefined || (typeof given === "string" && given.trim() === "");
}

function schemaOf(type: FieldType, options: readonly string[]): z.ZodMiniType<Detail> {
  switch (type) {
    case "text":
      return text(1000);
    case "long_text":
      return text(5000);
    case "number":
      return number;
    case "money":
      return z.pipe(money, moneySchema);
    case "date":
      return dayField;
    case "choice":
      return z.string().check(z.refine((chosen) => options.includes(chosen), t.error("oneOfTheChoices")));
    case "yes_no":
      return yesNo;
    case "link":
      return text(2000).check(z.refine((href) => safeHref(href) !== null, t.error("anAddress")));
  }
}
