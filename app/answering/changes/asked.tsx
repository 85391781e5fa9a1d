import { useState, type ReactNode } from "react";
import type { Change } from "#server/cases/changes";
import { Button } from "../../ui/button";
import { Dialog, DialogFoot } from "../../ui/dialog";
import { FormProblem } from "../../ui/form";
import { useChange } from "./use-change";

/** Asks for what a change wants, and makes it. */
export function Asked({
  title,
  words,
  yes,
  change: asked,
  number,
  onClose,
  children,
}: {
  title: string;
  words: string;
  yes: string;
  /** What is asked for; null as long as it is not chosen. */
  change: Change | null;
  number: number;
  onClose: () => void;
  children: ReactNode;
}) {
  const { change } = useChange(number);
  const [problem, setProblem] = useState<string | undefined>();
  const [busy, setBusy] = useState(false);
  const go = async () => {
    if (!asked) return;
    setBusy(true);
    const refused = await change(asked);
    setBusy(false);
    if (refused === null) onClose();
    else setProblem(refused);
  };
  return (
    <Dialog title={title} words={words} onClose={onClose}>
      <div className="mt-4">{children}</div>
      <FormProblem words={problem} />
      <DialogFoot className="mt-5" onCancel={onClose}>
        <Button disabled={busy || asked === null} onClick={() => void go()}>
          {yes}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
