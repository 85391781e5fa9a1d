import { compareDocuments, type ComparedLine } from "./compare";
import type { Doc } from "./types";
import { wordSet, documentText } from "./walk";

/** Of the words that tell something, so many are shared by what is alike. */
const ALIKE = 0.5;

/**
 * Whether one reply may be taken for another: `alike` where they say most of the same, so that what differs is quickly
 * read; `near` where only a part, or the title, is the same; null where neither is.
 */
export function likeness(
  a: { title: string; document: Doc },
  b: { title: string; document: Doc },
): "alike" | "near" | null {
  const [one, other] = [tellingWords(documentText(a.document)), tellingWords(documentText(b.document))];
  const longer = Math.max(one.size, other.size);
  if (longer > 0 && sharedBy(one, other) >= ALIKE * longer) return "alike";
  const isPart = share(one, other) >= ALIKE;
  return isPart || share(tellingWords(a.title), tellingWords(b.title)) >= ALIKE ? "near" : null;
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

function sharedBy(one: Set<string>, other: Set<string>): number {
  return [...one].filter((word) => other.has(word)).length;
}

/** How much of the shorter of two is in the other. */
function share(one: Set<string>, other: Set<string>): number {
  return sharedBy(one, other) / Math.max(1, Math.min(one.size, other.size));
}

/** Words long enough to tell something. */
function tellingWords(text: string): Set<string> {
  return new Set([...wordSet(text)].filter((word) => word.length > 3));
}
