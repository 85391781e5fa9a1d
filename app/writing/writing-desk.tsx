import type { Editor } from "@tiptap/core";
import { lazy, startTransition, Suspense, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useLocation } from "react-router";
import { checkReply } from "#core/checks/writing";
import type { WriterFinding } from "#core/checks/written";
import { needsPatterns } from "#core/conditions/patterns";
import { allTexts } from "#core/document/texts";
import { textChannels, type TextChannel } from "#core/document/types";
import { passagesOf, placeholdersOf, walk } from "#core/document/walk";
import type { TrialCase } from "#core/compose/trials";
import { catalogue } from "#core/tokens/catalogue";
import { formatValue } from "#core/tokens/format";
import { lookUp } from "#core/tokens/values";
import type { OpenReply } from "#server/writing/open";
import { later } from "../ui/later";
import { usePatternEngine } from "../ui/pattern-engine";
import { useClock } from "../ui/time";
import { useShortcut } from "../ui/use-shortcut";
import type { Definitions } from "./editor/definitions";
import { Findings } from "./desk/findings";
import { ReplyHead } from "./reply/reply-head";
import { JUST_BEGUN } from "./just-begun";
import { ReplyPage } from "./reply-page";
import { TryOn } from "./trial/try-on";
import { useFiling } from "./reply/use-filing";
import { useReply } from "./reply/use-reply";
import { useTrialCases } from "./trial/use-trial-cases";
import { useUpload } from "../ui/use-upload";
import { useSegments } from "./use-segments";
import { TabList, TabPanel, Tabs } from "../ui/tabs";
import { t } from "../words/writing";

// What stands behind another tab comes once the reply is there.
const fetchBlanks = () => import("./blanks/blanks-panel");
const fetchPassages = () => import("./conditions/passages-panel");
const fetchFiling = () => import("./reply/filing-form");
const fetchFiles = () => import("./reply/files-panel");
const fetchVersions = () => import("./versions/versions-panel");
const BlanksPanel = lazy(async () => ({ default: (await fetchBlanks()).BlanksPanel }));
const PassagesPanel = lazy(async () => ({ default: (await fetchPassages()).PassagesPanel }));
const FilingForm = lazy(async () => ({ default: (await fetchFiling()).FilingForm }));
const FilesPanel = lazy(async () => ({ default: (await fetchFiles()).FilesPanel }));
const VersionsPanel = lazy(async () => ({ default: (await fetchVersions()).VersionsPanel }));

const panels = ["tryOn", "blanks", "passages", "files", "filing", "history"] as const;
type Panel = (typeof panels)[number];

