import type { Editor } from "@tiptap/core";
import { lazy, Suspense, useCallback, useRef, useState } from "react";
import type { AttachmentRef } from "#core/compose/slip";
import type { TrialCase } from "#core/compose/trials";
import type { SubjectMatter } from "#core/checks/guarantee";
import type { Doc, TextChannel } from "#core/document/types";
import type { Content, ContentVariant } from "#server/replies/content";
import type { OpenReply } from "#server/writing/open";
import { addBlank } from "./blanks/new-blank";
import { BodyEditor } from "./editor/body-editor";
import type { Brought } from "./editor/carry";
import type { Definitions } from "./editor/definitions";
import { Inspector } from "./desk/inspector";
import { firstTest, freePassage } from "./conditions/new-passage";
import { TextField } from "./editor/text-field";
import { valueRows } from "./tokens/token-list";
import { Toolbar } from "./desk/toolbar";
import type { ChangeContent } from "./reply/use-reply";
import { OwnText, PlainText } from "./reply/own-text";
import { Variants } from "./reply/variants";
import { WordsMenu } from "./desk/words-menu";
import { Checkbox } from "../ui/checkbox";
import { fetched } from "../ui/fetched";
import { isPicture } from "#core/text/file-name";
import { insertPicture } from "../ui/editor/brought-files";
import { TabPanel, Tabs } from "../ui/tabs";
import { t } from "../words/writing";

// It compares words, which only a translation wants.
const Original = lazy(async () => ({ default: (await import("./reply/original")).Original }));
const useTokens = fetched(() => import("./tokens/token-menu"), { ahead: true });
const TextForm = lazy(() => import("./editor/text-form"));

interface Props {
  open: OpenReply;
  content: Content;
  variant: ContentVariant;
  change: ChangeContent;
  definitions: Definitions;
  about: SubjectMatter;
  tried: TrialCase | null;
  editor: Editor | null;
  onEditor: (editor: Editor | null) => void;
  onLanguage: (language: string) => void;
  /** The channel whose own text is written; null for the common one. */
  own: TextChannel | null;
  /** Channels that may have a text of their own. */
  ownFor: readonly TextChannel[];
  onOwn: (channel: TextChannel | null) => void;
  onEditPassage: (id: string) => void;
  onEditBlank: (name: string) => void;
  /** Shows what a blank is beside the words, where the hand stays. */
  onShowBlank: (name: string) => void;
  upload: (file: File, picture: boolean) => Promise<AttachmentRef | null>;
  uploadProblem: string | null;
}

interface OpenMenu {
  editor: Editor;
  at: { left: number; top: number };
}

