import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";
import { Button } from "./button";
import { t } from "../words/ui";

interface Props {
  title: string;
  /** What will come of it. */
  words: string;
  onClose: () => void;
  children: ReactNode;
}

/** A sheet over the page with something to fill in; Escape leaves all as it is. */
export function Dialog({ title, words, onClose, children }: Props) {
  return (
    <Radix.Root open onOpenChange={(open) => !open && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Radix.Content className="fixed top-[12vh] left-1/2 z-40 max-h-[80vh] w-[min(36rem,calc(100vw-2rem))] -translate-x-1/2 overflow-y-auto border-t-4 border-ink bg-sheet px-6 py-5 shadow-lg outline-none">
          <Radix.Title className="text-lg font-bold [overflow-wrap:anywhere]">{title}</Radix.Title>
          <Radix.Description className="mt-1 text-sm text-soft [overflow-wrap:anywhere]">
            {words}
          </Radix.Description>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

/** The last line of a dialog: what does it, and what leaves all as it is. */
export function DialogFoot({
  className = "",
  onCancel,
  children,
}: {
  className?: string;
  onCancel: () => void;
  children: ReactNode;
}) {
  return (
    <p className={`flex flex-row-reverse justify-start gap-5 ${className}`}>
      {children}
      <Button look="quiet" onClick={onCancel}>
        {t("cancel")}
      </Button>
    </p>
  );
}
