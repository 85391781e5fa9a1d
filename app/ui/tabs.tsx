import { Tabs as Radix } from "radix-ui";
import { Suspense, type ReactNode } from "react";
import { Hint } from "./hint";

interface Tab {
  value: string;
  words: ReactNode;
  /** What it is for, or its shortcut, for who points at it. */
  hint?: string;
}

/** Ids are made of it, which hold no spaces. */
const asId = encodeURIComponent;

/** Views of one thing: the arrow keys go along, and what is chosen shows at once. It holds a `TabList` and `TabPanel`s. */
export function Tabs({
  value,
  onChange,
  className = "contents",
  children,
}: {
  value: string;
  onChange: (value: string) => void;
  className?: string;
  children: ReactNode;
}) {
  return (
    <Radix.Root
      value={asId(value)}
      onValueChange={(id) => onChange(decodeURIComponent(id))}
      className={className}
    >
      {children}
    </Radix.Root>
  );
}

/** @param label what the tabs are of, for who does not see them */
export function TabList({
  label,
  tabs,
  className = "gap-x-5",
}: {
  label: string;
  tabs: readonly Tab[];
  className?: string;
}) {
  return (
    <Radix.List aria-label={label} className={`flex flex-wrap items-baseline gap-y-1 ${className}`}>
      {tabs.map(({ value, words, hint }) => {
        const tab = (
          <Radix.Trigger
            key={value}
            value={asId(value)}
            className="border-b-2 border-transparent pb-1 text-soft hover:text-ink aria-selected:border-ink aria-selected:font-bold aria-selected:text-ink"
          >
            {words}
          </Radix.Trigger>
        );
        return hint === undefined ? (
          tab
        ) : (
          <Hint key={value} words={hint}>
            {tab}
          </Hint>
        );
      })}
    </Radix.List>
  );
}

/** What a tab shows. @param kept whether it stays there, unseen, while another shows */
export function TabPanel({
  value,
  kept = false,
  className = "",
  children,
}: {
  value: string;
  kept?: boolean;
  className?: string;
  children: ReactNode;
}) {
  return (
    <Radix.Content
      value={asId(value)}
      {...(kept ? { forceMount: true as const } : {})}
      className={`data-[state=inactive]:hidden ${className}`}
    >
      <Suspense>{children}</Suspense>
    </Radix.Content>
  );
}
