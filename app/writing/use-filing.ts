import { useCallback, useState } from "react";
import * as z from "zod/mini";
import type { Filing, OpenReply } from "#server/replies/open-writing";
import { useAct } from "../ui/act";
import { useToast } from "../ui/toast";

const saved = z.object({ changed: z.string() });

/** How a reply is filed, as it is set on the screen. */
export interface FilingHandle {
  filing: Filing;
  set: (changes: Partial<Filing>) => void;
  /** Whether it is set otherwise than it is stored. */
  changed: boolean;
  /** Stores it. @returns whether it is stored */
  save: () => Promise<boolean>;
  problem: string | null;
  busy: boolean;
}

export function useFiling(open: OpenReply): FilingHandle {
  const [filing, setFiling] = useState(open.filing);
  const [stored, setStored] = useState(open.filing);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const act = useAct();
  const toast = useToast();
  const save = useCallback(async () => {
    setBusy(true);
    const done = await act(`/replies/${open.key}/filing`, filing, saved);
    setBusy(false);
    setProblem(done.ok ? null : done.problem);
    if (!done.ok) return false;
    const next = { ...filing, changed: done.data.changed };
    setFiling(next);
    setStored(next);
    toast({ words: "Filed." });
    return true;
  }, [act, filing, open.key, toast]);
  return {
    filing,
    set: (changes) => setFiling((now) => ({ ...now, ...changes })),
    changed: JSON.stringify(filing) !== JSON.stringify(stored),
    save,
    problem,
    busy,
  };
}
