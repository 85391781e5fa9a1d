import * as z from "zod/mini";

/** PostgreSQL's largest `integer`: no id is larger. */
export const MOST_ID = 2_147_483_647;

/** Words of a line or more, without the blanks around them. @param missing what is said where they are needed and not there */
export function words(most: number, missing?: string) {
  const longest = z.maxLength(most, `At most ${most.toLocaleString("en")} characters`);
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
  .int("Choose one of the list")
  .check(z.gte(1, "Choose one of the list"), z.lte(MOST_ID, "Choose one of the list"));

/** Whether a calendar date is one that a database keeps and a calendar shows: of the years 1900 to 2199. */
export function isKeptDay(day: string): boolean {
  return /^(?:19|20|21)/.test(day);
}

/** A calendar date of the years 1900 to 2199, as in `2027-03-01`. */
export const dayField = z.iso
  .date("A day, as in 2027-03-01")
  .check(z.refine(isKeptDay, "A day from 1900 to 2199"));
