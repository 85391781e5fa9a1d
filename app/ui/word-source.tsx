import { HoverCard as Radix } from "radix-ui";
import type { ReactElement, ReactNode } from "react";
import { t } from "../words/ui";

interface Props {
  /** What the words are, as in “fare for a dog”. */
  name: ReactNode;
  /** Where they came from, or why there are none. */
  words: ReactNode;
  /** Shown without pointing: while the cursor is on it. */
  open?: boolean | undefined;
  /** The words in the letter. */
  children: ReactElement;
}

/** Where the value of a token comes from, in words. */
export function fromWhere(token: string): string {
  return token.startsWith("house.") ? t("aHouseFact") : t("fromTheDetailsOfTheCase");
}

/** Where a word of a letter came from, for who points at it or goes to it with the keyboard. */
export function WordSource({ name, words, open, children }: Props) {
  return (
    <Radix.Root openDelay={300} closeDelay={100} {...(open ? { open } : {})}>
      <Radix.Trigger asChild>{children}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          side="top"
          align="start"
          sideOffset={4}
          collisionPadding={8}
          className="z-50 max-w-80 border border-board bg-sheet px-3 py-1.5 font-sans text-sm text-ink shadow-md [overflow-wrap:anywhere]"
        >
          <strong className="font-semibold">{name}</strong>
          <span className="block text-soft">{words}</span>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
