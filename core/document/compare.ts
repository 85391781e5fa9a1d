import { diffArrays, diffWordsWithSpace } from "diff";
import type { PassageRef } from "./definition";
import { placeholderText } from "./placeholder";
import type { Block, Doc, Inline, Mark, TextNode } from "./types";

/** Whether something stands in both texts, only in the newer, or only in the older. */
type Change = "same" | "added" | "removed";

export interface ComparedText {
  kind: Change;
  text: string;
}

/** A word, placeholder or picture of a compared line. `restyled` words are the same in other formatting. */
export interface ComparedPiece {
  kind: Change | "restyled";
  inline: Inline;
}

/** What a line is, or is part of. */
type LineKind =
  | "paragraph"
  | "heading1"
  | "heading2"
  | "heading3"
  | "rule"
  | "quotation"
  | "item"
  | "numberedItem"
  | "row"
  | "cell"
  | "headingCell"
  | "continued";

/** A paragraph, item, cell or the like of either document. */
export interface ComparedLine {
  /** Whether the line itself came, went or stayed; its words say the rest. */
  kind: Change;
  /** What it is, outermost first. */
  lead: LineKind[];
  passages: PassageRef[];
  pieces: ComparedPiece[];
}

/** Two texts word by word. */
export function compareTexts(before: string, after: string): ComparedText[] {
  return diffWordsWithSpace(before, after).map(({ value, added, removed }) => ({
    kind: added ? "added" : removed ? "removed" : "same",
    text: value,
  }));
}

/**
 * Two documents word by word, formatting and passages included, in the order of the newer
 * (E. W. Myers, “An O(ND) Difference Algorithm and Its Variations”, 1986, by the package `diff`).
 */
export function compareDocuments(before: Doc, after: Doc): ComparedLine[] {
  const old = atomsOf(before);
  const fresh = atomsOf(after);
  const steps: Step[] = [];
  let at = 0;
  let was = 0;
  for (const change of diffArrays(old.map(keyOf), fresh.map(keyOf))) {
    const kind: Change = change.added ? "added" : change.removed ? "removed" : "same";
    for (const key of change.value) {
      const newer = kind === "removed" ? undefined : fresh[at++];
      const older = kind === "added" ? undefined : old[was++];
      const atom = newer ?? older;
      if (!atom) continue;
      const restyled = newer && older && styleOf(newer) !== styleOf(older);
      steps.push({ kind: restyled ? "restyled" : kind, key, atom });
    }
  }
  const lines: ComparedLine[] = [];
  for (const { kind, atom } of fromLineStarts(steps)) {
    if (atom.type === "line") {
      const { lead, passages } = atom;
      lines.push({ kind: kind === "restyled" ? "same" : kind, lead, passages, pieces: [] });
    } else lines.at(-1)?.pieces.push({ kind, inline: atom.inline });
  }
  return lines.map((line) => ({ ...line, pieces: joined(line.pieces) }));
}

interface Step {
  kind: ComparedPiece["kind"];
  key: string;
  atom: Atom;
}

/**
 * What came or went between two equal line starts may be told from the one or from the other;
 * a whole line reads better than the end of one and the start of the next.
 */
function fromLineStarts(steps: Step[]): Step[] {
  const shifted = [...steps];
  let start = 0;
  while (start < shifted.length) {
    const kind = shifted[start]?.kind;
    let end = start;
    while (shifted[end + 1]?.kind === kind) end += 1;
    const before = shifted[start - 1];
    const last = shifted[end];
    if (
      (kind === "added" || kind === "removed") &&
      last?.atom.type === "line" &&
      before?.kind === "same" &&
      before.key === last.key
    ) {
      shifted[start - 1] = { ...before, kind };
      shifted[end] = { ...last, kind: "same" };
    }
    start = end + 1;
  }
  return shifted;
}

