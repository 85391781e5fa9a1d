import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from "react";
import { createPortal, flushSync } from "react-dom";
import { Link, useNavigate } from "react-router";
import type { StripReply } from "#server/strip/strip";
import type { OpenCase } from "#server/answering/open";
import { Kbd } from "../ui/kbd";
import { StaleLine, type Stale } from "../ui/stale";
import { useToast } from "../ui/toast";
import { usePerson } from "../ui/use-person";
import { useShortcut } from "../ui/use-shortcut";
import { useSettledBeforeLeaving } from "../ui/use-settled";
import { focusOpenBlank } from "./editor/blanks";
import { endOfAnswer, slipsOf } from "./editor/slips";
import { wayOf, wayToAdd } from "./letter/take";
import { useOffers } from "./strip/offers";
import { OurAnswer } from "./our-answer";
import { useSide } from "./side";
import { Strip } from "./strip/strip";
import { TheirSide } from "./inquiry/their-side";
import { useTimeSpent } from "./time/use-time-spent";
import { useAnswer } from "./use-answer";
import { useStrip } from "./strip/use-strip";
import { useUndo } from "./use-undo";
import { useSendLetter } from "./sending/use-send-letter";
import { t } from "../words/answering";

export interface Around {
  previous: number | null;
  next: number | null;
  position: number | null;
  total: number;
}

