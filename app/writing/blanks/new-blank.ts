import { blankSchema, type Blank, type Blanks } from "#core/tokens/blanks";
import { nameFrom } from "#core/tokens/name";

/** A new blank from what was typed: its label, and a name for the text form that no other has. */
export function addBlank(blanks: Blanks, words: string): { name: string; blank: Blank } | null {
  const label = words.trim();
  if (label === "") return null;
  const name = nameFrom(label, new Set(Object.keys(blanks)), "blank");
  return { name, blank: blankSchema.parse({ kind: "text", label }) };
}
