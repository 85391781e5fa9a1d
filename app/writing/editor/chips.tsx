import { NodeViewWrapper, useEditorState, type NodeViewProps } from "@tiptap/react";
import { placeholderText } from "#core/document/placeholder";
import { blankLabel } from "#core/tokens/blanks";
import { placeholderAttrs, placeholderNode } from "../../ui/editor/placeholder-node";
import { useChosen } from "../../ui/editor/use-chosen";
import { WordSource } from "../../ui/word-source";
import { definitionsOf, type Definitions } from "./definitions";
import { t } from "../../words/writing";

/** How a token or a blank looks, as it is defined. */
export function ChipWords({
  isBlank,
  name,
  definitions,
}: {
  isBlank: boolean;
  name: string;
  definitions: Pick<Definitions, "blanks" | "tokens"> | undefined;
}) {
  const blank = isBlank ? definitions?.blanks[name] : undefined;
  const token = isBlank ? undefined : definitions?.tokens.get(name);
  const looks = isBlank ? "chip-blank" : "chip-token";
  return (
    <span className={`chip ${looks} ${blank || token ? "" : "chip-unknown"}`}>
      {isBlank ? blankLabel(name, blank) : (token?.label ?? name)}
    </span>
  );
}

/** A token as a chip with its name, a blank as a dotted field with its label, as they are defined now. */
function Chip({ editor, node, selected }: NodeViewProps) {
  const definitions = useEditorState({
    editor,
    selector: ({ editor: one }) => definitionsOf(one.state),
    equalityFn: Object.is,
  });
  const attrs = placeholderAttrs(node);
  const { name } = attrs;
  const isBlank = node.type.name === "blank";
  const blank = isBlank ? definitions?.blanks[name] : undefined;
  const token = isBlank ? undefined : definitions?.tokens.get(name);
  const isKnown = isBlank ? blank !== undefined : token !== undefined;
  const sample = token ? definitions?.sample(name) : undefined;
  const isChosen = useChosen(editor, selected);
  return (
    <NodeViewWrapper as="span">
      <WordSource
        name={placeholderText(isBlank ? { type: "blank", attrs } : { type: "token", attrs })}
        words={
          isKnown
            ? isBlank
              ? t("filledInByWhoAnswers")
              : sample === undefined
                ? t("filledInFromTheCase")
                : (sample ?? t("noValueForThisCase"))
            : t("thereIsNoneOfThisName")
        }
        open={isChosen || undefined}
      >
        <ChipWords isBlank={isBlank} name={name} definitions={definitions} />
      </WordSource>
    </NodeViewWrapper>
  );
}

export const TokenChip = placeholderNode("token", Chip);
export const BlankChip = placeholderNode("blank", Chip);
