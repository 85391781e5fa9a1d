import type { Editor } from "@tiptap/core";
import { useMemo, useState } from "react";
import { fillOwn } from "#core/compose/fill-own";
import type { Doc } from "#core/document/types";
import { emptyDocument } from "#core/document/schema";
import { isGuaranteed } from "#core/checks/guarantee";
import type { Token } from "#core/tokens/catalogue";
import type { Context } from "#core/tokens/context";
import { LetterBlocks } from "../ui/letter-blocks";
import { BodyEditor } from "../writing/editor/body-editor";
import type { Definitions } from "../writing/editor/definitions";
import { Inspector } from "../writing/desk/inspector";
import { valueRows } from "../writing/tokens/token-list";
import { TokenMenu } from "../writing/tokens/token-menu";
import { t } from "../words/setup";

interface Props {
  label: string;
  doc: Doc | null;
  /** BCP 47 tag of what is written. */
  language: string;
  /** The tokens that may stand in it. */
  tokens: ReadonlyMap<string, Token>;
  /** What fills them for the preview. */
  context: Context;
  onChange: (doc: Doc) => void;
}

const isSure = (token: Token | undefined) =>
  token !== undefined && isGuaranteed(token, { topics: [], withBooking: false });

/** A few words with values and no blanks or conditions, as signatures and stationery have them, and how they read. */
export function OwnWords({ label, doc, language, tokens, context, onChange }: Props) {
  const [first] = useState(doc ?? emptyDocument());
  const [shown, setShown] = useState(first);
  const [editor, setEditor] = useState<Editor | null>(null);
  const [menu, setMenu] = useState<{ left: number; top: number } | null>(null);
  const style = { language, timeZone: context.time_zone };
  const definitions = useMemo((): Definitions => {
    return { tokens, blanks: {}, passages: {}, findings: [], sample: () => null };
  }, [tokens]);
  const rows = valueRows(tokens, {}, { topics: [], withBooking: false }, (name) => {
    const [group = "", key = ""] = name.split(".");
    const value = (context as unknown as Record<string, Record<string, unknown>>)[group]?.[key];
    return typeof value === "string" || typeof value === "number" ? String(value) : null;
  }).map((row) => ({
    ...row,
    uncertain: isSure(tokens.get(row.name)) ? null : row.uncertain,
  }));
  const openMenu = (one: Editor) => {
    const { left, bottom } = one.view.coordsAtPos(one.state.selection.from);
    setMenu({ left, top: bottom });
  };
  return (
    <div className="grid gap-x-8 gap-y-3 lg:grid-cols-2">
      <div lang={language} className="own-words border border-line px-3 py-1">
        {editor && (
          <div className="flex items-center gap-4">
            <button type="button" className="text-sm font-semibold" onClick={() => openMenu(editor)}>
              {t("valueBrace")}
            </button>
            <Inspector
              editor={editor}
              words={false}
              tokens={tokens}
              blanks={{}}
              tried={{ context, style }}
              passages={[]}
              onNewPassage={() => ""}
              onEditPassage={() => undefined}
              onEditBlank={() => undefined}
            />
          </div>
        )}
        <BodyEditor
          label={label}
          doc={first}
          definitions={definitions}
          onChange={(next) => {
            setShown(next);
            onChange(next);
          }}
          onEditor={setEditor}
          onBrace={openMenu}
          onFocus={() => undefined}
          onBrought={() => new Map()}
          onFiles={() => undefined}
        />
      </div>
      <div>
        <p className="text-sm text-soft">{t("asItReads")}</p>
        <ReadWords label={label} doc={shown} language={language} tokens={tokens} context={context} />
      </div>
      {menu && editor && (
        <TokenMenu
          rows={rows}
          at={menu}
          onPick={(row) => {
            editor
              .chain()
              .focus()
              .insertContent({ type: "token", attrs: { name: row.name, fn: null, options: {} } })
              .run();
            setMenu(null);
          }}
          onNewBlank={null}
          onClose={(literal) => {
            if (literal) editor.chain().focus().insertContent("{").run();
            else editor.commands.focus();
            setMenu(null);
          }}
        />
      )}
    </div>
  );
}

/** Such words as they read for whoever looks at them. */
export function ReadWords({ label, doc, language, tokens, context }: Omit<Props, "onChange"> & { doc: Doc }) {
  const style = { language, timeZone: context.time_zone };
  const filled = fillOwn("own", doc, { context, style, tokens });
  return (
    <>
      <div lang={language} className="letter" aria-label={t("labelAsItReads", { label })} role="group">
        <LetterBlocks blocks={filled.blocks} />
      </div>
      {filled.problems.map((problem) => (
        <p key={problem.message} className="text-sm text-look">
          {problem.message}
        </p>
      ))}
    </>
  );
}

/** The tokens that a signature or stationery may use: those of the agent and the house. */
export function ownTokensOnly(tokens: ReadonlyMap<string, Token>): Map<string, Token> {
  return new Map([...tokens].filter(([, token]) => token.group === "agent" || token.group === "house"));
}
