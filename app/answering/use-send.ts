import { useCallback, useRef } from "react";
import { useNavigate, useRevalidator } from "react-router";
import * as z from "zod/mini";
import { stopsSending } from "#core/checks/second-look";
import type { OpenCase } from "#server/answering/open";
import { useToast } from "../ui/toast";
import { focusOpenBlank } from "./blanks";
import { findingPosition } from "./editor/decorations";
import { letterState } from "./editor/letter-state";
import type { AnswerHandle } from "./use-answer";

const sentSchema = z.object({
  ok: z.literal(true),
  message: z.number(),
  dueAt: z.string(),
  next: z.nullable(z.number()),
  to: z.string(),
});
const stoppedSchema = z.object({
  ok: z.literal(false),
  checks: z.array(z.looseObject({ message: z.string() })),
});
const refusedSchema = z.object({ problem: z.string() });

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
        const response = await fetch(`/cases/${number}/send`, {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify({ version: saver()?.version ?? 0, lastMessage }),
        });
        const body: unknown = await response.json();
        const sent = sentSchema.safeParse(body);
        if (!sent.success) {
          const words =
            refusedSchema.safeParse(body).data?.problem ??
            stoppedSchema.safeParse(body).data?.checks[0]?.message;
          toast({ words: words ?? "The server did not take it. Your answer is still here.", tone: "stop" });
          await revalidate();
          return;
        }
        saver()?.stop();
        const { message, dueAt, to, next } = sent.data;
        toast({
          words: `On its way to ${to}`,
          until: Date.parse(dueAt),
          action: {
            label: "Call it back",
            keys: "Alt Z",
            run: () => void callBack(message, toast, navigate),
          },
        });
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

const calledBack = z.object({ case: z.number() });

async function callBack(
  message: number,
  toast: ReturnType<typeof useToast>,
  navigate: ReturnType<typeof useNavigate>,
): Promise<void> {
  const response = await fetch(`/messages/${message}/call-back`, { method: "POST" });
  const body: unknown = await response.json();
  const done = calledBack.safeParse(body);
  if (!done.success) {
    toast({
      words: refusedSchema.safeParse(body).data?.problem ?? "It could not be called back",
      tone: "stop",
    });
    return;
  }
  toast({ words: "Called back. It is your draft again." });
  await navigate(`/cases/${done.data.case}?back=${message}`);
}

function pointAtFirstStop(editor: NonNullable<AnswerHandle["editor"]>): void {
  if (focusOpenBlank(editor)) return;
  const { checks } = letterState(editor.state);
  const at = checks.findIndex((check) => check.severity === "stop");
  const range = findingPosition(editor.view, at);
  if (range) editor.chain().focus().setTextSelection(range).scrollIntoView().run();
}
