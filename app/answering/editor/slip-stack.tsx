import type { Editor } from "@tiptap/core";
import { EditorContent } from "@tiptap/react";
import { useEffect, useRef, useState } from "react";
import DateEntry from "../../ui/date-entry";
import { ManyPicker } from "../../ui/many-picker";
import { Sortable, useSorted } from "../../ui/sortable";
import { WordHints } from "../../ui/editor/word-hints";
import { FormatBar } from "./format-bar";
import { moveSlip } from "./move-slip";
import type { PlacedSlip } from "./slips";
import { StackPartsContext } from "./stack-parts";

const PARTS = { useSorted, DateEntry, ManyPicker };

/** The slips of an answer: written in, filled in, and put into another order. */
export default function SlipStack({
  editor,
  slips,
  onReady,
}: {
  editor: Editor;
  slips: PlacedSlip[];
  /** Called once its words are drawn. */
  onReady?: () => void;
}) {
  const ready = useRef(onReady);
  useEffect(() => {
    // Views of the words are drawn before the next picture is.
    const frame = requestAnimationFrame(() => ready.current?.());
    return () => cancelAnimationFrame(frame);
  }, []);
  const [isWriting, setWriting] = useState(false);
  return (
    <StackPartsContext value={PARTS}>
      <Sortable
        keys={slips.map(({ id }) => id)}
        nameOf={(id) => slips.find((slip) => slip.id === id)?.title ?? ""}
        onMove={(id, to) => {
          const move = moveSlip(editor.state, id, to);
          if (move) editor.view.dispatch(move);
        }}
      >
        <div
          data-with-bar
          onFocus={() => setWriting(true)}
          onBlur={({ currentTarget, relatedTarget }) => {
            if (!currentTarget.contains(relatedTarget)) setWriting(false);
          }}
        >
          <FormatBar editor={editor} shown={isWriting} />
          <WordHints>
            <EditorContent editor={editor} />
          </WordHints>
        </div>
      </Sortable>
    </StackPartsContext>
  );
}
