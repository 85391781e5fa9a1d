import { DropdownMenu as Radix } from "radix-ui";
import type { ReactNode } from "react";

/** One thing that can be done. */
export interface MenuItem {
  words: ReactNode;
  run: () => void;
  disabled?: boolean;
}

export const MENU = "z-50 min-w-44 border border-board bg-sheet py-1 text-sm shadow-md outline-none";
export const MENU_ITEM =
  "block w-full cursor-pointer px-3 py-1 text-left outline-none select-none data-highlighted:bg-wash data-disabled:cursor-default data-disabled:text-soft";

interface Props {
  /** The button that opens it. */
  children: ReactNode;
  /** What it is of, for who does not see it. */
  label: string;
  items: readonly MenuItem[];
  className?: string;
  align?: "start" | "end";
  /** Whether the focus goes back to the button; not where what was chosen takes it. */
  giveBack?: boolean;
}

/** What can be done with one thing, opened by a button: arrow keys and first letters choose, Escape closes. */
export function Menu({ children, label, items, className = "", align = "end", giveBack = true }: Props) {
  return (
    <Radix.Root modal={false}>
      <Radix.Trigger aria-label={label} className={className}>
        {children}
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          align={align}
          sideOffset={4}
          collisionPadding={8}
          className={MENU}
          onCloseAutoFocus={(event) => {
            if (!giveBack) event.preventDefault();
          }}
        >
          {items.map(({ words, run, disabled = false }, index) => (
            <Radix.Item key={index} disabled={disabled} onSelect={run} className={MENU_ITEM}>
              {words}
            </Radix.Item>
          ))}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
