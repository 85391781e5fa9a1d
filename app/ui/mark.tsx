import { Hint } from "./hint";

/** A shelf's mark: a letter or two in a square, as on the end of a bookshelf. @param name the shelf's, where nothing beside says it */
export function Mark({ letters, name }: { letters: string; name?: string }) {
  const mark = (
    <span
      {...(name === undefined ? { "aria-hidden": true } : { role: "img", "aria-label": name })}
      className="inline-flex h-[1.35em] min-w-[1.35em] shrink-0 items-center justify-center border border-current px-0.5 text-xs leading-none font-bold"
    >
      {letters}
    </span>
  );
  return name === undefined ? mark : <Hint words={name}>{mark}</Hint>;
}
