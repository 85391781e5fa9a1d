import * as z from "zod/mini";
import { t } from "../words/forms";

/** PostgreSQL's largest `integer`: no id is larger. */
export const MOST_ID = 2_147_483_647;

/** Words of a line or more, without the blanks around them. @param missing says that they are needed and not there */
export function words(most: number, missing?: { error: () => string }) {
  const longest = z.maxLength(most, t.error("atMostCharacters", { most }));
  return missing === undefined
    ? z.string().check(z.trim(), longest)
    : z.string().check(z.trim(), z.minLength(1, missing), longest);
}

/** The same, where nothing written is nothing. */
export function wordsOrNone(most: number) {
  return z.pipe(
    z.nullable(words(most)),
    z.transform((text: string | null) => (text === "" ? null : text)),
  );
}

/** The id of something that is kept. */
export const idField = z
  .int(t.error("chooseOneOfTheList"))
  .check(z.gte(1, t.error("chooseOneOfTheList")), z.lte(MOST_ID, t.error("chooseOneOfTheList")));

/** Whether a calendar date is one that a database keeps and a calendar shows: of the years 1900 to 2199. */
export function isKeptDay(day: string): boolean {
  return /^(?:19|20|21)/.test(day);
}

/** A calendar date of the years 1900 to 2199, as in `2027-03-01`. */
export const dayField = z.iso.date(t.error("aDay")).check(z.refine(isKeptDay, t.error("aDayFrom1900To2199")));
