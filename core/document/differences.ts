import { compareDocuments, type ComparedLine } from "./compare";
import type { Doc } from "./types";
import { wordsOf } from "./walk";

/** Two replies are look-alikes where they share so many of the words of the shorter one. */
const ALIKE = 0.5;

/** Whether two replies look alike: enough that one may be taken for the other. */
export function lookAlike(a: { title: string; document: Doc }, b: { title: string; document: Doc }): boolean {
  return share(wordsOf(a.document), wordsOf(b.document)) >= ALIKE || share(a.title, b.title) >= ALIKE;
}

/**
 * Where a document differs from another, word by word: the lines that came, went or were changed.
 * @param most so many lines
 */
export function differences(
  other: Doc,
  document: Doc,
  most: number,
): { lines: ComparedLine[]; more: number } {
  const lines = compareDocuments(other, document).filter(
    (line) => line.kind !== "same" || line.pieces.some((piece) => piece.kind !== "same"),
  );
  return { lines: lines.slice(0, most), more: Math.max(0, lines.length - most) };
}

function share(a: string, b: string): number {
  const [one, other] = [wordsIn(a), wordsIn(b)];
  const shared = [...one].filter((word) => other.has(word)).length;
  return shared / Math.max(1, Math.min(one.size, other.size));
}

function wordsIn(text: string): Set<string> {
  return new Set((text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []).filter((word) => word.length > 3));
}
