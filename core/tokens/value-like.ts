import { writtenDates } from "../language/dates";
import { t } from "../words/labels";
import type { Blank } from "./blanks";

/** Words that look like a value of one case, and what a blank in their place would ask for. */
export interface ValueLike {
  /** Offset in the text (UTF-16 units). */
  from: number;
  words: string;
  kind: Extract<Blank["kind"], "date" | "time" | "money" | "number" | "text">;
  /** What it is called, as a blank's label: `day`, `amount`, `reference`, or the noun that is counted. */
  label: string;
}

const NUMBER = String.raw`\d{1,3}(?:[ .,\u00a0\u202f]\d{3})*(?:[.,]\d{1,2})?|\d+(?:[.,]\d{1,2})?`;
const CURRENCY = String.raw`€|£|\$|EUR|GBP|USD|CHF|Euro|euros?`;
const MONEY = new RegExp(
  String.raw`(?:(?:${CURRENCY})[ \u00a0]?(?:${NUMBER})|(?:${NUMBER})[ \u00a0]?(?:${CURRENCY}))(?![\p{L}\p{N}])`,
  "gu",
);
const TIME =
  /(?<![\p{N}.:])(?:[01]?\d|2[0-3])[:.][0-5]\d(?:[ \u00a0]?(?:h|Uhr|am|pm|a\.m\.|p\.m\.))?(?![\p{L}\p{N}]|[.:]\d)/gu;
/** Capitals and digits together, as `QW7-K2M`, `SF-20417` or `AB12345`. */
const REFERENCE =
  /(?<![\p{L}\p{N}-])(?=[\p{Lu}\d-]*\d)(?=[\p{Lu}\d-]*\p{Lu})[\p{Lu}\d]+(?:-[\p{Lu}\d]+)*(?![\p{L}\p{N}]|-[\p{L}\p{N}])/gu;
const PHONE = /(?<![\p{L}\p{N}])\+?\d(?:[ /()-]{0,2}\d){6,14}(?!\d)/gu;
/** A form of address, and the names behind it. */
const NAMED =
  /(?<!\p{L})(?:Mr|Mrs|Ms|Mx|Miss|Dr|Herrn?|Frau|Monsieur|Madame|Señora?)\.?[ \u00a0]((?:(?:von|van|de|der|la) )?\p{Lu}[\p{L}\p{M}'’-]+(?: \p{Lu}[\p{L}\p{M}'’-]+){0,2})/gu;
/** A greeting, and the name behind it. */
const GREETED =
  /(?<!\p{L})(?:Dear|Hello|Hi|Hallo|Lieber?|Bonjour|Chère?|Hola|Estimad[oa]) (\p{Lu}[\p{L}\p{M}'’-]+(?: \p{Lu}[\p{L}\p{M}'’-]+){0,2})(?=\s*[,:!])/gu;
/** A number by itself, and the word that it counts. */
const COUNT =
  /(?<![\p{L}\p{N}.,:/-])(\d{1,6}(?:[.,]\d{1,2})?)(?![\p{L}\p{N}]|[.,:/-]\d)(?:[ \u00a0](\p{Ll}{3,}))?/gu;

/**
 * Finds words that look like values of one case only: dates, amounts, times, references, telephone numbers, names behind a
 * form of address, and what is counted.
 * @param language BCP 47 tag of the text, for the names of months
 * @returns in the order of the text, none overlapping another
 */
export function valueLike(text: string, language: string): ValueLike[] {
  const found: ValueLike[] = [];
  const add = (from: number, words: string, kind: ValueLike["kind"], label: string) => {
    const to = from + words.length;
    if (!found.some((one) => from < one.from + one.words.length && to > one.from))
      found.push({ from, words, kind, label });
  };
  for (const { index, words } of writtenDates(text, language)) add(index, words, "date", t("day"));
  for (const match of text.matchAll(MONEY)) add(match.index, match[0], "money", t("amount"));
  for (const match of text.matchAll(PHONE)) add(match.index, match[0], "text", t("telephoneNumber"));
  for (const match of text.matchAll(TIME)) add(match.index, match[0], "time", t("time"));
  for (const match of text.matchAll(REFERENCE)) add(match.index, match[0], "text", t("reference"));
  for (const match of [...text.matchAll(NAMED), ...text.matchAll(GREETED)]) {
    const name = match[1] ?? "";
    add(match.index + match[0].length - name.length, name, "text", t("personsName"));
  }
  for (const match of text.matchAll(COUNT))
    add(match.index, match[1] ?? "", "number", match[2] ?? t("number"));
  return found.sort((a, b) => a.from - b.from);
}
