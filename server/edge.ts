import { z } from "zod";
import { isKeptDay, MOST_ID } from "#core/forms/fields";
import { t } from "./words";

/** An id or number as a program or a screen sends it. */
export const idSchema = z
  .int(t.error("isNoWholeNumber"))
  .min(1, t.error("isNoSuchNumber"))
  .max(MOST_ID, t.error("isNoSuchNumber"));

/** The same as it stands in an address. */
export const idInPath = z
  .string()
  .regex(/^\d{1,10}$/, t.error("thereIsNoSuchNumber"))
  .transform(Number)
  .pipe(idSchema);

/** A calendar date that a database keeps and a calendar shows: of the years 1900 to 2199. */
export const daySchema = z.iso.date(t.error("aDate")).refine(isKeptDay, t.error("aDateFrom1900To2199"));
