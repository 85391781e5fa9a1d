import type { Editor } from "@tiptap/core";
import { NodeSelection, type Transaction } from "@tiptap/pm/state";
import { useState } from "react";
import { placeholderText } from "#core/document/placeholder";
import type { PlaceholderAttrs } from "#core/document/types";
import type { Token } from "#core/tokens/catalogue";
import { formatValue, type Style } from "#core/tokens/format";
import { lookUp } from "#core/tokens/values";
import type { Context } from "#core/tokens/context";
import type { Blanks } from "#core/tokens/blanks";
import { definitionsOf } from "../editor/definitions";
import { whenWords } from "../editor/brackets";
import {
  addOtherwise,
  freeOf,
  passagesAt,
  putUnder,
  scopesAt,
  turnAround,
  type Scope,
} from "../editor/passage-commands";
import { FormatFields } from "../tokens/format-fields";
import { changeChosen, LinkFields, PictureFields, TableTools } from "../../ui/editor/at-cursor";
import { useTransactions } from "../../ui/editor/use-transactions";
import { Select } from "../../ui/select";
import { Hint } from "../../ui/hint";
import { t } from "../../words/writing";

interface Props {
  editor: Editor;
  /** Whether it is the editor of the words, which may stand under conditions; the subject may not. */
  words: boolean;
  tokens: ReadonlyMap<string, Token>;
  blanks: Blanks;
  /** The case that is tried on, for showing results; null where there is none. */
  tried: { context: Context; style: Style } | null;
  passages: string[];
  /** Makes a new condition. @returns its id */
  onNewPassage: () => string;
  onEditPassage: (id: string) => void;
  onEditBlank: (name: string) => void;
}

/** The line under the toolbar: says what is at the cursor, and lets it be changed in place. */
export function Inspector(props: Props) {
  const { editor } = props;
  useTransactions(editor);
  const { selection } = editor.state;
  const node = selection instanceof NodeSelection ? selection.node : null;
  return (
    <div
      role="group"
      aria-label={t("atTheCursor")}
      className="flex min-h-9 flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-1.5 text-sm"
    >
      {node?.type.name === "token" || node?.type.name === "blank" ? (
        <Chosen {...props} attrs={node.attrs as PlaceholderAttrs} kind={node.type.name} />
      ) : node?.type.name === "image" ? (
        <PictureFields key={selection.from} editor={editor} />
      ) : editor.isActive("link") ? (
        <LinkFields
          key={String(editor.getAttributes("link").href)}
          editor={editor}
          hint={` ${t("tokensMayStandInIt")}`}
        />
      ) : editor.isActive("table") ? (
        <TableTools editor={editor} />
      ) : null}
      {props.words && <PassageTools {...props} />}
    </div>
  );
}

function Chosen({
  editor,
  tokens,
  blanks,
  tried,
  attrs,
  kind,
  onEditBlank,
}: Props & { attrs: PlaceholderAttrs; kind: "token" | "blank" }) {
  const change = (fn: string | null, options: Record<string, string>) => {
    changeChosen(editor, kind, { fn, options });
  };
  const token = kind === "token" ? tokens.get(attrs.name) : undefined;
  const blank = kind === "blank" ? blanks[attrs.name] : undefined;
  const type =
    token?.type ??
    (blank && (blank.kind === "choice" ? "text" : blank.kind === "yes_no" ? "yes_no" : blank.kind));
  const value = tried && token ? lookUp(tried.context, attrs.name, token.type) : null;
  const result = value && tried ? formatValue(value, attrs, tried.style) : null;
  return (
    <>
      <strong>{token?.label ?? blank?.label ?? attrs.name}</strong>
      {type === undefined ? (
        <span className="text-stop">{t("thereIsNoSuchKind", { kind })}</span>
      ) : (
        <FormatFields
          type={type}
          fn={attrs.fn}
          options={attrs.options}
          isToken={kind === "token"}
          onChange={change}
        />
      )}
      {kind === "blank" && (
        <button type="button" className="quiet-link" onClick={() => onEditBlank(attrs.name)}>
          {t("changeTheBlank")}
        </button>
      )}
      <Hint words={placeholderText(kind === "token" ? { type: "token", attrs } : { type: "blank", attrs })}>
        <span className="ml-auto max-w-72 truncate font-serif">
          {result?.kind === "text" ? (
            result.text
          ) : result ? (
            <span className="text-stop">{result.kind === "missing" ? result.why : result.problem}</span>
          ) : (
            ""
          )}
        </span>
      </Hint>
    </>
  );
}

