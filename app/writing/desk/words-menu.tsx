import type { Editor } from "@tiptap/core";
import { TextSelection } from "@tiptap/pm/state";
import { ContextMenu as Radix } from "radix-ui";
import { useCallback, useRef, useState, type MouseEvent, type ReactNode } from "react";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { whenWords } from "../editor/brackets";
import { definitionsOf } from "../editor/definitions";
import { addOtherwise, freeOf, passagesAt, putUnder, scopesAt, turnAround } from "../editor/passage-commands";
import { underHand, type UnderHand } from "../editor/under-hand";
import { t } from "../../words/writing";

interface Props {
  editor: Editor | null;
  /** Ids of the conditions that the reply has. */
  passages: string[];
  /** Makes a new condition. @returns its id */
  onNewPassage: () => string;
  onEditPassage: (id: string) => void;
  onEditBlank: (name: string) => void;
  /** Goes to where a value's format is chosen. */
  onFormat: () => void;
  children: ReactNode;
}

/**
 * What can be done with the words, value or blank under the hand. Plain words keep the browser's own menu, which knows their
 * spelling; with Shift everything does.
 */
export function WordsMenu({ editor, children, onFormat, ...props }: Props) {
  const [under, setUnder] = useState<UnderHand | null>(null);
  const byMouse = useRef(false);
  // What needs the focus elsewhere than in the menu waits until it is closed.
  const then = useRef<(() => void) | null>(null);

  const look = (event: MouseEvent) => {
    if (!editor) return;
    const { view } = editor;
    const at = byMouse.current ? view.posAtCoords({ left: event.clientX, top: event.clientY }) : null;
    byMouse.current = false;
    const place = at && (at.inside >= 0 && view.state.doc.nodeAt(at.inside)?.isInline ? at.inside : at.pos);
    const found = event.shiftKey ? null : underHand(view.state, place);
    setUnder(found);
    if (found) view.dispatch(view.state.tr.setSelection(found.selection));
    // The browser's own.
    else event.stopPropagation();
  };
  const afterwards = useCallback(
    (run: () => void) => () => {
      then.current = run;
    },
    [],
  );

  return (
    <Radix.Root>
      <div
        className="contents"
        onPointerDownCapture={(event) => {
          byMouse.current = event.button === 2 || event.ctrlKey;
        }}
        onContextMenuCapture={look}
      >
        <Radix.Trigger asChild>
          <div className="min-w-0">{children}</div>
        </Radix.Trigger>
      </div>
      <Radix.Portal>
        <Radix.Content
          aria-label={t("whatCanBeDoneHere")}
          className={MENU}
          collisionPadding={8}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            const run = then.current ?? (() => editor?.commands.focus());
            then.current = null;
            run();
          }}
        >
          {under?.chip && (
            <>
              <Radix.Item className={MENU_ITEM} onSelect={afterwards(onFormat)}>
                {t("chooseItsFormat")}
              </Radix.Item>
              {under.chip.kind === "blank" && (
                <Radix.Item
                  className={MENU_ITEM}
                  onSelect={afterwards(() => under.chip && props.onEditBlank(under.chip.name))}
                >
                  {t("changeTheBlank2")}
                </Radix.Item>
              )}
            </>
          )}
          {editor && under && <Conditions {...props} editor={editor} afterwards={afterwards} />}
          {under && !under.selection.empty && (
            <>
              <Radix.Separator className="my-1 h-px bg-line" />
              {(["cut", "copy"] as const).map((act) => (
                <Radix.Item
                  key={act}
                  className={MENU_ITEM}
                  onSelect={afterwards(() => editor && toClipboard(editor, act))}
                >
                  {act === "cut" ? t("cut") : t("copy")}
                </Radix.Item>
              ))}
            </>
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

function Conditions({
  editor,
  passages,
  onNewPassage,
  onEditPassage,
  afterwards,
}: Omit<Props, "children" | "onFormat" | "editor" | "onEditBlank"> & {
  editor: Editor;
  afterwards: (run: () => void) => () => void;
}) {
  const { state, view } = editor;
  const definitions = definitionsOf(state);
  if (!definitions) return null;
  const scopes = scopesAt(state);
  const [smallest] = scopes;
  const around = passagesAt(state);
  const others = passages.filter((id) => !around.some(({ ref }) => ref.id === id));
  const put = (scope: (typeof scopes)[number], id: string, otherwise: boolean) =>
    view.dispatch(putUnder(editor.state, scope, { id, otherwise }));
  return (
    <>
      <Radix.Sub>
        <Radix.SubTrigger className={MENU_ITEM}>{t("standsOnlyWhen2")}</Radix.SubTrigger>
        <Radix.Portal>
          <Radix.SubContent className={MENU} collisionPadding={8}>
            {scopes.map((scope) => (
              <Radix.Item
                key={scope.label}
                className={MENU_ITEM}
                onSelect={afterwards(() => {
                  const id = onNewPassage();
                  put(scope, id, false);
                  onEditPassage(id);
                })}
              >
                {t("scopeUnderANewCondition", { scope: scope.label })}
              </Radix.Item>
            ))}
            {smallest &&
              others.map((id) => (
                <Radix.Item key={id} className={MENU_ITEM} onSelect={() => put(smallest, id, false)}>
                  {smallest.label}, {whenWords([{ id, otherwise: false }], definitions)}
                </Radix.Item>
              ))}
          </Radix.SubContent>
        </Radix.Portal>
      </Radix.Sub>
      {around.map(({ ref, from, to }) => (
        <Radix.Group key={`${ref.id} ${from}`}>
          <Radix.Separator className="my-1 h-px bg-line" />
          <Radix.Label className="truncate px-3 py-1 text-soft">
            {t("standsWhenwords2", { whenWords: whenWords([ref], definitions) })}
          </Radix.Label>
          <Radix.Item className={MENU_ITEM} onSelect={afterwards(() => onEditPassage(ref.id))}>
            {t("changeTheCondition")}
          </Radix.Item>
          <Radix.Item
            className={MENU_ITEM}
            onSelect={afterwards(() => {
              view.dispatch(state.tr.setSelection(TextSelection.create(state.doc, from, to)));
              toClipboard(editor, "copy");
            })}
          >
            {t("copyWithTheCondition")}
          </Radix.Item>
          <Radix.Item
            className={MENU_ITEM}
            onSelect={() => view.dispatch(turnAround(editor.state, ref.id, from, to))}
          >
            {t("swapWithOtherwise2")}
          </Radix.Item>
          <Radix.Item
            className={MENU_ITEM}
            onSelect={() => view.dispatch(addOtherwise(editor.state, ref, to))}
          >
            {t("addWhatStandsOtherwise")}
          </Radix.Item>
          <Radix.Item
            className={MENU_ITEM}
            onSelect={() => view.dispatch(freeOf(editor.state, ref.id, from, to))}
          >
            {t("removeTheCondition2")}
          </Radix.Item>
        </Radix.Group>
      ))}
    </>
  );
}

/** By the browser's own command, so that the editor says what goes there: words with their conditions. */
function toClipboard(editor: Editor, act: "cut" | "copy"): void {
  editor.view.focus();
  document.execCommand(act);
}
