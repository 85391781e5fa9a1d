import { useState } from "react";
import { useAct, type Outcome } from "./act";
import { useToast } from "./toast";
import { t } from "../words/ui";

/**
 * Sends changes of a page, and says that they are saved.
 * @param base address before the name of each act
 * @returns `act` for forms, which show themselves what was refused, and `send` for single controls with their `problem`
 */
export function useSave(base: string): {
  act: (what: string, body: object, words?: string) => Promise<Outcome<unknown>>;
  send: (what: string, body: object, words?: string) => Promise<boolean>;
  problem: string | null;
} {
  const [problem, setProblem] = useState<string | null>(null);
  const ask = useAct();
  const toast = useToast();
  const act = async (what: string, body: object, words = t("saved")) => {
    const outcome = await ask(`${base}/${what}`, body);
    if (outcome.ok) toast({ words });
    return outcome;
  };
  const send = async (what: string, body: object, words?: string) => {
    const outcome = await act(what, body, words);
    setProblem(outcome.ok ? null : outcome.problem);
    return outcome.ok;
  };
  return { act, send, problem };
}
