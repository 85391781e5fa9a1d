import { ChevronRight } from "lucide-react";
import { Collapsible as Radix } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  /** What opens and closes it. */
  words: ReactNode;
  /** Whether it is open from the beginning. */
  open?: boolean;
  className?: string;
  children: ReactNode;
}

/** What is shown when it is asked for. */
export function Disclosure({ words, open = false, className = "", children }: Props) {
  return (
    <Radix.Root defaultOpen={open} className={className}>
      <Radix.Trigger className="group flex items-center gap-1.5 text-left font-semibold">
        <ChevronRight size={14} aria-hidden="true" className="shrink-0 group-data-[state=open]:rotate-90" />
        {words}
      </Radix.Trigger>
      <Radix.Content>{children}</Radix.Content>
    </Radix.Root>
  );
}
