import { z } from "zod";

/** The largest id that a table has (PostgreSQL's `integer`). */
export const MOST_ID = 2_147_483_647;

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
