import type { CaseNote } from "#server/notes/notes";

/** The words of a note, those whom it is for set off. */
export function NoteWords({ note }: { note: Pick<CaseNote, "text" | "mentions"> }) {
  const names = note.mentions.map((name) => `@${name}`).sort((a, b) => b.length - a.length);
  if (names.length === 0) return note.text;
  const escaped = names.map((name) => name.replace(/[.*+?^${}()|[\]\\]/g, "\\$&"));
  return note.text.split(new RegExp(`(${escaped.join("|")})`)).map((part, index) =>
    names.includes(part) ? (
      <span key={index} className="mention">
        {part}
      </span>
    ) : (
      part
    ),
  );
}
