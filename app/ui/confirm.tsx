import { AlertDialog as Radix } from "radix-ui";
import type { ReactElement, ReactNode } from "react";
import { t } from "../words/ui";

interface Question {
  /** The question. */
  title: string;
  /** What will come of it. */
  words: ReactNode;
  /** What the button says that does it. */
  yes: string;
  onYes: () => void;
}

/** Asks before something is done that is not easily undone; the focus stands on what leaves all as it is. */
export function Confirm({
  children,
  ...question
}: Question & { /** What asks for it. */ children: ReactElement }) {
  return (
    <Radix.Root>
      <Radix.Trigger asChild>{children}</Radix.Trigger>
      <Asked {...question} />
    </Radix.Root>
  );
}

/** The same question, asked by what happened. @param onNo called when all is to be left as it is */
export function ConfirmDialog({ onNo, ...question }: Question & { onNo: () => void }) {
  return (
    <Radix.Root open onOpenChange={(open) => !open && onNo()}>
      <Asked {...question} />
    </Radix.Root>
  );
}

function Asked({ title, words, yes, onYes }: Question) {
  return (
    <Radix.Portal>
      <Radix.Overlay className="fixed inset-0 z-50 bg-ink/30" />
      <Radix.Content className="fixed top-1/3 left-1/2 z-50 w-[min(28rem,calc(100vw-2rem))] -translate-x-1/2 -translate-y-1/3 border-t-4 border-ink bg-sheet px-6 py-5 shadow-lg outline-none">
        <Radix.Title className="text-lg font-bold [overflow-wrap:anywhere]">{title}</Radix.Title>
        <Radix.Description className="mt-1.5 [overflow-wrap:anywhere]">{words}</Radix.Description>
        <p className="mt-5 flex flex-row-reverse justify-start gap-5">
          <Radix.Action
            className="rounded-sm border border-accent bg-accent px-3.5 py-[7px] font-semibold text-on-accent"
            onClick={onYes}
          >
            {yes}
          </Radix.Action>
          <Radix.Cancel className="quiet-link">{t("cancel")}</Radix.Cancel>
        </p>
      </Radix.Content>
    </Radix.Portal>
  );
}