/** What the cursor stands under, and the ways to put something under a condition. */
function PassageTools({ editor, passages, onNewPassage, onEditPassage }: Props) {
  const [asking, setAsking] = useState(false);
  const definitions = definitionsOf(editor.state);
  const around = passagesAt(editor.state);
  const scopes = asking ? scopesAt(editor.state) : [];
  /** Changes the words, where the hand goes on. */
  const apply = (change: Transaction) => {
    editor.view.dispatch(change);
    editor.view.focus();
  };
  const put = (scope: Scope, id: string, otherwise: boolean) => {
    setAsking(false);
    apply(putUnder(editor.state, scope, { id, otherwise }));
  };
  const leave = () => {
    setAsking(false);
    editor.view.focus();
  };
  if (!definitions) return null;
  return (
    <span className="flex flex-wrap items-center gap-x-4 gap-y-1">
      {around.map(({ ref, from, to }) => (
        <span key={`${ref.id} ${from}`} className="flex items-baseline gap-2.5">
          <Hint words={t("changeTheCondition")}>
            <button
              type="button"
              className="max-w-80 truncate font-semibold"
              onClick={() => onEditPassage(ref.id)}
            >
              {t("standsWhenwords", { whenWords: whenWords([ref], definitions) })}
            </button>
          </Hint>
          <button
            type="button"
            className="quiet-link"
            onClick={() => apply(freeOf(editor.state, ref.id, from, to))}
          >
            {t("removeTheCondition")}
          </button>
          <button
            type="button"
            className="quiet-link"
            onClick={() => apply(turnAround(editor.state, ref.id, from, to))}
          >
            {t("swapWithOtherwise")}
          </button>
          <button
            type="button"
            className="quiet-link"
            onClick={() => apply(addOtherwise(editor.state, ref, to))}
          >
            {t("addOtherwise")}
          </button>
        </span>
      ))}
      {!asking ? (
        <button
          type="button"
          className="quiet-link"
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => setAsking(true)}
        >
          {t("standsOnlyWhen")}
        </button>
      ) : (
        <span
          role="group"
          aria-label={t("whatStandsOnlyAtTimes")}
          className="flex flex-wrap items-baseline gap-x-3 border-l-[3px] border-ink pl-3"
        >
          {scopes.map((scope) => (
            <button
              key={scope.label}
              type="button"
              className="quiet-link"
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => {
                const id = onNewPassage();
                put(scope, id, false);
                onEditPassage(id);
              }}
            >
              {scope.label}
            </button>
          ))}
          {scopes[0] && passages.length > 0 && (
            <Select
              label={t("underAConditionThatIsThere")}
              className="lined-field max-w-40"
              value=""
              placeholder={t("labelSameAs", { label: scopes[0].label })}
              options={passages.flatMap((id) =>
                [false, true].map(
                  (otherwise) =>
                    [`${id}${otherwise ? "!" : ""}`, whenWords([{ id, otherwise }], definitions)] as const,
                ),
              )}
              onChange={(passage) => {
                const [id = "", otherwise] = passage.split("!");
                if (scopes[0]) put(scopes[0], id, otherwise === "");
              }}
              onClosed={() => editor.view.focus()}
            />
          )}
          <button type="button" className="text-soft underline" onClick={leave}>
            {t("cancel")}
          </button>
        </span>
      )}
    </span>
  );
}
