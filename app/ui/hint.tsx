import { Tooltip as Radix } from "radix-ui";
import type { ReactElement, ReactNode } from "react";

/** Holds the hints of a page: once one was shown, the next shows at once. */
export function Hints({ children }: { children: ReactNode }) {
  return <Radix.Provider delayDuration={400}>{children}</Radix.Provider>;
}

interface Props {
  words: ReactNode;
  side?: "top" | "bottom";
  align?: "start" | "center";
  /** Shown whatever is pointed at, and out of the way of the hand. */
  open?: boolean;
  /** The one element that it is about; where the keyboard reaches it, its focus shows the hint too. */
  children: ReactElement;
}

/** What something is for, or all of what is cut off, for who points at it or has it in focus. */
export function Hint({ words, side = "bottom", align = "center", open = false, children }: Props) {
  return (
    <Radix.Root {...(open ? { open } : {})}>
      <Radix.Trigger asChild>{children}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          side={side}
          align={align}
          sideOffset={4}
          collisionPadding={8}
          className={`z-50 max-w-80 rounded-sm bg-ink px-2 py-1 text-sm text-sheet shadow-md [overflow-wrap:anywhere] ${open ? "pointer-events-none" : ""}`}
        >
          {words}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
