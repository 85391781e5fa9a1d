import { useCallback, useRef } from "react";
import { useNavigate, useRevalidator } from "react-router";
import { stopsSending } from "#core/checks/second-look";
import type { OpenCase } from "#server/answering/open";
import { useToast } from "../ui/toast";
import { focusOpenBlank } from "./blanks";
import { findingPosition } from "./editor/decorations";
import { letterState } from "./editor/letter-state";
import { requestSending, tellSent } from "./sending";
import type { AnswerHandle } from "./use-answer";

/** Sends the answer: saves what was typed, asks the server, goes on to the next case, offers to call back. */
export function useSend(open: OpenCase, answer: AnswerHandle): (then: "next" | "stay") => Promise<void> {
  const toast = useToast();
  const navigate = useNavigate();
  const { revalidate } = useRevalidator();
  const busy = useRef(false);
  const { editor, saver } = answer;
  const { number, lastMessage } = open;

  return useCallback(
    async (then) => {
      if (!editor || busy.current) return;
      const { checks } = letterState(editor.state);
      if (stopsSending(checks)) {
        pointAtFirstStop(editor);
        toast({ words: checks[0]?.message ?? "Something stops sending", tone: "stop" });
        return;
      }
      busy.current = true;
      try {
        if (!(await saver()?.flush())) {
          toast({
            words: "Your answer could not be saved, so it was not sent. It is still here.",
            tone: "stop",
          });
          return;
        }
        const sent = await requestSending(number, { version: saver()?.version ?? 0, lastMessage });
        if ("problem" in sent) {
          toast({ words: sent.problem, tone: "stop" });
          await revalidate();
          return;
        }
        saver()?.stop();
        tellSent(sent, toast, navigate);
        const { message, next } = sent;
        if (then === "next") await navigate(next === null ? "/waiting" : `/cases/${next}`);
        else await navigate(`/cases/${number}?sent=${message}`, { replace: true });
      } catch (error) {
        toast({
          words: `It was not sent: ${error instanceof Error ? error.message : String(error)}. Your answer is still here.`,
          tone: "stop",
        });
      } finally {
        busy.current = false;
      }
    },
    [editor, saver, number, lastMessage, toast, navigate, revalidate],
  );
}

function pointAtFirstStop(editor: NonNullable<AnswerHandle["editor"]>): void {
  if (focusOpenBlank(editor)) return;
  const { checks } = letterState(editor.state);
  const at = checks.findIndex((check) => check.severity === "stop");
  const range = findingPosition(editor.view, at);
  if (range) editor.chain().focus().setTextSelection(range).scrollIntoView().run();
}
