import { useCallback } from "react";
import * as z from "zod/mini";
import { counted } from "#core/text/counted";
import { useAct } from "../ui/act";
import { useToast } from "../ui/toast";

const undone = z.object({ undone: z.number(), stay: z.number() });

/** Takes a change of many replies back, and says what came of it. */
export function useUndoBulk(): (id: number) => void {
  const act = useAct();
  const toast = useToast();
  return useCallback(
    (id) => {
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
}
