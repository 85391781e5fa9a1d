import { AlertDialog as Radix } from "radix-ui";
import type { ReactElement, ReactNode } from "react";

interface Props {
  /** What asks for it. */
  children: ReactElement;
  /** The question. */
  title: string;
  /** What will come of it. */
  words: ReactNode;
  /** What the button says that does it. */
  yes: string;
  onYes: () => void;
}

/** Asks before something is done that is not easily undone; the focus stands on what leaves all as it is. */
export function Confirm({ children, title, words, yes, onYes }: Props) {
  return (
    <Radix.Root>
      <Radix.Trigger asChild>{children}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-50 bg-ink/30" />
        <Radix.Content className="fixed top-1/3 left-1/2 z-50 w-[min(28rem,calc(100vw-2rem))] -translate-x-1/2 -translate-y-1/3 border-t-4 border-ink bg-sheet px-6 py-5 shadow-lg outline-none">
          <Radix.Title className="text-lg font-bold">{title}</Radix.Title>
          <Radix.Description className="mt-1.5">{words}</Radix.Description>
          <p className="mt-5 flex flex-row-reverse justify-start gap-5">
            <Radix.Action
              className="rounded-sm border border-accent bg-accent px-3.5 py-[7px] font-semibold text-on-accent"
              onClick={onYes}
            >
              {yes}
            </Radix.Action>
            <Radix.Cancel className="quiet-link">Leave it</Radix.Cancel>
          </p>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
