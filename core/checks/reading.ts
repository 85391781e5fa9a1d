import type { Letter } from "../compose/letter";

/** A line of a letter, with its offset in the letter's text and the slip that it stands in. */
export interface Line {
  start: number;
  text: string;
  slip: string;
  /** Whether it says the same in every letter. */
  isFixed: boolean;
}

const lines = new WeakMap<Letter, Line[]>();

/** The lines of a letter. */
export function linesOf(letter: Letter): Line[] {
  const known = lines.get(letter);
  if (known) return known;
  const found: Line[] = [];
  for (const { fragment, start } of letter.fragments) {
    const { text, slip, isFixed } = fragment.words;
    if (!text.includes("\n")) {
      found.push({ start, text, slip, isFixed });
      continue;
    }
    let at = start;
    for (const line of text.split("\n")) {
      found.push({ start: at, text: line, slip, isFixed: false });
      at += line.length + 1;
    }
  }
  lines.set(letter, found);
  return found;
}

interface Stretch {
  text: string;
  start: number;
}

const stretches = new WeakMap<Letter, Stretch[]>();

/** The stretches of text that a person wrote, as against values and braces that are meant; with their offset in the letter. */
function writtenStretches(letter: Letter): Stretch[] {
  const known = stretches.get(letter);
  if (known) return known;
  const found: Stretch[] = [];
  let offset = 0;
  for (const { text, source } of letter.pieces) {
    const last = found.at(-1);
    // Formatting ends a piece, and not what somebody wrote.
    if (source?.kind === "own" && !source.literal) {
      if (last && last.start + last.text.length === offset) last.text += text;
      else found.push({ text, start: offset });
    }
    offset += text.length;
  }
  stretches.set(letter, found);
  return found;
}

interface Found {
  at: number;
  text: string;
}

/** By pattern: what it finds in words that were looked at before. Replies say the same again and again. */
const kept = new Map<RegExp, Map<string, readonly Found[]>>();
const MOST_KEPT = 5000;
/** Longer words are looked at anew each time. */
const LONGEST_KEPT = 2000;
const NOTHING: readonly Found[] = [];

function foundIn(text: string, pattern: RegExp): readonly Found[] {
  const known = kept.get(pattern)?.get(text);
  if (known) return known;
  const matches = [...text.matchAll(pattern)];
  const found =
    matches.length === 0 ? NOTHING : matches.map((match) => ({ at: match.index, text: match[0] }));
  if (text.length <= LONGEST_KEPT) keep(pattern, text, found);
  return found;
}

function keep(pattern: RegExp, text: string, found: readonly Found[]): void {
  const own = kept.get(pattern) ?? new Map<string, readonly Found[]>();
  kept.set(pattern, own);
  if (own.size >= MOST_KEPT) own.clear();
  own.set(text, found);
}

/** Where a pattern is found in the words that a person wrote. @param pattern global */
export function foundInOwnWords(letter: Letter, pattern: RegExp): { start: number; text: string }[] {
  const all: { start: number; text: string }[] = [];
  for (const { text, start } of writtenStretches(letter))
    for (const found of foundIn(text, pattern)) all.push({ start: start + found.at, text: found.text });
  return all;
}

/** By pattern: fixed lines in which it is not found. */
const without = new Map<RegExp, Set<string>>();

/** Where a pattern is found in the lines of a letter, once in each. @param pattern anchored, not global */
export function foundInLines(letter: Letter, pattern: RegExp): { at: number; match: RegExpExecArray }[] {
  const clear = without.get(pattern) ?? new Set<string>();
  without.set(pattern, clear);
  const all: { at: number; match: RegExpExecArray }[] = [];
  for (const { start, text, isFixed } of linesOf(letter)) {
    if (isFixed && clear.has(text)) continue;
    const match = pattern.exec(text);
    if (match) all.push({ at: start, match });
    else if (isFixed && text.length <= LONGEST_KEPT) {
      if (clear.size >= MOST_KEPT) clear.clear();
      clear.add(text);
    }
  }
  return all;
}
