import { useCallback } from "react";
import * as z from "zod/mini";
import { counted } from "#core/text/counted";
import type { BulkInput } from "#server/replies/filing";
import { useAct } from "../ui/act";
import { useToast } from "../ui/toast";

const done = z.object({
  id: z.nullable(z.number()),
  changed: z.number(),
  refused: z.number(),
  words: z.string(),
});
const undone = z.object({ undone: z.number(), stay: z.number() });

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
        const rest = stay > 0 ? `; ${counted(stay, "was", "were")} changed since and not touched` : "";
        toast({ words: `${counted(back, "reply is", "replies are")} as before${rest}.` });
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
      const left = refused > 0 ? ` ${counted(refused, "is", "are")} not yours to change.` : "";
      if (id === null) toast({ words: `Nothing to change.${left}` });
      else toast({ words: `${words}.${left}`, action: { label: "Undo", run: () => undo(id) } });
      return changed;
    },
    [act, toast, undo],
  );
  return { make, undo };
}
