import { testsOf, type Passages } from "../conditions/condition";
import { allTexts } from "../document/texts";
import type { Texts } from "../document/types";
import { walk } from "../document/walk";
import type { Blanks } from "../tokens/blanks";
import { readText } from "../tokens/text-form";

/** What of a reply can name tokens. */
export interface NamesTokens {
  blanks: Blanks;
  passages: Passages;
  variants: (Texts & { subject: string | null })[];
}

/** The full names of tokens that a reply reads anywhere: for knowing which house facts are in use. */
export function tokensUsed(reply: NamesTokens): Set<string> {
  const names = new Set<string>();
  const pieces = (text: string) => {
    for (const piece of readText(text).pieces) if (piece.type === "token") names.add(piece.attrs.name);
  };
  for (const variant of reply.variants) {
    pieces(variant.subject ?? "");
    for (const document of allTexts(variant))
      walk(document, (node) => {
        if (node.type === "token") names.add(node.attrs.name);
        if (node.type === "image") pieces(node.attrs.alt);
        if ("marks" in node)
          node.marks?.forEach((mark) => {
            if (mark.type === "link") pieces(mark.attrs.href);
          });
      });
  }
  for (const passage of Object.values(reply.passages))
    for (const test of testsOf(passage.when))
      if (!/^(?:blank|message)\./.test(test.value)) names.add(test.value);
  for (const blank of Object.values(reply.blanks)) pieces(blank.default ?? "");
  return names;
}
