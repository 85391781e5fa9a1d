import * as z from "zod/mini";
import { documentSchema } from "../document/schema";
import type { Doc } from "../document/types";
import { walk } from "../document/walk";
import { languageSchema } from "../language/schema";
import { idField, MOST_ID, words } from "./fields";
import { t } from "../words/forms";

const colour = z.string().check(z.regex(/^#[0-9a-f]{6}$/i, t.error("aColour")));

/** The id of a stored file, as documents name it. */
export const fileIdField = z
  .string()
  .check(z.refine((id) => /^\d{1,10}$/.test(id) && Number(id) <= MOST_ID, t.error("notAStoredFile")));

const paperTexts = { header: z.nullable(documentSchema), footer: z.nullable(documentSchema) };

/** What surrounds a team's emails. */
export const paperSchema = z.strictObject({
  name: words(200, t.error("giveItAName")),
  ...paperTexts,
  /** Header and footer in other languages, by their tags. */
  texts: z._default(z.record(languageSchema, z.strictObject(paperTexts)), {}),
  accent: colour,
  textColour: colour,
  background: colour,
  /** A stored picture; null for none. */
  logo: z.nullable(fileIdField),
  logoAlt: words(300),
});

/** The same, with whose it is. */
export const stationerySchema = z.extend(paperSchema, { team: idField });
export type StationeryInput = z.infer<typeof stationerySchema>;

/** Words of a signature; none, or empty ones, for no signature. */
export const signatureSchema = z.strictObject({
  document: z
    .nullable(documentSchema)
    .check(z.refine((doc) => !hasBlank(doc), t.error("aSignatureHasNoBlanks"))),
});

/** The same, with whose it is: a team that imposes it, or oneself; and of which language, null for the one written first. */
export const keptSignatureSchema = z.extend(signatureSchema, {
  team: z.nullable(idField),
  language: z._default(z.nullable(languageSchema), null),
});

function hasBlank(doc: Doc | null): boolean {
  let found = false;
  if (doc) walk(doc, (node) => (found ||= node.type === "blank"));
  return found;
}
