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
  /** Whether what opens it breaks over lines as the words around it do; no button does. */
  inline?: boolean;
  children: ReactNode;
}

/** A small page over the page: Escape and a press outside close it, and the focus goes back. */
export function Popover({
  words,
  label,
  align = "end",
  className = "",
  opener = "quiet-link",
  inline = false,
  children,
}: Props) {
  const named = label === undefined ? {} : { "aria-label": label };
  return (
    <Radix.Root>
      {inline ? (
        <Radix.Trigger asChild>
          <span
            {...named}
            role="button"
            tabIndex={0}
            className={`cursor-pointer ${opener}`}
            onKeyDown={(event) => {
              if (event.key !== "Enter" && event.key !== " ") return;
              event.preventDefault();
              event.currentTarget.click();
            }}
          >
            {words}
          </span>
        </Radix.Trigger>
      ) : (
        <Radix.Trigger {...named} className={opener}>
          {words}
        </Radix.Trigger>
      )}
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
