import { z } from "zod";
import { isKeptDay, MOST_ID } from "#core/forms/fields";

/** An id or number as a program or a screen sends it. */
export const idSchema = z
  .int("is no whole number")
  .min(1, "is no such number")
  .max(MOST_ID, "is no such number");

/** The same as it stands in an address. */
export const idInPath = z
  .string()
  .regex(/^\d{1,10}$/, "There is no such number")
  .transform(Number)
  .pipe(idSchema);

/** A calendar date that a database keeps and a calendar shows: of the years 1900 to 2199. */
export function daySchema(message: string): z.ZodType<string> {
  return z.iso.date(message).refine(isKeptDay, "A date from 1900 to 2199");
}