/** The page itself: languages, subject, words, and the text form or the original beside them. */
export function ReplyPage(props: Props) {
  const {
    open,
    content,
    variant,
    change,
    definitions,
    about,
    tried,
    editor,
    onEditor,
    onEditPassage,
    onEditBlank,
  } = props;
  const [menu, setMenu] = useState<OpenMenu | null>(null);
  const tokens = useTokens(menu !== null);
  const inspector = useRef<HTMLDivElement>(null);
  const [asText, setAsText] = useState(false);
  const [subject, setSubject] = useState<Editor | null>(null);
  const translated = content.variants[0] !== variant;

  const changeVariant = (how: (one: ContentVariant) => ContentVariant) =>
    change((now) => ({
      ...now,
      variants: now.variants.map((one) => (one.language === variant.language ? how(one) : one)),
    }));
  const { own } = props;
  const written = own === null ? variant.document : variant.texts?.[own];
  const write = (document: Doc) =>
    changeVariant((one) =>
      own === null ? { ...one, document } : { ...one, texts: { ...one.texts, [own]: document } },
    );
  const openMenu = useCallback((one: Editor) => {
    const { left, bottom } = one.view.coordsAtPos(one.state.selection.from);
    setMenu({ editor: one, at: { left, top: bottom } });
  }, []);
  const insert = (one: Editor, type: "token" | "blank", name: string) => {
    one
      .chain()
      .focus()
      .insertContent({ type, attrs: { name, fn: null, options: {} } })
      .run();
    setMenu(null);
  };
  const newPassage = () => {
    const id = freePassage(content.passages);
    change((now) => ({
      ...now,
      passages: { ...now.passages, [id]: { when: firstTest(now.blanks, definitions.tokens) } },
    }));
    return id;
  };
  /** Puts the definitions of pasted passages beside ours; an id that means something else here gets another. */
  const bring = (brought: Brought): ReadonlyMap<string, string> => {
    const ids = new Map<string, string>();
    change((now) => {
      const passages = { ...now.passages };
      for (const [id, passage] of Object.entries(brought.passages)) {
        const same = JSON.stringify(passages[id]) === JSON.stringify(passage);
        const here = same || !Object.hasOwn(passages, id) ? id : freePassage(passages);
        passages[here] = passage;
        ids.set(id, here);
      }
      return { ...now, passages, blanks: { ...brought.blanks, ...now.blanks } };
    });
    return ids;
  };
  const insertFiles = async (files: File[], position: number | null) => {
    for (const file of files) {
      const picture = isPicture(file.type);
      const stored = await props.upload(file, picture);
      if (!stored) continue;
      if (picture && editor) {
        const at = position ?? editor.state.selection.from;
        change((now) => ({
          ...now,
          pictures: [...now.pictures.filter((one) => one.id !== stored.id), stored],
        }));
        insertPicture(editor, stored, at);
      } else
        change((now) => ({ ...now, files: [...now.files.filter((one) => one.id !== stored.id), stored] }));
    }
  };

  return (
    <Tabs value={variant.language} onChange={props.onLanguage}>
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1 px-6 pt-2">
        <Variants
          content={content}
          onChoose={props.onLanguage}
          change={change}
          known={open.known.languages}
        />
        <OwnText {...props} variant={variant} changeVariant={changeVariant} />
        <label className="ml-auto flex items-center gap-1.5 text-sm">
          <Checkbox checked={asText} onChange={setAsText} />
          {t("textFormBesideIt")}
        </label>
      </div>
      <TabPanel value={variant.language} className="flex min-h-0 grow flex-col">
        {/* Its room is there before the editor runs: nothing moves then. */}
        <div className="min-h-18 px-6 pt-2">
          {editor && (
            <>
              <Toolbar
                editor={editor}
                onToken={() => openMenu(editor)}
                onPicture={(file) => void insertFiles([file], null)}
              />
              <div ref={inspector}>
                <Inspector
                  editor={subject ?? editor}
                  words={subject === null}
                  tokens={definitions.tokens}
                  blanks={content.blanks}
                  tried={
                    tried && {
                      context: tried.context,
                      style: { language: tried.language, timeZone: tried.context.time_zone },
                    }
                  }
                  passages={Object.keys(content.passages)}
                  onNewPassage={newPassage}
                  onEditPassage={onEditPassage}
                  onEditBlank={onEditBlank}
                />
              </div>
              {props.uploadProblem && (
                <p role="alert" className="text-sm text-stop">
                  {props.uploadProblem}
                </p>
              )}
            </>
          )}
        </div>
        <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1 px-6 pt-2.5 text-sm">
          {translated && (
            <label className="flex basis-full items-baseline gap-3">
              <span className="w-14 text-soft">{t("title")}</span>
              <input
                className="lined-field grow"
                value={variant.title ?? ""}
                placeholder={content.title}
                maxLength={300}
                onChange={(event) => changeVariant((one) => ({ ...one, title: event.target.value || null }))}
              />
            </label>
          )}
          <span className="w-14 text-soft">{t("subject")}</span>
          <TextField
            key={variant.language}
            label={t("subject")}
            placeholder={t("noneTheThreadsOwnSubjectStays")}
            text={variant.subject ?? ""}
            definitions={definitions}
            onChange={(subject) =>
              changeVariant((one) => ({ ...one, subject: subject === "" ? null : subject }))
            }
            onBrace={openMenu}
            onFocus={setSubject}
          />
          {variant.subject && (
            <label className="flex items-center gap-1.5 text-soft">
              <Checkbox
                checked={content.useTemplateSubject}
                onChange={(useTemplateSubject) => change((now) => ({ ...now, useTemplateSubject }))}
              />
              {t("useItInPlaceOfThe")}
            </label>
          )}
        </div>
        <div
          className={`grid min-h-0 grow gap-6 overflow-y-auto px-6 pt-3 pb-8 ${asText || translated ? "xl:grid-cols-2" : ""}`}
        >
          {written === undefined ? (
            <PlainText
              document={variant.document}
              channel={own}
              onWrite={() => write(structuredClone(variant.document))}
            />
          ) : (
            <>
              <WordsMenu
                editor={editor}
                passages={Object.keys(content.passages)}
                onNewPassage={newPassage}
                onEditPassage={onEditPassage}
                onEditBlank={onEditBlank}
                onFormat={() =>
                  inspector.current?.querySelector<HTMLElement>("button, input, [role=combobox]")?.focus()
                }
              >
                <BodyEditor
                  key={`${variant.language} ${own ?? ""}`}
                  label={t("theWords")}
                  doc={written}
                  definitions={definitions}
                  onChange={write}
                  onEditor={onEditor}
                  onBrace={openMenu}
                  onFocus={() => setSubject(null)}
                  onBrought={bring}
                  onFiles={(files, position) => void insertFiles(files, position)}
                />
              </WordsMenu>
              {asText && (
                <Suspense fallback={<p className="text-sm text-soft">{t("opening")}</p>}>
                  <TextForm key={`${variant.language} ${own ?? ""}`} doc={written} onChange={write} />
                </Suspense>
              )}
            </>
          )}
          {translated && own === null && (
            <Suspense>
              <Original content={content} variant={variant} tokens={definitions.tokens} change={change} />
            </Suspense>
          )}
        </div>
      </TabPanel>
      {menu && tokens && (
        <tokens.TokenMenu
          rows={valueRows(definitions.tokens, content.blanks, about, definitions.sample)}
          at={menu.at}
          onPick={(row) => insert(menu.editor, row.kind, row.name)}
          onNewBlank={(words) => {
            const made = addBlank(content.blanks, words);
            if (!made) return;
            change((now) => ({ ...now, blanks: { ...now.blanks, [made.name]: made.blank } }));
            insert(menu.editor, "blank", made.name);
            // The hand goes on in the words.
            props.onShowBlank(made.name);
          }}
          onClose={(literal) => {
            if (literal)
              menu.editor
                .chain()
                .focus()
                .insertContent({ type: "text", text: "{", marks: [{ type: "literal" }] })
                .run();
            else menu.editor.commands.focus();
            setMenu(null);
          }}
        />
      )}
    </Tabs>
  );
}
