import { compareDocuments, type ComparedLine } from "./compare";
import type { Doc } from "./types";
import { wordSet, documentText } from "./walk";

/** Two replies are look-alikes where they share so many of the words of the shorter one. */
const ALIKE = 0.5;

/** Whether two replies look alike: enough that one may be taken for the other. */
export function lookAlike(a: { title: string; document: Doc }, b: { title: string; document: Doc }): boolean {
  return (
    share(documentText(a.document), documentText(b.document)) >= ALIKE || share(a.title, b.title) >= ALIKE
  );
}

/** A line that keeps less of its words is told whole, as it was and as it is: word by word it could not be read. */
const KEPT = 0.5;

/**
 * Where a document differs from another: the lines that came, went or were changed, these word by word.
 * @param most so many lines
 */
export function differences(
  other: Doc,
  document: Doc,
  most: number,
): { lines: ComparedLine[]; more: number } {
  const lines = compareDocuments(other, document)
    .filter((line) => line.kind !== "same" || line.pieces.some((piece) => piece.kind !== "same"))
    .flatMap(readable);
  return { lines: lines.slice(0, most), more: Math.max(0, lines.length - most) };
}

function readable(line: ComparedLine): ComparedLine[] {
  const length = (kinds: string[]) =>
    line.pieces
      .filter((piece) => kinds.includes(piece.kind))
      .reduce((sum, { inline }) => sum + (inline.type === "text" ? inline.text.trim().length : 1), 0);
  const [same, added, removed] = [length(["same", "restyled"]), length(["added"]), length(["removed"])];
  if (line.kind !== "same" || same >= KEPT * Math.max(same + added, same + removed)) return [line];
  const whole = (kind: "added" | "removed", other: "added" | "removed"): ComparedLine => ({
    ...line,
    kind,
    pieces: line.pieces.filter((piece) => piece.kind !== other).map((piece) => ({ ...piece, kind })),
  });
  return [whole("removed", "added"), whole("added", "removed")];
}

function share(a: string, b: string): number {
  const [one, other] = [tellingWords(a), tellingWords(b)];
  const shared = [...one].filter((word) => other.has(word)).length;
  return shared / Math.max(1, Math.min(one.size, other.size));
}

/** Words long enough to tell something. */
function tellingWords(text: string): Set<string> {
  return new Set([...wordSet(text)].filter((word) => word.length > 3));
}
