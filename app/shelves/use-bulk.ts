import { useCallback } from "react";
import type { BulkInput } from "#server/replies/filing";
import { useAct } from "../ui/act";
import { useToast } from "../ui/toast";
import { t } from "../words/shelves";

// What reads the answers comes with the first of them.
const done = async () => (await import("./bulk-answers")).done;
const undone = async () => (await import("./bulk-answers")).undone;

/** Replies that are changed together: by their keys, or all that a filter finds. */
type Which = { keys: string[] } | { filter: string };

/**
 * Changes replies together, and says what came of it, with a way back.
 * @returns how to make a change, which tells how many were changed; and how to take one back
 */
export function useBulk(): {
  make: (which: Which, change: BulkInput) => Promise<number>;
  undo: (id: number) => void;
} {
  const act = useAct();
  const toast = useToast();
  const undo = useCallback(
    (id: number) => {
      void act(`/shelves/bulk/${id}/undo`, {}, undone).then((result) => {
        if (!result.ok) {
          toast({ words: result.problem, tone: "stop" });
          return;
        }
        const { undone: back, stay } = result.data;
        const rest = stay > 0 ? [t("countWereChangedSinceAndNot", { count: stay })] : [];
        toast({ words: [t("countRepliesAreAsBefore", { count: back }), ...rest].join(" ") });
      });
    },
    [act, toast],
  );
  const make = useCallback(
    async (which: Which, change: BulkInput) => {
      const result = await act("/shelves/bulk", { ...which, change }, done);
      if (!result.ok) {
        toast({ words: result.problem, tone: "stop" });
        return 0;
      }
      const { id, changed, refused, words } = result.data;
      const left = refused > 0 ? [t("countAreNotYoursToChange", { count: refused })] : [];
      const said = (first: string) => [first, ...left].join(" ");
      if (id === null) toast({ words: said(t("nothingToChange")) });
      else toast({ words: said(`${words}.`), action: { label: t("undo2"), run: () => undo(id) } });
      return changed;
    },
    [act, toast, undo],
  );
  return { make, undo };
}
