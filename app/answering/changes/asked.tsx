import { useState, type ReactNode } from "react";
import type { Change } from "#server/cases/changes";
import { Button } from "../../ui/button";
import { Dialog, DialogFoot } from "../../ui/dialog";
import { FormProblem } from "../../ui/form";
import { useChange } from "./use-change";

interface Props {
  title: string;
  words: string;
  yes: string;
  onClose: () => void;
  children: ReactNode;
}

/** Asks for what something wants, and does it. */
export function Asking({
  title,
  words,
  yes,
  go,
  onClose,
  children,
}: Props & {
  /** Does it, and says what was refused, null for nothing; null as long as something is not chosen. */
  go: (() => Promise<string | null>) | null;
}) {
  const [problem, setProblem] = useState<string | undefined>();
  const [busy, setBusy] = useState(false);
  const run = async () => {
    if (!go) return;
    setBusy(true);
    const refused = await go();
    setBusy(false);
    if (refused === null) onClose();
    else setProblem(refused);
  };
  return (
    <Dialog title={title} words={words} onClose={onClose}>
      <div className="mt-4">{children}</div>
      <FormProblem words={problem} />
      <DialogFoot className="mt-5" onCancel={onClose}>
        <Button disabled={busy || go === null} onClick={() => void run()}>
          {yes}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}

/** Asks for what a change of a case wants, and makes it. */
export function Asked({
  change: asked,
  number,
  ...rest
}: Props & {
  /** What is asked for; null as long as it is not chosen. */
  change: Change | null;
  number: number;
}) {
  const { change } = useChange(number);
  return <Asking {...rest} go={asked && (() => change(asked))} />;
}
