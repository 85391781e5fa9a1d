import { lazy, Suspense, useMemo, useRef } from "react";
import { Link, useNavigate } from "react-router";
import { languageName } from "#core/language/tag";
import { stopsSending } from "#core/checks/second-look";
import type { PlacedFragment } from "#core/compose/stationery";
import type { Block } from "#core/document/types";
import type { DraftSlip } from "#server/answering/draft";
import type { OpenCase } from "#server/answering/open";
import type { StripReply } from "#server/strip/strip";
import { Button } from "../ui/button";
import { SaveWords } from "../ui/save-words";
import { LetterBlocks } from "../ui/letter-blocks";
import { Time } from "../ui/time";
import { KeptDraft } from "./draft/kept-draft";
import { Files } from "./sending/files";
import { Margin } from "./margin";
import { NoticesLine } from "./notices-line";
import { AroundLine } from "./letter/around-line";
import { PlainLine } from "./letter/plain-line";
import { previewOf } from "./letter/preview";
import { slipsWith, wayOf, type Way } from "./letter/take";
import { CopiesLine } from "./sending/copies-line";
import { RecipientLine } from "./sending/recipient-line";
import { SetAside } from "./draft/set-aside";
import { SideTag, type Side } from "./side";
import { Signature } from "./letter/signature";
import { SubjectLine } from "./sending/subject-line";
import type { AnswerHandle } from "./use-answer";
import { t } from "../words/answering";
import { Sentence } from "../words/sentence";

// It compares words, which few first looks want.
const Difference = lazy(async () => ({ default: (await import("./strip/difference")).Difference }));
/** What makes the editor, and what draws it: fetched beside the case. */
export const fetchWriter = () => import("./editor/writer");
const Writer = lazy(fetchWriter);
const SlipStack = lazy(() => import("./editor/slip-stack"));

interface Props {
  open: OpenCase;
  answer: AnswerHandle;
  /** A reply that is looked at and not taken: the page shows how it would read. */
  looked: StripReply | null;
  /** The question that a reply answers beside the first, by its key. */
  alsoOf: (key: string) => string | null;
  /** What stands beside it as likely, and may be mistaken for it. */
  rival: StripReply | null;
  /** Keys of the replies that the answer is made of, or would be. */
  considered: string[];
  person: number;
  /** What the browser had kept is the draft again, from this version on. */
  onBack: (version: number) => void;
  onSend: (then: "next" | "stay") => Promise<void>;
  /** Leaves the shelf for the words. */
  onWrite: () => void;
  onTake: (reply: StripReply, add: boolean) => void;
  /** The words are on the page, and can be written in. */
  onReady: () => void;
  keysGoTo: Side | null;
}

