import type { Editor } from "@tiptap/core";
import { Image } from "lucide-react";
import { Toolbar as Radix } from "radix-ui";
import { useRef } from "react";
import { Inserts, Toggles, Tool, UndoRedoTools } from "../../ui/editor/format-tools";
import { useTransactions } from "../../ui/editor/use-transactions";
import { t } from "../../words/writing";

interface Props {
  editor: Editor;
  onToken: () => void;
  onPicture: (file: File) => void;
}

/** Formatting by buttons that say what they do; each names its keys. One stop of Tab: the arrow keys go along. */
export function Toolbar({ editor, onToken, onPicture }: Props) {
  useTransactions(editor);
  const input = useRef<HTMLInputElement>(null);
  return (
    <Radix.Root aria-label={t("formatting")} className="flex items-center overflow-x-auto text-sm">
      <Tool label={t("valueBrace")} hint={t("insertAValueOrABlank")} look="font-semibold" onUse={onToken} />
      <Toggles editor={editor} />
      <span className="ml-1 flex items-center border-l border-line pl-1">
        <Inserts editor={editor} />
        <Tool
          label={t("picture")}
          hint={t("aPictureFromAFilePasting")}
          sign={<Image size={16} aria-hidden="true" />}
          onUse={() => input.current?.click()}
        />
      </span>
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg,image/gif,image/webp"
        aria-label={t("pictureFile")}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onPicture(file);
          event.target.value = "";
        }}
      />
      <span className="ml-1 flex items-center border-l border-line pl-1">
        <UndoRedoTools editor={editor} />
      </span>
    </Radix.Root>
  );
}
