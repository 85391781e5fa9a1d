import { Node, type Editor } from "@tiptap/core";
import { HardBreak } from "@tiptap/extension-hard-break";
import { Mention } from "@tiptap/extension-mention";
import { Paragraph } from "@tiptap/extension-paragraph";
import { Text } from "@tiptap/extension-text";
import { EditorContent } from "@tiptap/react";
import { Placeholder, UndoRedo } from "@tiptap/extensions";
import type { SuggestionKeyDownProps, SuggestionProps } from "@tiptap/suggestion";
import { Popover } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import * as z from "zod/mini";
import { KeptInBrowser } from "../../ui/kept";
import { LIST_ITEM } from "../../ui/searched-list";
import { readFrom } from "../../ui/read";
import { useEditorOf } from "../../ui/editor/use-editor";
import { t } from "../../words/answering";

const one = z.object({ id: z.number(), name: z.string(), team: z.string() });
type Colleague = z.infer<typeof one>;
const answer = z.object({ people: z.array(one) });
const content = z.looseObject({ type: z.literal("doc") });

const NoteDocument = Node.create({ name: "doc", topNode: true, content: "block+" });

/** A note as it is written: its words, and whom it names. */
export interface WrittenNote {
  text: string;
  mentions: number[];
}

interface Props {
  /** Of the case and the person: what was typed and not kept is there again under it. */
  name: string;
  onKeep: (note: WrittenNote) => Promise<boolean>;
  onLeave: () => void;
}

interface Listed {
  items: Colleague[];
  at: number;
  props: SuggestionProps<Colleague, { id: string; label: string }>;
}

/** Where a note is written; @ names a colleague. Its keys are others than a letter's: what is meant for one never becomes the other. */
export default function NoteEditor({ name, onKeep, onLeave }: Props) {
  const [listed, setListed] = useState<Listed | null>(null);
  const [warned, setWarned] = useState(false);
  const list = useRef<Listed | null>(null);
  const keepNow = useRef<() => void>(() => undefined);
  const leaveNow = useRef(onLeave);
  const asking = useRef(new AbortController());
  const kept = useRef(new KeptInBrowser(name, content));
  const show = (next: Listed | null) => {
    list.current = next;
    setListed(next);
  };
  const take = (index: number) => {
    const now = list.current;
    const chosen = now?.items[index];
    if (now && chosen) now.props.command({ id: String(chosen.id), label: chosen.name });
  };
  const press = ({ event }: SuggestionKeyDownProps): boolean => {
    const now = list.current;
    if (!now || now.items.length === 0) return false;
    const { length } = now.items;
    if (event.key === "ArrowDown") show({ ...now, at: (now.at + 1) % length });
    else if (event.key === "ArrowUp") show({ ...now, at: (now.at + length - 1) % length });
    else if (event.key === "Enter" || event.key === "Tab") take(now.at);
    else return false;
    return true;
  };
  const editor = useEditorOf(() => ({
    extensions: [
      NoteDocument,
      Paragraph,
      Text,
      HardBreak,
      UndoRedo,
      Placeholder.configure({ placeholder: t("onlyColleaguesReadIt") }),
      Mention.configure({
        HTMLAttributes: { class: "mention" },
        suggestion: {
          items: async ({ query }) => {
            asking.current.abort();
            asking.current = new AbortController();
            const address = `/colleagues?q=${encodeURIComponent(query)}`;
            // Where nobody can be asked, the name stays as it was typed.
            const read = await readFrom(address, asking.current.signal).catch(() => null);
            return answer.safeParse(read).data?.people.slice(0, 8) ?? [];
          },
          render: () => {
            const put = (props: SuggestionProps<Colleague, { id: string; label: string }>) =>
              show({ items: props.items, at: 0, props });
            return { onStart: put, onUpdate: put, onKeyDown: press, onExit: () => show(null) };
          },
        },
      }),
    ],
    content: kept.current.find()?.kept ?? "",
    autofocus: "end",
    editorProps: {
      attributes: {
        class: "note-editor",
        role: "textbox",
        "aria-label": t("aNoteForColleagues"),
        "aria-multiline": "true",
      },
      handleKeyDown: (_view, event) => {
        if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) {
          setWarned(true);
          return true;
        }
        if (event.key === "Enter" && event.altKey) {
          keepNow.current();
          return true;
        }
        if (event.key === "Escape" && list.current === null) {
          leaveNow.current();
          return true;
        }
        return false;
      },
    },
    onUpdate: ({ editor: changed }) => {
      setWarned(false);
      if (changed.isEmpty) kept.current.clear();
      else kept.current.keeping(() => ({ ...changed.getJSON(), type: "doc" as const })).put(0);
    },
  }));
  useEffect(() => {
    leaveNow.current = onLeave;
    keepNow.current = () => {
      if (!editor) return;
      const note = written(editor);
      if (note.text === "") return;
      void onKeep(note).then((done) => {
        if (done) kept.current.clear();
      });
    };
  });
  const rect = listed?.props.clientRect?.() ?? null;
  return (
    <>
      {/* A note is no letter: the hand that writes one must not send the other. */}
      <div data-own-keys>
        <EditorContent editor={editor} />
      </div>
      <Popover.Root open={listed !== null && listed.items.length > 0}>
        <Popover.Anchor virtualRef={{ current: { getBoundingClientRect: () => rect ?? new DOMRect() } }} />
        <Popover.Portal>
          <Popover.Content
            aria-label={t("colleagues")}
            align="start"
            sideOffset={4}
            collisionPadding={8}
            onOpenAutoFocus={(event) => event.preventDefault()}
            onCloseAutoFocus={(event) => event.preventDefault()}
            className="z-50 w-64 border border-board bg-sheet py-1 text-sm shadow-md outline-none"
          >
            <div role="listbox" aria-label={t("colleagues")}>
              {listed?.items.map((colleague, index) => (
                <div
                  key={colleague.id}
                  role="option"
                  tabIndex={-1}
                  aria-selected={index === listed.at}
                  data-selected={index === listed.at}
                  onMouseDown={(event) => {
                    event.preventDefault();
                    take(index);
                  }}
                  className={`flex justify-between gap-3 ${LIST_ITEM}`}
                >
                  <span>{colleague.name}</span>
                  <span className="text-soft">{colleague.team}</span>
                </div>
              ))}
            </div>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {warned && (
        <p role="alert" className="mt-1 text-sm text-look">
          {t("thisIsANoteNotALetter")}
        </p>
      )}
      <p className="mt-1.5 flex flex-wrap items-baseline gap-x-4 text-sm">
        <button type="button" className="quiet-link" onClick={() => keepNow.current()}>
          {t("keepTheNote")}
        </button>
        <button type="button" className="text-soft underline underline-offset-2" onClick={onLeave}>
          {t("leaveIt")}
        </button>
      </p>
    </>
  );
}

function written(editor: Editor): WrittenNote {
  const mentions: number[] = [];
  editor.state.doc.descendants((node) => {
    if (node.type.name === "mention") mentions.push(Number(node.attrs.id));
  });
  return { text: editor.getText({ blockSeparator: "\n" }).trim(), mentions: [...new Set(mentions)] };
}
