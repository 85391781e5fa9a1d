import { Command } from "cmdk";
import { Popover as Radix } from "radix-ui";
import type { ComponentProps, ReactNode } from "react";
import { OPENER, OpenerSign } from "./opener";

/** How one of a searched list looks. */
export const LIST_ITEM =
  "cursor-pointer border-l-[3px] border-transparent py-1 pr-3 pl-2.5 data-[selected=true]:bg-wash";

interface Props {
  /** What the list is called. */
  label: string;
  /** What opens it is called; where it is the same, left out. */
  openerLabel?: string;
  /** What stands on the opener. */
  words: ReactNode;
  open?: boolean;
  onOpen: (open: boolean) => void;
  disabled?: boolean;
  className: string;
  /** Where the list begins: what is chosen already. */
  begin?: string;
  input: ComponentProps<typeof Command.Input>;
  /** Said where nothing is found; null where something else is offered then. */
  none: string | null;
  /** Of `cmdk`. */
  children: ReactNode;
}

/** A list over the page that is searched by typing and gone along with the arrow keys, and the button that opens it. */
export function SearchedList({
  label,
  openerLabel = label,
  words,
  open,
  onOpen,
  disabled = false,
  className,
  begin,
  input,
  none,
  children,
}: Props) {
  return (
    <Radix.Root {...(open === undefined ? {} : { open })} onOpenChange={onOpen}>
      <Radix.Trigger
        role="combobox"
        aria-label={openerLabel}
        disabled={disabled}
        className={`${OPENER} disabled:opacity-50 ${className}`}
      >
        {words}
        <OpenerSign />
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          align="start"
          sideOffset={2}
          collisionPadding={8}
          aria-label={label}
          className="z-50 w-72 border border-board bg-sheet text-sm shadow-md outline-none"
        >
          <Command label={label} loop {...(begin === undefined ? {} : { defaultValue: begin })}>
            <Command.Input
              {...input}
              className="w-full border-b border-line bg-transparent px-3 py-2 outline-none"
            />
            <Command.List label={label} className="max-h-72 overflow-y-auto py-1">
              {none !== null && <Command.Empty className="px-3 py-2 text-soft">{none}</Command.Empty>}
              {children}
            </Command.List>
          </Command>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