/** Whether a comparison found nothing. */
export function isUnchanged(lines: ComparedLine[]): boolean {
  return lines.every((line) => line.kind === "same" && line.pieces.every((piece) => piece.kind === "same"));
}

const headings = ["heading1", "heading2", "heading3"] as const satisfies LineKind[];

type Atom = { type: "line"; lead: LineKind[]; passages: PassageRef[] } | { type: "inline"; inline: Inline };

function atomsOf(doc: Doc): Atom[] {
  const atoms: Atom[] = [];
  const line = (lead: LineKind[], passages: PassageRef[], inlines: Inline[] = []) => {
    atoms.push({ type: "line", lead, passages });
    for (const inline of inlines) atoms.push(...inlineAtoms(inline));
  };
  const blocks = (list: Block[], around: LineKind[], outer: PassageRef[]) => {
    for (const [index, block] of list.entries()) {
      const passages = [...outer, ...block.attrs.passages];
      // What stands first in an item or a cell is that item or cell.
      const lead: LineKind[] = index === 0 || around.length === 0 ? around : [...around, "continued"];
      switch (block.type) {
        case "paragraph":
          line(lead.length === 0 ? ["paragraph"] : lead, passages, block.content);
          break;
        case "heading":
          line([...lead, headings[block.attrs.level - 1] ?? "heading3"], passages, block.content);
          break;
        case "horizontalRule":
          line([...lead, "rule"], passages);
          break;
        case "blockquote":
          blocks(block.content, [...lead, "quotation"], passages);
          break;
        case "bulletList":
        case "orderedList":
          for (const item of block.content) {
            const kind = block.type === "bulletList" ? "item" : "numberedItem";
            blocks(item.content, [...around, kind], [...passages, ...item.attrs.passages]);
          }
          break;
        case "table":
          for (const row of block.content) {
            line([...around, "row"], [...passages, ...row.attrs.passages]);
            for (const cell of row.content) {
              const kind = cell.type === "tableHeader" ? "headingCell" : "cell";
              blocks(cell.content, [...around, kind], []);
            }
          }
      }
    }
  };
  blocks(doc.content, [], []);
  return atoms;
}

function inlineAtoms(inline: Inline): Atom[] {
  if (inline.type !== "text") return [{ type: "inline", inline }];
  const words = inline.text.match(/[\p{L}\p{M}\p{N}'’]+|\s+|[^\p{L}\p{M}\p{N}\s]/gu) ?? [];
  return words.map((text): Atom => ({
    type: "inline",
    inline: { type: "text", text, ...(inline.marks ? { marks: inline.marks } : {}) },
  }));
}

function keyOf(atom: Atom): string {
  if (atom.type === "line") return `\n${atom.lead.join(" ")} ${JSON.stringify(atom.passages)}`;
  const { inline } = atom;
  switch (inline.type) {
    case "text":
      return inline.text;
    case "hardBreak":
      return "\n";
    case "image":
      return `\n${JSON.stringify(inline.attrs)}`;
    case "token":
    case "blank":
      return placeholderText(inline);
  }
}

function styleOf(atom: Atom): string {
  return atom.type === "line" ? "" : styleKey(atom.inline.marks);
}

function styleKey(marks: Mark[] = []): string {
  return marks
    .map((mark) => JSON.stringify(mark))
    .sort()
    .join();
}

/** Neighbouring words of one kind and style as one run. */
function joined(pieces: ComparedPiece[]): ComparedPiece[] {
  return pieces.reduce<ComparedPiece[]>((runs, piece) => {
    const last = runs.at(-1);
    if (
      last?.kind === piece.kind &&
      last.inline.type === "text" &&
      piece.inline.type === "text" &&
      styleKey(last.inline.marks) === styleKey(piece.inline.marks)
    ) {
      const inline: TextNode = { ...last.inline, text: last.inline.text + piece.inline.text };
      runs[runs.length - 1] = { kind: piece.kind, inline };
    } else runs.push(piece);
    return runs;
  }, []);
}
