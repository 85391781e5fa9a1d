/** A shelf's mark: a letter or two in a square, as on the end of a bookshelf. */
export function Mark({ letters, title }: { letters: string; title?: string }) {
  return (
    <span
      aria-hidden={title === undefined}
      title={title}
      className="inline-flex h-[1.35em] min-w-[1.35em] shrink-0 items-center justify-center border border-current px-0.5 text-xs leading-none font-bold"
    >
      {letters}
    </span>
  );
}
