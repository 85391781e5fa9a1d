import { useNavigate } from "react-router";
import * as z from "zod/mini";
import type { Change } from "#server/cases/changes";
import { useAct } from "../../ui/act";
import { useToast } from "../../ui/toast";
import { t } from "../../words/answering";

const changed = z.object({ change: z.number(), number: z.number(), words: z.string() });
const undone = z.object({ number: z.number() });

/** Changes which case is whose, and what is on it; says what was done, offers to undo it, and goes where the words are now. */
export function useChange(number: number): {
  /** @returns what was refused, in words; null for nothing */
  change: (asked: Change) => Promise<string | null>;
  undo: (change: number) => Promise<void>;
} {
  const act = useAct();
  const toast = useToast();
  const navigate = useNavigate();
  const undo = async (change: number) => {
    const done = await act(`/case-changes/${change}/undo`, {}, undone);
    if (!done.ok) return toast({ words: done.problem, tone: "stop" });
    toast({ words: t("itIsAsItWas") });
    await navigate(`/cases/${done.data.number}`);
  };
  const change = async (asked: Change) => {
    const done = await act(`/cases/${number}/change`, asked, changed);
    if (!done.ok) return done.problem;
    const { words } = done.data;
    toast({
      words: `${words.slice(0, 1).toUpperCase()}${words.slice(1)}.`,
      action: { label: t("undo"), run: () => void undo(done.data.change) },
    });
    if (done.data.number !== number) await navigate(`/cases/${done.data.number}`);
    return null;
  };
  return { change, undo };
}
