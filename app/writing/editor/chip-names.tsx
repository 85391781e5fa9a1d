import { useCallback, type ReactNode } from "react";
import { placeholderText } from "#core/document/placeholder";
import type { BlankNode, TokenNode } from "#core/document/types";
import { labelOf } from "#core/compose/passages";
import type { Blanks } from "#core/tokens/blanks";
import type { Token } from "#core/tokens/catalogue";
import { readText } from "#core/tokens/text-form";
import { Hint } from "../../ui/hint";
import { Placeholders } from "../../ui/letter-blocks";
import { ChipWords } from "./chips";
import { t } from "../../words/writing";

interface Known {
  tokens: ReadonlyMap<string, Token>;
  blanks: Blanks;
}

/** How a value is written where that is not the usual way: `date, long`. */
function formatOf({ attrs: { fn, options } }: TokenNode | BlankNode): string {
  const { fallback, ...others } = options;
  const words = [
    fn,
    ...Object.values(others),
    fallback === undefined ? null : t("elseFallback", { fallback }),
  ];
  return words.filter((word) => word !== null && word !== "").join(", ");
}

/** Shows tokens and blanks below as people know them: by their labels, and how they are written where somebody chose that. */
export function ChipNames({ tokens, blanks, children }: Known & { children: ReactNode }) {
  const chip = useCallback(
    (node: TokenNode | BlankNode) => {
      const format = formatOf(node);
      return (
        <Hint words={placeholderText(node)}>
          <span>
            <ChipWords
              isBlank={node.type === "blank"}
              name={node.attrs.name}
              definitions={{ tokens, blanks }}
            />
            {format !== "" && <span className="font-sans text-xs text-soft"> {format}</span>}
          </span>
        </Hint>
      );
    },
    [tokens, blanks],
  );
  return <Placeholders value={chip}>{children}</Placeholders>;
}

/** A text with tokens, as a subject is, with their labels in place of them. */
export function inLabels(text: string, { tokens, blanks }: Known): string {
  return readText(text)
    .pieces.map((piece) => {
      if (piece.type === "text") return piece.text;
      const name = piece.type === "blank" ? `blank.${piece.attrs.name}` : piece.attrs.name;
      return `‹${labelOf(name, { blanks }, tokens)}›`;
    })
    .join("");
}
