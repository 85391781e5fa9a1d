import { ChevronRight, Ellipsis } from "lucide-react";
import { DropdownMenu as Radix } from "radix-ui";
import { Link } from "react-router";

/** How menus over the page look. */
export const MENU =
  "z-50 max-w-96 min-w-48 border border-board bg-sheet py-1 text-sm shadow-md outline-none data-[state=closed]:hidden";
export const MENU_ITEM =
  "flex cursor-pointer items-baseline truncate border-l-[3px] border-transparent py-1 pr-4 pl-2.5 outline-none data-highlighted:border-l-accent data-highlighted:bg-wash data-[state=open]:bg-wash";

/** Something to do with a row: by a script, or at an address. */
export type RowAction =
  | { words: string; run: () => void }
  | { words: string; to: string }
  /** One of several ways to do it, in a menu of its own. */
  | { words: string; choices: { words: string; run: () => void }[] };

interface Props {
  /** Name for who does not see it, with what the row is. */
  label: string;
  actions: RowAction[];
  className?: string;
}

/** What can be done with a row, beside what pressing it does: opened by press, Enter or ↓. */
export function RowMenu({ label, actions, className = "" }: Props) {
  return (
    <Radix.Root modal={false}>
      <Radix.Trigger
        aria-label={label}
        className={`inline-flex min-h-6 min-w-6 shrink-0 items-center justify-center text-soft hover:text-ink data-[state=open]:text-ink ${className}`}
      >
        <Ellipsis size={16} aria-hidden="true" />
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content align="start" sideOffset={2} collisionPadding={8} className={MENU}>
          {actions.map((action) =>
            "choices" in action ? (
              <Radix.Sub key={action.words}>
                <Radix.SubTrigger className={MENU_ITEM}>
                  <span className="mr-auto pr-3">{action.words}</span>
                  <ChevronRight size={14} aria-hidden="true" className="self-center" />
                </Radix.SubTrigger>
                <Radix.Portal>
                  <Radix.SubContent sideOffset={2} collisionPadding={8} className={MENU}>
                    {action.choices.map(({ words, run }) => (
                      <Radix.Item key={words} className={MENU_ITEM} onSelect={run}>
                        {words}
                      </Radix.Item>
                    ))}
                  </Radix.SubContent>
                </Radix.Portal>
              </Radix.Sub>
            ) : "to" in action ? (
              <Radix.Item key={action.words} asChild className={MENU_ITEM}>
                <Link to={action.to}>{action.words}</Link>
              </Radix.Item>
            ) : (
              <Radix.Item key={action.words} className={MENU_ITEM} onSelect={action.run}>
                {action.words}
              </Radix.Item>
            ),
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