/** The writing desk: the reply's page on the left; beside it what it is made of, and how it reads for real cases. */
export function WritingDesk({ open }: { open: OpenReply }) {
  const reply = useReply(open);
  const { content, change } = reply;
  const [language, setLanguage] = useState(content.variants[0]?.language ?? "en");
  const [wantedText, setWantedText] = useState<TextChannel | null>(null);
  const [panel, setPanel] = useState<Panel>("tryOn");
  const [passage, setPassage] = useState<string | null>(null);
  const [blank, setBlank] = useState<string | null>(null);
  const [pinned, setPinned] = useState<number[]>([]);
  const filed = useFiling(open, reply);
  const { filing } = filed;
  const [editor, setEditor] = useState<Editor | null>(null);
  const [tried, setTried] = useState<TrialCase | null>(null);
  // Neither is waited for by what one does meanwhile.
  const haveEditor = useCallback((one: Editor | null) => startTransition(() => setEditor(one)), []);
  const haveTried = useCallback((one: TrialCase | null) => startTransition(() => setTried(one)), []);
  const { pool, problem } = useTrialCases(pinned);
  const files = useUpload();
  const { now } = useClock();
  const tokens = useMemo(() => catalogue(open.own), [open.own]);
  const variant = content.variants.find((one) => one.language === language) ?? content.variants[0];

  // A channel that the reply is for no longer has no text either.
  const own = wantedText !== null && filing.channels.includes(wantedText) ? wantedText : null;
  const segments = useSegments(filing.channels.includes("sms"));
  const { patterns, isReady } = usePatternEngine(
    useMemo(() => needsPatterns(content.passages), [content.passages]),
  );
  const findings = useMemo(() => {
    // What cannot be tested yet is not found fault with.
    if (!isReady) return [];
    return checkReply(
      {
        ...content,
        part: filing.part,
        channels: filing.channels,
        about: { topics: filing.topics, withBooking: filing.withBooking },
      },
      { tokens, facts: open.own.houseFacts, patterns, segments, now: new Date(now).toISOString() },
    );
  }, [content, filing, tokens, open.own, now, patterns, segments, isReady]);
  const sample = useCallback(
    (name: string) => {
      const token = tokens.get(name);
      if (!tried || !token) return null;
      const style = { language: tried.language, timeZone: tried.context.time_zone };
      const shown = formatValue(
        lookUp(tried.context, name, token.type),
        { name, fn: null, options: {} },
        style,
      );
      return shown.kind === "text" ? shown.text : null;
    },
    [tried, tokens],
  );
  const definitions = useMemo(
    (): Definitions => ({
      tokens,
      blanks: content.blanks,
      passages: content.passages,
      findings: findings.filter((one) => one.language === variant?.language && one.channel === own),
      sample,
    }),
    [tokens, content.blanks, content.passages, findings, variant, own, sample],
  );
  const { uses, inWords } = useMemo(() => usesOf(content), [content]);

  // Where the hand goes when something beside the words is to be changed, and from there back to its place in them.
  const beside = useRef<HTMLElement>(null);
  const isExpected = useRef(false);
  const toExpected = useCallback(() => {
    const control = isExpected.current ? beside.current?.querySelector<HTMLElement>(CHOSEN) : null;
    if (!control) return;
    isExpected.current = false;
    control.focus();
  }, []);
  useEffect(
    () =>
      later(() => {
        // A panel that could not be fetched is fetched again when it is opened, and says so then.
        void Promise.allSettled([
          fetchPassages(),
          fetchBlanks(),
          fetchFiles(),
          fetchFiling(),
          fetchVersions(),
        ]);
      }),
    [],
  );
  const showBlank = useCallback((name: string) => {
    setBlank(name);
    setPanel("blanks");
  }, []);
  const editPassage = useCallback((id: string) => {
    setPassage(id);
    setPanel("passages");
    isExpected.current = true;
  }, []);
  const editBlank = useCallback(
    (name: string) => {
      showBlank(name);
      isExpected.current = true;
    },
    [showBlank],
  );
  useShortcut("leavePanel", () => editor?.commands.focus(), { within: beside });
  // What was just begun goes on in its words.
  const hasBegun: unknown = useLocation().state;
  const wasBegun = useRef(hasBegun === JUST_BEGUN);
  useEffect(() => {
    if (!editor || !wasBegun.current) return;
    wasBegun.current = false;
    editor.commands.focus("end");
  }, [editor]);
  const insertBlank = (name: string) => {
    editor
      ?.chain()
      .focus()
      .insertContent({ type: "blank", attrs: { name, fn: null, options: {} } })
      .run();
  };
  const go = (finding: WriterFinding) => {
    const { at } = finding;
    if (finding.language && finding.language !== language) setLanguage(finding.language);
    else if (at?.in === "body" && finding.channel !== own) setWantedText(finding.channel);
    else if (at?.in === "passage") editPassage(at.id);
    else if (at?.in === "blank") editBlank(at.name);
    else if (at?.in === "body" && editor)
      editor.chain().focus().setTextSelection({ from: at.from, to: at.to }).scrollIntoView().run();
  };

  useShortcut("panel", ({ code }) => setPanel(panels[Number(code.at(-1)) - 1] ?? panel));

  if (!variant) return null;
  const count: Partial<Record<Panel, number>> = {
    blanks: Object.keys(content.blanks).length,
    passages: Object.keys(content.passages).length,
    files: content.files.length,
  };
  return (
    <main className="grid grow grid-cols-[minmax(0,1fr)] gap-5 px-5 pb-5 max-lg:shrink-0 max-sm:px-3 lg:min-h-0 lg:grid-cols-[minmax(0,1fr)_25rem]">
      <section
        data-with-bar
        aria-label={t("theReply")}
        className="flex min-w-0 flex-col bg-sheet max-lg:min-h-[60dvh] lg:min-h-0"
      >
        <ReplyHead open={open} reply={reply} filing={filed} />
        {/* The head answers first, then the page, then what stands beside it: each wakes in a turn of its own. */}
        <Suspense>
          <ReplyPage
            open={open}
            content={content}
            variant={variant}
            change={change}
            definitions={definitions}
            about={{ topics: filing.topics, withBooking: filing.withBooking }}
            tried={tried}
            editor={editor}
            onEditor={haveEditor}
            onLanguage={setLanguage}
            own={own}
            ownFor={textChannels.filter((channel) => filing.channels.includes(channel))}
            onOwn={setWantedText}
            onEditPassage={editPassage}
            onEditBlank={editBlank}
            onShowBlank={showBlank}
            upload={files.upload}
            uploadProblem={files.problem}
          />
        </Suspense>
        <Findings findings={findings} onGo={go} />
      </section>
      <aside
        ref={beside}
        aria-label={t("besideIt")}
        className="flex flex-col bg-sheet max-lg:min-h-[60dvh] lg:min-h-0"
      >
        <Suspense>
          <Tabs value={panel} onChange={(next) => setPanel(panels.find((name) => name === next) ?? panel)}>
            <TabList
              label={t("besideTheReply")}
              className="gap-x-3.5 px-5 pt-3 text-sm"
              tabs={panels.map((name, index) => ({
                value: name,
                hint: t("altIndex", { index: index + 1 }),
                words: (
                  <>
                    {t(name)}
                    {count[name] ? <span className="tabular-nums"> {count[name]}</span> : ""}
                  </>
                ),
              }))}
            />
            <TabPanel value="tryOn" kept className={PANEL}>
              <TryOn
                open={open}
                content={content}
                own={own}
                language={variant.language}
                tokens={tokens}
                pool={pool}
                pinned={pinned}
                onPin={(number) => setPinned((list) => [...new Set([...list, number])])}
                problem={problem}
                onTried={haveTried}
              />
            </TabPanel>
            <TabPanel value="blanks" className={PANEL}>
              <BlanksPanel
                content={content}
                inWords={inWords}
                chosen={blank}
                onChoose={setBlank}
                change={change}
                onInsert={insertBlank}
              />
              <Drawn then={toExpected} />
            </TabPanel>
            <TabPanel value="passages" className={PANEL}>
              <PassagesPanel
                content={content}
                tokens={tokens}
                uses={uses}
                findings={findings}
                chosen={passage}
                onChoose={setPassage}
                change={change}
              />
              <Drawn then={toExpected} />
            </TabPanel>
            <TabPanel value="files" className={PANEL}>
              <FilesPanel content={content} change={change} upload={files.upload} problem={files.problem} />
            </TabPanel>
            <TabPanel value="filing" className={PANEL}>
              <FilingForm open={open} handle={filed} />
            </TabPanel>
            <TabPanel value="history" className={PANEL}>
              <VersionsPanel replyKey={open.key} versions={open.versions} events={open.events} />
            </TabPanel>
          </Tabs>
        </Suspense>
      </aside>
    </main>
  );
}

/** Does something whenever what stands beside it was drawn. */
function Drawn({ then }: { then: () => void }) {
  useEffect(() => then());
  return null;
}

/** How often each passage, and which blanks, stand in the words of any language. */
function usesOf({ variants }: Pick<OpenReply["content"], "variants">) {
  const uses = new Map<string, number>();
  const inWords = new Set<string>();
  for (const { subject, ...variant } of variants) {
    for (const document of allTexts(variant)) {
      walk(document, (node) => {
        for (const { id } of passagesOf(node)) uses.set(id, (uses.get(id) ?? 0) + 1);
      });
      for (const node of placeholdersOf(document)) if (node.type === "blank") inWords.add(node.attrs.name);
    }
    for (const [, name] of (subject ?? "").matchAll(/\{\$blank\.([a-z0-9_]+)/g)) if (name) inWords.add(name);
  }
  return { uses, inWords };
}

const PANEL = "min-h-0 grow overflow-y-auto px-5 py-3";

/** The first control of the passage or blank that is chosen. */
const CHOSEN = "[data-chosen] :is(button, input, textarea, [role=combobox])";
