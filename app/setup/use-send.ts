import { useState } from "react";
import * as z from "zod/mini";
import { useAct } from "../ui/act";
import { useToast } from "../ui/toast";

const done = z.object({});

/**
 * Sends changes of a page of the setup, and says that they are kept or why not.
 * @param base address before the name of each act
 */
export function useSend(base: string): {
  send: (what: string, body: object, words?: string) => Promise<boolean>;
  problem: string | null;
} {
  const [problem, setProblem] = useState<string | null>(null);
  const act = useAct();
  const toast = useToast();
  const send = async (what: string, body: object, words = "Kept.") => {
    const result = await act(`${base}/${what}`, body, done);
    setProblem(result.ok ? null : result.problem);
    if (result.ok) toast({ words });
    return result.ok;
  };
  return { send, problem };
}
