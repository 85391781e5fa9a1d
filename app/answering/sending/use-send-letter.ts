import { reasonOf } from "#core/text/reason";
import { useCallback, useRef } from "react";
import { useNavigate, useRevalidator } from "react-router";
import { factsRead } from "#core/checks/facts-read";
import { stopsSending } from "#core/checks/second-look";
import type { OpenCase } from "#server/answering/open";
import type { SendCheck } from "#core/checks/check";
import { useAct, type Act } from "../../ui/act";
import { useToast } from "../../ui/toast";
import { focusNamedBlank, focusOpenBlank } from "../editor/blanks";
import { findingPosition } from "../editor/finding-position";
import { letterState } from "../editor/letter-state";
import { isEmptySlip } from "../editor/slips";
import { requestSending, tellSent } from "./request";
import type { AnswerHandle } from "../use-answer";
import { t } from "../../words/answering";

interface Page {
  /** Whether the page shows something else than the letter that would go. */
  showsOther: boolean;
  /** Shows that letter. */
  show: () => void;
}

/**
 * Sends the answer: saves what was typed, asks the server, goes on to the next case, offers to call back. Nothing is
 * sent while the page shows anything but the letter that would go: that is shown first.
 */
export function useSendLetter(
  open: OpenCase,
  answer: AnswerHandle,
  page: Page,
): (then: "next" | "stay") => Promise<void> {
  const toast = useToast();
  const navigate = useNavigate();
  const act = useAct();
  const { revalidate } = useRevalidator();
  const busy = useRef(false);
  const { editor, saver } = answer;
  const { number, lastMessage, seen, context } = open;
  const { showsOther, show } = page;

  return useCallback(
    async (then) => {
      if (!editor || busy.current) return;
      const { checks, slips } = letterState(editor.state);
      if (showsOther) {
        const nothingTaken = slips.every(isEmptySlip);
        if (nothingTaken) {
          toast({ words: t("takeItFirstEnterTakesWhat"), tone: "stop" });
          return;
        }
        show();
        toast({ words: t("thisIsTheLetterThatWould") });
        return;
      }
      if (stopsSending(checks)) {
        pointAtFirstStop(editor);
        noteLacking(act, number, checks);
        toast({ words: checks[0]?.message ?? t("somethingStopsSending"), tone: "stop" });
        return;
      }
      busy.current = true;
      try {
        if (!(await saver()?.flush())) {
          toast({
            words: t("yourAnswerCouldNotBeSaved"),
            tone: "stop",
          });
          return;
        }
        const version = saver()?.version ?? 0;
        const facts = factsRead(slips, context);
        const sent = await requestSending(number, { version, lastMessage, seen, facts });
        if ("problem" in sent) {
          toast({ words: sent.problem, tone: "stop" });
          await revalidate();
          return;
        }
        saver()?.stop();
        tellSent(sent, { act, toast, navigate });
        const { message, next } = sent;
        if (then === "next") await navigate(next === null ? "/waiting" : `/cases/${next}`);
        else await navigate(`/cases/${number}?sent=${message}`, { replace: true });
      } catch (error) {
        toast({
          words: t("itWasNotSentErrorYour", { error: reasonOf(error) }),
          tone: "stop",
        });
      } finally {
        busy.current = false;
      }
    },
    [editor, saver, number, lastMessage, seen, context, showsOther, show, act, toast, navigate, revalidate],
  );
}

/** Puts the hand where the first thing that stops sending can be mended. */
export function pointAtFirstStop(editor: NonNullable<AnswerHandle["editor"]>): void {
  const { checks } = letterState(editor.state);
  const at = checks.findIndex((check) => check.severity === "stop");
  const check = checks[at];
  if (check?.blank && focusNamedBlank(editor, check.blank)) return;
  if (
    check?.code === "recipient-unknown" ||
    check?.code === "no-recipient" ||
    check?.code === "recipient-ours"
  ) {
    document.getElementById("recipient")?.focus();
    return;
  }
  if (check?.code === "blank-empty" && focusOpenBlank(editor)) return;
  const range = findingPosition(editor.view, at);
  if (range) editor.chain().focus().setTextSelection(range).scrollIntoView().run();
}

/** Tells which values the letter could not go without: what is lacking again and again is somebody's to fill in. */
function noteLacking(act: Act, number: number, checks: SendCheck[]): void {
  const names = checks.flatMap(({ token }) => token ?? []);
  // What is not told is only not counted.
  if (names.length > 0) void act(`/cases/${number}/lacking`, { names });
}
