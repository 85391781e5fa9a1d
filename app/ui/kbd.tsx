/** A shortcut as keys, shown where it acts. */
export function Kbd({ keys }: { keys: string }) {
  return (
    <kbd className="rounded-sm border border-line bg-sheet px-1.5 py-px font-sans text-xs whitespace-nowrap text-soft shadow-[0_1px_0_var(--line)]">
      {keys}
    </kbd>
  );
}
