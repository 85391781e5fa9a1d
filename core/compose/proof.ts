import { compareTexts, type ComparedText } from "../document/compare";
import type { Doc } from "../document/types";
import { passagesOf, sizeOf, walk } from "../document/walk";
import type { Letter } from "./letter";

/** Where the words of a run came from: the reply as it stood on the shelf, the agent’s hand, a value, or what surrounds the slips. */
type Origin = "reply" | "hand" | "token" | "blank" | "around";

/** Words of a letter that stand together and came from one place. All runs of a letter, joined, are its text. */
export interface ProofRun {
  text: string;
  from: Origin;
  /** Id of the slip, or the name of what surrounds the slips; null for breaks and signs of the layout. */
  slip: string | null;
  /** Full name of the token or blank. */
  name?: string;
  /** Ids of the passages of the slip that it stands under, the outermost first. */
  passages?: string[];
}

/** A slip as it was sent. */
export interface ProvenSlip {
  id: string;
  document: Doc;
  /** What it reads with the reply’s words as they stand on the shelf, with the same values; null for the agent’s own words. */
  shelved: string | null;
}

/**
 * Where each word of a letter came from. Words of a slip are the reply’s where comparing finds them in what the reply reads
 * with the same values, and else the agent’s.
 * @param letter its pieces are those of the plain text that went
 */
export function proofOf(letter: Pick<Letter, "pieces">, slips: readonly ProvenSlip[]): ProofRun[] {
  const known = new Map(slips.map((slip) => [slip.id, new SlipWords(slip, wordsOf(letter, slip.id))]));
  const runs: ProofRun[] = [];
  for (const [index, { text, source }] of letter.pieces.entries()) {
    if (!source) {
      add(runs, { text, from: "around", slip: null });
      continue;
    }
    const slip = known.get(source.slip);
    if (breaks(letter, index)) slip?.pass(BREAK);
    const about = { slip: source.slip, ...(slip?.under(source.from) ?? {}) };
    if (source.kind !== "own") {
      slip?.pass(text);
      add(runs, {
        text,
        from: source.kind,
        ...about,
        ...(source.name === undefined ? {} : { name: source.name }),
      });
    } else if (!slip) add(runs, { text, from: "around", ...about });
    else for (const part of slip.read(text)) add(runs, { ...part, ...about });
  }
  return runs;
}

/** What a slip reads in a letter, to be compared: a break in place of whatever the layout put between its words. */
export function wordsOf(letter: Pick<Letter, "pieces">, slip: string): string {
  return letter.pieces
    .flatMap(({ text, source }, index) =>
      source?.slip === slip ? [breaks(letter, index) ? BREAK + text : text] : [],
    )
    .join("");
}

const BREAK = "\n";

/** Whether words of the layout, or of another slip, stand before a piece. */
function breaks({ pieces }: Pick<Letter, "pieces">, index: number): boolean {
  return pieces[index - 1]?.source?.slip !== pieces[index]?.source?.slip;
}

/** Runs of one origin are one. */
function add(runs: ProofRun[], run: ProofRun): void {
  if (run.text === "") return;
  const last = runs.at(-1);
  const isSame =
    last?.from === run.from &&
    last.slip === run.slip &&
    run.name === undefined &&
    last.name === undefined &&
    last.passages?.join() === run.passages?.join();
  if (last && isSame) last.text += run.text;
  else runs.push({ ...run });
}

/** The words of a slip, read once from beginning to end. */
class SlipWords {
  /** Stretches of what was sent, with whether they are the reply’s. */
  readonly #stretches: { end: number; from: "reply" | "hand" }[] = [];
  readonly #spans: Span[];
  #at = 0;

  constructor({ document, shelved }: ProvenSlip, sent: string) {
    this.#spans = spansOf(document);
    let end = 0;
    const compared =
      shelved === null ? [{ kind: "added" as const, text: sent }] : compareTexts(shelved, sent);
    for (const [index, { kind, text }] of compared.entries()) {
      if (kind === "removed") continue;
      end += text.length;
      const isKept = kind === "same" && !isChance(compared, index);
      this.#stretches.push({ end, from: isKept ? "reply" : "hand" });
    }
  }

  /** Goes past words whose origin is known. */
  pass(text: string): void {
    this.#at += text.length;
  }

  /** The next words, by where they came from. */
  read(text: string): { text: string; from: "reply" | "hand" }[] {
    const parts: { text: string; from: "reply" | "hand" }[] = [];
    let rest = text;
    while (rest !== "") {
      const stretch = this.#stretches.find(({ end }) => end > this.#at);
      const length = stretch ? Math.min(rest.length, stretch.end - this.#at) : rest.length;
      parts.push({ text: rest.slice(0, length), from: stretch?.from ?? "hand" });
      rest = rest.slice(length);
      this.#at += length;
    }
    return parts;
  }

  /** The passages that a place of the document stands under. */
  under(position: number): { passages?: string[] } {
    const passages = this.#spans.filter(({ from, to }) => from <= position && position < to);
    return passages.length === 0 ? {} : { passages: [...new Set(passages.map(({ id }) => id))] };
  }
}

/** What stands under a passage, in places of the document. */
interface Span {
  id: string;
  from: number;
  to: number;
}

function spansOf(document: Doc): Span[] {
  const spans: Span[] = [];
  walk(document, (node, position) => {
    for (const { id } of passagesOf(node)) spans.push({ id, from: position, to: position + sizeOf(node) });
  });
  return spans;
}

/** So many words in a row are alike by chance, where those around them are others. */
const FEW_WORDS = 2;

/** Whether words are the same in both texts only because any sentence has such. */
function isChance(compared: readonly ComparedText[], index: number): boolean {
  const words = compared[index]?.text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0;
  return words <= FEW_WORDS && index > 0 && index < compared.length - 1;
}
