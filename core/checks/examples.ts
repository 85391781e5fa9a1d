import { mapInlines } from "../document/inlines";
import type { Doc } from "../document/types";
import { blankLabel, type Blanks } from "../tokens/blanks";
import { ownEntry } from "../tokens/own";
import type { Token } from "../tokens/catalogue";

/** The document with examples in place of tokens and labels in place of blanks, for measuring. */
export function withExamples(doc: Doc, tokens: ReadonlyMap<string, Token>, blanks: Blanks): Doc {
  return mapInlines(doc, (inline) => {
    if (inline.type !== "token" && inline.type !== "blank") return [inline];
    const { name } = inline.attrs;
    const example = inline.type === "token" ? tokens.get(name)?.example : null;
    const text = typeof example === "string" ? example : blankLabel(name, ownEntry(blanks, name));
    return [{ type: "text", text: text || name }];
  });
}
