import type { Doc } from "#core/document/types";
import { documentText } from "#core/document/walk";
import { readText } from "#core/tokens/text-form";

/** What of a variant is searched, beside its reply's tags, shelf and blanks: title, subject and texts without placeholders. */
export function searchWords(title: string, subject: string | null, texts: Doc[]): string {
  const subjectWords = readText(subject ?? "")
    .pieces.map((piece) => (piece.type === "text" ? piece.text : ""))
    .join(" ")
    .trim();
  return [title, subjectWords, ...texts.map(documentText)].filter(Boolean).join("\n");
}
