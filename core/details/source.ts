import { JSONPath } from "jsonpath-plus";
import { RE2JS } from "re2js";
import * as z from "zod/mini";
import { re2Patterns } from "../conditions/re2";
import { safeHref } from "../document/links";
import type { TokenType } from "../tokens/catalogue";
import { moneySchema, type Detail } from "../tokens/context";
import { t } from "../words/details";
import { REFERENCE } from "./reference";

/** A value that an outside system tells, and where it stands in its answer. */
export interface SourceField {
  key: string;
  label: string;
  type: TokenType;
  /** JSONPath (RFC 9535) into its answer, as in `$.sailing.ship`. */
  path: string;
  /** Whether an answer without it cannot be right. */
  always: boolean;
}

/** What was read of an answer, by the keys of its fields; or why it cannot be read. */
export type AnswerRead = { ok: true; data: Record<string, Detail> } | { ok: false; problem: string };

/** A text is read to so many characters. */
const MOST_TEXT = 5000;
/** Of a list so many are read. */
const MOST_LISTED = 50;

/** Reads the fields of an answer, all or nothing: what is of another kind than it should be makes all of it doubtful. */
export function readAnswer(fields: readonly SourceField[], answer: unknown): AnswerRead {
  const data: Record<string, Detail> = {};
  for (const { key, label, type, path, always } of fields) {
    const found = at(path, answer);
    const value = found === null || found === "" ? null : valueAs(type, found);
    if (value === undefined) return { ok: false, problem: t("fieldIsNoType", { label, path }) };
    if (value === null && always) return { ok: false, problem: t("fieldIsNotThere", { label, path }) };
    data[key] = value;
  }
  return { ok: true, data };
}

/** What stands at a path; null for nothing. A path that leads to several leads to them all. */
function at(path: string, answer: unknown): unknown {
  if (typeof answer !== "object" || answer === null) return null;
  // Of its answer nothing is ever run.
  const found: unknown = JSONPath({ path, json: answer, wrap: false, eval: false });
  return found ?? null;
}

/** What is wrong with a path; null for nothing. */
export function pathProblem(path: string): string | null {
  if (!path.startsWith("$")) return t("aPathBeginsWith");
  // Filters and scripts would run what somebody wrote.
  if (/[?(]/.test(path)) return t("aPathFiltersNothing");
  try {
    JSONPath({ path, json: {}, wrap: false, eval: false });
    return null;
  } catch {
    return t("aPathIsLike");
  }
}

const scalar = z.union([z.string(), z.number(), z.boolean()]);
const text = z.pipe(
  scalar,
  z.transform((value: string | number | boolean) => String(value).slice(0, MOST_TEXT)),
);
const texts = z.union([text, z.array(text).check(z.maxLength(MOST_LISTED))]);
const number = z.union([
  z.number(),
  z.pipe(
    z.string().check(z.trim(), z.regex(/^[-+]?\d+(\.\d+)?$/)),
    z.transform((written: string) => Number(written)),
  ),
]);
const money = z.union([
  z.pipe(z.object({ amount: number, currency: z.string() }), moneySchema),
  z.pipe(
    z.pipe(
      z.string().check(z.trim(), z.regex(/^-?\d+(\.\d+)? [A-Z]{3}$/)),
      z.transform((written: string) => {
        const [amount, currency = ""] = written.split(" ");
        return { amount: Number(amount), currency };
      }),
    ),
    moneySchema,
  ),
]);
const date = z.pipe(
  z.union([z.iso.date(), z.iso.datetime({ offset: true })]),
  z.transform((written: string) => written.slice(0, 10)),
);
const yesNo = z.union([
  z.boolean(),
  z.pipe(
    z.enum(["true", "false"]),
    z.transform((said: "true" | "false") => said === "true"),
  ),
]);

const kinds: Record<TokenType, z.ZodMiniType<Detail>> = {
  text: texts,
  long_text: text,
  language: text,
  integer: number.check(z.refine((value) => Number.isInteger(value))),
  number,
  money,
  date,
  time: z.string().check(z.regex(/^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?$/)),
  datetime: z.iso.datetime({ offset: true }),
  yes_no: yesNo,
  link: z.string().check(z.refine((href) => safeHref(href) !== null)),
};

/** A value as its kind keeps it; undefined where it is of another kind. */
function valueAs(type: TokenType, found: unknown): Detail | undefined {
  const read = kinds[type].safeParse(found);
  return read.success ? read.data : undefined;
}

/** So much of a message is looked through for a reference, in UTF-16 units. */
const LOOKED_THROUGH = 50_000;

/**
 * The first reference in words: what the pattern's first group matches, or all of it where it has none. Linear in the words.
 * @param pattern in RE2’s syntax
 * @returns null for none, and for a pattern that cannot be used
 */
export function referenceIn(pattern: string, words: string): string | null {
  if ((re2Patterns.problem?.(pattern) ?? null) !== null) return null;
  const matcher = RE2JS.compile(pattern).matcher(words.slice(0, LOOKED_THROUGH));
  if (!matcher.find()) return null;
  const found = (matcher.groupCount() > 0 ? matcher.group(1) : null) ?? matcher.group();
  return found === null || found === "" || found.length > MOST_REFERENCE ? null : found;
}

/** A longer reference is none. */
const MOST_REFERENCE = 100;

/** The address to ask of a reference, which stands in it as one part, whatever it holds. */
export function addressFor(address: string, reference: string): string {
  return address.replaceAll(REFERENCE, encodeURIComponent(reference));
}