/** The two-page spread: their side, our answer, and the shelf along the bottom. */
export function Spread({
  open,
  around,
  stale,
  onBack,
  hasStayed,
  onStay,
}: {
  open: OpenCase;
  around: Around;
  /** Why what is shown may be out of date; null where it is not. */
  stale: Stale | null;
  /** What the browser had kept is the draft again, from this version on. */
  onBack: (version: number) => void;
  /** Whether the letter before was sent from here, and its sender stayed. */
  hasStayed: boolean;
  /** The letter is about to be sent, and its sender stays. */
  onStay: () => void;
}) {
  const offers = useOffers(open);
  const person = usePerson();
  useTimeSpent(open.number);
  const answer = useAnswer(open, offers, person);
  const { editor, letter, take } = answer;
  const strip = useStrip(open);
  // Who has just sent a letter and stayed has an empty answer before them.
  // Nor does one answer anything who writes first.
  const writesFirst = open.messages.every((message) => message.direction === "out");
  const began = open.draft !== null || hasStayed || writesFirst;
  const [looking, setLooking] = useState(!began);
  const search = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const toast = useToast();
  const takenKeys = letter?.slips.flatMap((slip) => slip.reply ?? []).join("\n") ?? "";
  const taken = useMemo(() => new Set(takenKeys === "" ? [] : takenKeys.split("\n")), [takenKeys]);

  const backToShelf = useCallback(() => search.current?.focus(), []);
  // The words must be on the page before the hand can be put on them.
  const showAnswer = useCallback(() => flushSync(() => setLooking(false)), []);
  useUndo(editor, showAnswer);
  const looked = looking && strip.chosen && !taken.has(strip.chosen.key) ? strip.chosen : null;
  const sendLetter = useSendLetter(open, answer, { showsOther: looked !== null, show: showAnswer });
  const send = useCallback(
    async (then: "next" | "stay") => {
      if (then === "stay") onStay();
      await sendLetter(then);
    },
    [sendLetter, onStay],
  );
  useSettledBeforeLeaving(
    answer.saver,
    useCallback(
      () =>
        toast({
          words: t("yourAnswerOnOpenCouldNot", { open: open.label }),
          tone: "stop",
        }),
      [toast, open.label],
    ),
  );
  /** A reply that was to be taken before the editor ran. */
  const asked = useRef<{ reply: StripReply; add: boolean }>(null);
  /** Whether the words of the answer are on the page already, or waited for. */
  const page = useRef<"coming" | "awaited" | "drawn">("coming");
  const toAnswer = useCallback(() => {
    showAnswer();
    if (!editor || page.current !== "drawn") {
      // It is gone to as soon as its words are drawn; what is typed until then is not for the shelf.
      page.current = "awaited";
      search.current?.blur();
      return;
    }
    if (focusOpenBlank(editor)) return;
    const { state, view } = editor;
    view.dispatch(state.tr.setSelection(endOfAnswer(state.doc)).scrollIntoView());
    view.focus();
  }, [editor, showAnswer]);
  // Where work goes on: in the answer that was begun, unless somebody is elsewhere on the page already.
  const onReady = useCallback(() => {
    const isWanted = began || page.current === "awaited";
    page.current = "drawn";
    if (isWanted && document.activeElement === document.body) toAnswer();
  }, [began, toAnswer]);
  const { side, listen } = useSide();

  const onLook = useCallback(
    (isLooking: boolean, at?: number) => {
      setLooking(isLooking);
      const reply = at === undefined ? null : strip.replies[at];
      if (reply && at !== undefined) offers.look(reply, at);
    },
    [strip.replies, offers],
  );
  const onTake = useCallback(
    (reply: StripReply, add: boolean) => {
      if (!editor) {
        asked.current = { reply, add };
        return;
      }
      const slips = slipsOf(editor.state.doc);
      const way = add ? wayToAdd(slips, reply) : wayOf(slips, reply, strip.alsoOf);
      showAnswer();
      // What the shelf did not offer, a notice did.
      const place = strip.replies.findIndex((one) => one.key === reply.key);
      if (take(reply, way)) {
        if (place >= 0) offers.take(reply, place);
      } else toast({ words: t("replyIsInYourAnswerAlready", { reply: reply.title }) });
      strip.next(reply, taken);
    },
    [editor, showAnswer, take, offers, strip, toast, taken],
  );

  useEffect(() => {
    const wanted = editor && asked.current;
    if (!wanted) return;
    asked.current = null;
    onTake(wanted.reply, wanted.add);
  }, [editor, onTake]);

  // Heard before the editor hears the key, which has a meaning of its own for it.
  const sendBy = (then: "next" | "stay") => (event: KeyboardEvent) => {
    event.stopPropagation();
    void send(then);
  };
  useShortcut("send", sendBy("next"), { capture: true });
  useShortcut("sendAndStay", sendBy("stay"), { capture: true });
  const go = (to: number | null) => () => {
    if (to !== null) void navigate(`/cases/${to}`);
  };
  useShortcut("caseBefore", go(around.previous), { capture: true });
  useShortcut("caseAfter", go(around.next), { capture: true });
  useShortcut(
    "toShelf",
    ({ target }) => {
      if (!(target instanceof HTMLElement)) return;
      if (target.closest(".answer-editor")) backToShelf();
      else if (target === document.body) (taken.size > 0 || began ? toAnswer : backToShelf)();
    },
    { capture: true, also: true },
  );

  return (
    <main
      {...listen}
      className="grow grid-cols-1 grid-rows-[minmax(0,1fr)_auto_auto] max-md:flex max-md:shrink-0 max-md:flex-col md:grid md:min-h-0"
    >
      <PlaceTools around={around} />
      <div className="grid grid-cols-[minmax(0,1fr)] border-b border-line bg-sheet max-md:grow md:min-h-0 md:grid-cols-[minmax(20rem,35%)_minmax(0,1fr)]">
        <TheirSide open={open} />
        <OurAnswer
          open={open}
          answer={answer}
          rival={strip.rival}
          considered={looking || taken.size === 0 ? (strip.chosen ? [strip.chosen.key] : []) : [...taken]}
          looked={looked}
          alsoOf={strip.alsoOf}
          person={person}
          onBack={onBack}
          onSend={send}
          onWrite={toAnswer}
          onTake={onTake}
          onReady={onReady}
          keysGoTo={side}
        />
      </div>
      <StaleLine stale={stale} />
      <Strip
        began={began}
        keysGoTo={side}
        onSide={backToShelf}
        search={search}
        taken={taken}
        strip={strip}
        onLook={onLook}
        onTake={onTake}
        onLeave={toAnswer}
      />
    </main>
  );
}

/** Which case of how many, and the way to its neighbours, in the line at the top. */
function PlaceTools({ around }: { around: Around }) {
  const place = useSyncExternalStore(
    () => () => undefined,
    () => document.getElementById("place-tools"),
    () => null,
  );
  if (!place || around.position === null) return null;
  const step = (to: number | null, keys: string, label: string) =>
    to === null ? (
      <span aria-hidden className="invisible max-sm:hidden">
        <Kbd keys={keys} />
      </span>
    ) : (
      <Link to={`/cases/${to}`}>
        <span className="sm:sr-only max-sm:quiet-link">{label}</span>
        <Kbd keys={keys} />
      </Link>
    );
  return createPortal(
    <>
      <span className="tabular-nums">
        {t("casePositionOfTotal", { position: around.position, total: around.total })}
      </span>
      {step(around.previous, "Alt ↑", t("caseBefore"))}
      {step(around.next, "Alt ↓", t("caseAfter"))}
    </>,
    place,
  );
}