/** The right page: to whom, about what, the letter itself, and the second look in its margin. */
export function OurAnswer({
  open,
  answer,
  looked,
  alsoOf,
  rival,
  considered,
  person,
  onBack,
  onSend,
  onWrite,
  onTake,
  onReady,
  keysGoTo,
}: Props) {
  const { editor, letter } = answer;
  const page = useRef<HTMLDivElement>(null);
  const standing = looked && letter ? letter.slips : NOTHING;
  const preview = useMemo(() => {
    if (!looked) return null;
    const way: Way = standing.length === 0 ? { how: "begin" } : wayOf(standing, looked, alsoOf);
    const made = slipsWith(standing, looked, open.usual, way);
    return { ...previewOf(open, made.slips, answer.patterns, answer.languageOf), way, id: made.id };
  }, [open, looked, standing, alsoOf, answer.patterns, answer.languageOf]);
  const otherwise =
    open.recentAnswer && considered.length > 0 && !considered.includes(open.recentAnswer.reply.key)
      ? open.recentAnswer
      : null;
  const navigate = useNavigate();
  const keep = async () => {
    // What is kept is what is saved: the last words must be in it.
    if (await answer.saver()?.flush()) await navigate(`/replies/new?case=${open.number}`);
  };
  const isReady = letter !== null && !stopsSending(letter.checks);
  const blanksLeft = letter?.checks.filter((check) => check.code === "blank-empty").length ?? 0;
  return (
    <section
      aria-label={t("ourAnswer")}
      data-side="answer"
      className="relative flex min-h-0 min-w-0 flex-col"
    >
      <SideTag side="answer" keysGoTo={keysGoTo} onGo={onWrite} />
      <div
        ref={page}
        className="relative grow max-md:mt-2 md:mt-5 px-4 pt-1 md:min-h-0 md:overflow-y-auto md:px-6 lg:px-8"
      >
        <div className="grid lg:grid-cols-[minmax(0,1fr)_12.5rem] lg:gap-9">
          <div className="min-w-0">
            <dl className="grid grid-cols-[4rem_1fr] gap-y-1.5 border-b border-line pb-2.5">
              <RecipientLine open={open} answer={answer} />
              {open.channel === "email" && <CopiesLine open={open} answer={answer} />}
              {open.channel === "email" && <SubjectLine open={open} answer={answer} looked={looked} />}
            </dl>
            <KeptDraft open={open} person={person} onBack={onBack} />
            <NoticesLine open={open} onTake={onTake} />
            {otherwise && <Otherwise recent={otherwise} />}
            {preview && (
              <div
                aria-label={t("howLookedReadsForThisCase", { looked: looked?.title ?? "" })}
                role="region"
                className="pt-2"
              >
                <p className="mb-2 flex flex-wrap items-baseline gap-x-4 text-sm text-soft">
                  <span className="mr-auto">
                    {looked?.shelf.name}: {looked?.title.toLowerCase()}, {comesAs(preview.way)}
                  </span>
                  {looked && (
                    <button
                      type="button"
                      className="whitespace-nowrap underline underline-offset-2"
                      onClick={() => onTake(looked, false)}
                    >
                      {t("takeIt")}
                    </button>
                  )}
                  <button
                    type="button"
                    className="whitespace-nowrap underline underline-offset-2"
                    onClick={onWrite}
                  >
                    {t("writeItYourself")}
                  </button>
                </p>
                {looked?.stale && (
                  <p role="note" className="mb-2 text-sm text-look">
                    {t("theLanguageOfThisReplyIs", { language: languageName(looked.language) })}
                  </p>
                )}
                {looked && rival && (
                  <Suspense>
                    <Difference open={open} patterns={answer.patterns} reply={looked} other={rival} />
                  </Suspense>
                )}
                <div className="letter">
                  {bySlip(preview.letter.fragments).map(({ slip, blocks }) => (
                    <div
                      key={slip}
                      className={slip === preview.id && preview.way.how !== "begin" ? "comes" : ""}
                    >
                      <LetterBlocks blocks={blocks} />
                    </div>
                  ))}
                </div>
              </div>
            )}
            <Suspense>
              <Writer {...answer.writer} />
            </Suspense>
            <div hidden={preview !== null}>
              <Suspense fallback={null}>
                {editor && letter && <SlipStack editor={editor} slips={letter.slips} onReady={onReady} />}
              </Suspense>
            </div>
            {preview === null && <AroundLine open={open} answer={answer} />}
            {open.channel !== "email" && preview === null && letter && (
              <PlainLine channel={open.channel} editor={editor} letter={letter} />
            )}
            <SetAside editor={editor} letter={letter} />
            <Signature open={open} />
            <Files open={open} answer={answer} />
          </div>
          <Margin
            checks={preview ? preview.checks : (letter?.checks ?? [])}
            editor={preview ? null : editor}
            page={page}
          />
        </div>
      </div>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2 px-4 py-3 md:px-6 lg:px-8">
        <Button
          keys="Ctrl Enter"
          ready={isReady}
          disabled={preview !== null || editor === null}
          onClick={() => void onSend("next")}
        >
          {t("sendTakeTheNext")}
        </Button>
        <Button
          look="quiet"
          ready={isReady}
          disabled={preview !== null || editor === null}
          onClick={() => void onSend("stay")}
        >
          {t("sendAndStay")}
        </Button>
        {preview === null && answer.saveState !== "nothing" && (
          <button type="button" className="quiet-link" onClick={() => void keep()}>
            {t("keepThisOnAShelf")}
          </button>
        )}
        <span role="status" className="ml-auto text-sm text-soft">
          {blanksLeft > 0 && preview === null && t("countBlanksLeft", { count: blanksLeft })}
          {blanksLeft > 0 && preview === null && answer.saveState !== "nothing" && ", "}
          <SaveWords state={answer.saveState} />
        </span>
      </div>
    </section>
  );
}

const NOTHING: DraftSlip[] = [];

/** What taking a reply would do, before it is done. */
function comesAs(way: Way): string {
  switch (way.how) {
    case "begin":
      return t("notTakenYet");
    case "add":
      return t("notTakenYetEnterAddsIt");
    case "swap":
      return t("notTakenYetEnterPutsIt", { way: way.title });
  }
}

/** The words of a letter by the slips that they stand in, in their order. */
function bySlip(fragments: PlacedFragment[]): { slip: string; blocks: Block[] }[] {
  const slips = new Map<string, Block[]>();
  for (const { fragment } of fragments) {
    const { slip } = fragment.words;
    if (slip !== "signature" && slip !== "footer")
      slips.set(slip, [...(slips.get(slip) ?? []), fragment.block()]);
  }
  return [...slips].map(([slip, blocks]) => ({ slip, blocks }));
}

/** That a colleague answered much the same with another reply: two customers should not hear two things. */
function Otherwise({ recent }: { recent: NonNullable<OpenCase["recentAnswer"]> }) {
  const { number, label, person, at, reply, sameCustomer } = recent;
  return (
    <p role="note" className="border-b border-line py-2 text-sm">
      <Sentence
        of={t}
        name={sameCustomer ? "answeredThisCustomerOtherwise" : "answeredMuchTheSameOtherwise"}
        values={{ person, label, reply: reply.title }}
        parts={[<Time key="0" at={at} />, <Link key="1" to={`/cases/${number}`} className="quiet-link" />]}
      />
    </p>
  );
}
