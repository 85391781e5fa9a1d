import * as z from "zod/mini";
import { moneySchema, type Context } from "./context";
import { readText } from "./text-form";
import { lookUp, valueOf, type Value } from "./values";
import { formatValue, plain, type Style } from "./format";
import type { TokenType } from "./catalogue";
import { yesOrNo } from "../words/named";
import { t } from "../words/tokens";

const DAY = t.error("aDay");

const common = {
  label: z.optional(
    z.string().check(z.minLength(1), z.maxLength(200, t.error("atMostCharacters", { most: 200 }))),
  ),
  hint: z.optional(z.string().check(z.maxLength(500, t.error("atMostCharacters", { most: 500 })))),
  required: z._default(z.boolean(), true),
  /** A text, or a token in its text form. */
  default: z.optional(z.string().check(z.maxLength(2000, t.error("atMostCharacters", { most: 2000 })))),
  /** False for a blank that only steers passages. */
  printed: z._default(z.boolean(), true),
};

/** The definition of a blank: what the agent is asked, and what may be answered. */
export const blankSchema = z.discriminatedUnion("kind", [
  z.strictObject({
    kind: z.literal("text"),
    ...common,
    max: z.optional(z.int(t.error("aWholeNumber")).check(z.positive(t.error("moreThan0")))),
  }),
  z.strictObject({
    kind: z.literal("long_text"),
    ...common,
    max: z.optional(z.int(t.error("aWholeNumber")).check(z.positive(t.error("moreThan0")))),
  }),
  z.strictObject({
    kind: z.literal("number"),
    ...common,
    min: z.optional(z.number()),
    max: z.optional(z.number()),
    step: z.optional(z.number().check(z.positive(t.error("moreThan0")))),
  }),
  z.strictObject({
    kind: z.literal("money"),
    ...common,
    currency: z._default(z.string().check(z.regex(/^[A-Z]{3}$/, t.error("threeLetters"))), "EUR"),
    min: z.optional(z.number()),
    max: z.optional(z.number()),
  }),
  z.strictObject({
    kind: z.literal("date"),
    ...common,
    min: z.optional(z.iso.date(DAY)),
    max: z.optional(z.iso.date(DAY)),
  }),
  z.strictObject({ kind: z.literal("time"), ...common }),
  z.strictObject({
    kind: z.literal("choice"),
    ...common,
    options: z
      .array(z.string().check(z.minLength(1), z.maxLength(400, t.error("aChoiceHasAtMost", { most: 400 }))))
      .check(
        z.minLength(1, t.error("writeAChoiceAtLeast")),
        z.maxLength(100, t.error("atMostChoices", { most: 100 })),
      ),
    many: z._default(z.boolean(), false),
    /** Text between several choices; the language's own list form when left out. */
    join: z.optional(z.string().check(z.maxLength(40, t.error("atMostCharacters", { most: 40 })))),
  }),
  z.strictObject({ kind: z.literal("yes_no"), ...common }),
]);
export type Blank = z.infer<typeof blankSchema>;

/** The blanks of a reply by name. */
export const blanksSchema = z.record(
  z.string().check(z.regex(/^[a-z][a-z0-9_]*$/, t.error("smallLettersDigitsAndUnderscores"))),
  blankSchema,
);
export type Blanks = z.infer<typeof blanksSchema>;

/** What an agent filled in, as JSON. */
export const blankValueSchema = z.union([
  z.string().check(z.maxLength(20_000)),
  z.number(),
  z.boolean(),
  z.array(z.string().check(z.maxLength(400))).check(z.maxLength(100)),
  moneySchema,
  z.null(),
]);
export type BlankValue = z.infer<typeof blankValueSchema>;
export type BlankValues = Record<string, BlankValue>;

const types: Record<Blank["kind"], TokenType> = {
  text: "text",
  long_text: "long_text",
  number: "number",
  money: "money",
  date: "date",
  time: "time",
  choice: "text",
  yes_no: "yes_no",
};

/** What a blank is called where a person reads it. */
export function blankLabel(name: string, blank: Blank | undefined): string {
  return blank?.label ?? name.replaceAll("_", " ");
}

/**
 * What a blank says: what was filled in, else its default, else nothing.
 * @throws never; a value that does not suit the blank's kind counts as missing, with the reason.
 */
