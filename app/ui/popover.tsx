import { Popover as Radix } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  /** What opens it. */
  words: ReactNode;
  /** Name for who does not see it; where the words say enough, left out. */
  label?: string;
  align?: "start" | "center" | "end";
  className?: string;
  /** How what opens it looks. */
  opener?: string;
  children: ReactNode;
}

/** A small page over the page: Escape and a press outside close it, and the focus goes back. */
export function Popover({
  words,
  label,
  align = "end",
  className = "",
  opener = "quiet-link",
  children,
}: Props) {
  return (
    <Radix.Root>
      <Radix.Trigger {...(label === undefined ? {} : { "aria-label": label })} className={opener}>
        {words}
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          align={align}
          sideOffset={6}
          collisionPadding={12}
          aria-label={label ?? (typeof words === "string" ? words : undefined)}
          className={`z-40 flex max-h-(--radix-popover-content-available-height) flex-col overflow-y-auto border border-board bg-sheet p-4 text-sm shadow-md outline-none ${className}`}
        >
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
