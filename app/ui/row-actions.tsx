import { ChevronRight } from "lucide-react";
import { DropdownMenu as Radix } from "radix-ui";
import { Link } from "react-router";
import { MENU, MENU_ITEM, ROW_BUTTON, RowSign } from "./menu-look";

/** Something to do with a row: by a script, or at an address. */
export type RowAction =
  | { words: string; run: () => void }
  | { words: string; to: string }
  /** One of several ways to do it, in a menu of its own. */
  | { words: string; choices: { words: string; run: () => void }[] };

export interface RowMenuProps {
  /** Name for who does not see it, with what the row is. */
  label: string;
  actions: RowAction[];
  className?: string;
}

/** What can be done with a row, beside what pressing it does: opened by press, Enter or ↓. */
export default function RowActions({ label, actions, className = "" }: RowMenuProps) {
  return (
    <Radix.Root modal={false}>
      <Radix.Trigger aria-label={label} className={`${ROW_BUTTON} ${className}`}>
        <RowSign />
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
