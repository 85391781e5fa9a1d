/** A shortcut as keys, shown where it acts; not on a narrow page, unless it is what the page is about. */
export function Kbd({ keys, always = false }: { keys: string; always?: boolean }) {
  return (
    <kbd
      className={`${always ? "" : "max-sm:hidden"} rounded-sm border border-line bg-sheet px-1.5 py-px font-sans text-xs whitespace-nowrap text-soft shadow-[0_1px_0_var(--line)]`}
    >
      {keys}
    </kbd>
  );
}