export function blankValue(
  name: string,
  blank: Blank | undefined,
  given: BlankValue | undefined,
  context: Context,
  style: Style,
): Value {
  if (!blank) return { kind: "missing", why: t("thisReplyHasNoBlankName", { name }) };
  const label = blankLabel(name, blank);
  const value = given ?? defaultValue(blank, context, style);
  const unfit = value === null ? null : unfitness(blank, value);
  if (unfit) return { kind: "missing", why: t("labelAndProblem", { label, problem: unfit }), unfit: true };
  const typed =
    blank.kind === "money" && typeof value === "number" ? { amount: value, currency: blank.currency } : value;
  const read = valueOf(typed, types[blank.kind], "");
  if (read.kind === "missing") return { ...read, why: t("labelIsNotFilledIn", { label }) };
  if (Array.isArray(read.value) && blank.kind === "choice") {
    return { ...read, value: read.value };
  }
  return read;
}

/** A blank's value in plain words, for people who write or check replies. */
export function blankWords(value: BlankValue): string {
  if (value === null) return "";
  if (typeof value === "boolean") return yesOrNo(value ? "yes" : "no");
  if (Array.isArray(value)) return value.join(", ");
  return typeof value === "object" ? `${value.amount} ${value.currency}` : String(value);
}

/** Several choices as they stand in a sentence. */
export function joinChoices(choices: string[], blank: Blank | undefined, language: string): string {
  if (blank?.kind === "choice" && blank.join !== undefined) return choices.join(blank.join);
  return new Intl.ListFormat(language, { type: "conjunction" }).format(choices);
}

/** Why a value does not suit a blank, in words for the agent; null when it does. */
export function unfitness(blank: Blank, value: Exclude<BlankValue, null>): string | null {
  switch (blank.kind) {
    case "text":
    case "long_text":
      if (typeof value !== "string") return t("takesWords");
      return blank.max !== undefined && value.length > blank.max
        ? t("takesAtMostMaxCharacters", { max: blank.max })
        : null;
    case "number":
    case "money": {
      const amount = typeof value === "object" && "amount" in value ? value.amount : value;
      if (typeof amount !== "number" || !Number.isFinite(amount)) return t("takesANumber");
      if (blank.min !== undefined && amount < blank.min) return t("takesAtLeastMin", { min: blank.min });
      if (blank.max !== undefined && amount > blank.max) return t("takesAtMostMax", { max: blank.max });
      return null;
    }
    case "date":
      if (typeof value !== "string" || !z.iso.date().safeParse(value).success) return t("takesADate");
      if (blank.min !== undefined && value < blank.min) return t("takesNoDateBeforeMin", { min: blank.min });
      if (blank.max !== undefined && value > blank.max) return t("takesNoDateAfterMax", { max: blank.max });
      return null;
    case "time":
      return typeof value === "string" && /^([01]\d|2[0-3]):[0-5]\d$/.test(value) ? null : t("takesATime");
    case "choice": {
      const chosen = Array.isArray(value) ? value : [value];
      if (!blank.many && chosen.length > 1) return t("takesOneChoice");
      return chosen.every((one) => typeof one === "string" && blank.options.includes(one))
        ? null
        : t("takesOnlyWhatIsOffered");
    }
    case "yes_no":
      return typeof value === "boolean" ? null : t("takesYesOrNo");
  }
}

/** The default as a value of the blank's kind; null where there is none or it cannot be had here. */
function defaultValue(blank: Blank, context: Context, style: Style): BlankValue {
  if (blank.default === undefined) return null;
  const { pieces } = readText(blank.default);
  const [only] = pieces;
  if (pieces.length === 1 && only?.type === "token") {
    const found = lookUp(context, only.attrs.name, null, style.language);
    if (found.kind === "missing") return only.attrs.options.fallback ?? null;
    if (only.attrs.fn === null) return coerce(blank, plain(found.value), found.value);
  }
  const texts = pieces.map((piece) => {
    if (piece.type === "text") return piece.text;
    if (piece.type === "blank") return null;
    const formatted = formatValue(
      lookUp(context, piece.attrs.name, null, style.language),
      piece.attrs,
      style,
    );
    return formatted.kind === "text" ? formatted.text : null;
  });
  return texts.some((text) => text === null) ? null : coerce(blank, texts.join(""), null);
}

function coerce(blank: Blank, text: string, raw: BlankValue): BlankValue {
  switch (blank.kind) {
    case "number":
      return typeof raw === "number" ? raw : text.trim() === "" ? null : Number(text);
    case "money":
      return raw !== null && typeof raw === "object" ? raw : text.trim() === "" ? null : Number(text);
    case "yes_no":
      return text === "yes" ? true : text === "no" ? false : null;
    case "date":
      return text.slice(0, 10);
    case "choice":
      return blank.many ? [text] : text;
    default:
      return text;
  }
}
