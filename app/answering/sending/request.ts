import type { useNavigate } from "react-router";
import * as z from "zod/mini";
import type { Act } from "../../ui/act";
import type { ToastMessage } from "../../ui/toast";
import { problemOf } from "../../ui/refusal";
import { t } from "../../words/answering";

const sentSchema = z.object({
  ok: z.literal(true),
  message: z.number(),
  dueAt: z.string(),
  next: z.nullable(z.number()),
  to: z.string(),
});
export type Sent = z.infer<typeof sentSchema>;
const stoppedSchema = z.object({
  ok: z.literal(false),
  checks: z.array(z.looseObject({ message: z.string() })),
});
const calledBack = z.object({ case: z.number() });

/** What a screen does things by. */
interface Ways {
  act: Act;
  toast: (toast: ToastMessage) => void;
  navigate: ReturnType<typeof useNavigate>;
}

/**
 * Asks the server to send the draft of a case.
 * @param seen the version of the draft, the latest message, the details and the house's facts that the agent saw
 * @returns what was sent, or why it was not, in words
 */
export async function requestSending(
  number: number,
  seen: { version: number; lastMessage: number; seen: string; facts: Record<string, unknown> },
): Promise<Sent | { problem: string }> {
  const response = await fetch(`/cases/${number}/send`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(seen),
  });
  if (response.status === 401) return { problem: t("yourSessionHasEndedSignIn") };
  const body: unknown = await response.json();
  const sent = sentSchema.safeParse(body);
  if (sent.success) return sent.data;
  const problem = (await problemOf(body)) ?? stoppedSchema.safeParse(body).data?.checks[0]?.message;
  return { problem: problem ?? t("theServerDidNotTakeIt") };
}

/** Says that a letter is on its way, and offers to call it back. */
export function tellSent({ message, dueAt, to }: Sent, ways: Ways): void {
  ways.toast({
    words: t("onItsWayToTo", { to }),
    until: Date.parse(dueAt),
    action: { label: t("callItBack"), run: () => void callBack(message, ways) },
  });
}

async function callBack(message: number, { act, toast, navigate }: Ways): Promise<void> {
  const done = await act(`/messages/${message}/call-back`, {}, calledBack);
  if (!done.ok) {
    toast({ words: done.problem, tone: "stop" });
    return;
  }
  toast({ words: t("calledBackItIsYourDraft") });
  await navigate(`/cases/${done.data.case}?back=${message}`);
}
