import type { Meanings } from "./meanings";
import { LAYERS } from "./postings";
import type { Space } from "./space";
import type { Weighed } from "./weighed";

/** A text as its features: stems, runs of letters and meaning, each of a length of its own. */
export interface Lesson {
  words: Weighed;
  grams: Weighed;
  /** Zeros where no word's meaning is known; empty where none is asked. */
  meaning: Float32Array;
}

/** What a text shares with replies, by kind of term: layer beside layer, reply after reply. */
export interface Sums {
  words: Float32Array;
  grams: Float32Array;
}

/** How far a lesson brought the right reply nearer, and pushed another away. */
export interface Step {
  right: number;
  other: number;
  by: number;
}

/** Where what was taught is kept: beside what is known of each feature anyway. */
export interface Taught {
  words: Space;
  grams: Space;
  meanings: Meanings | null;
}

/** What each kind of feature counts, squared. */
export const SHARES = { words: 0.36, grams: 0.36, meaning: 0.25 };
/** By how much the right reply should be ahead, and how far one lesson goes at most. */
const MARGIN = 1;
const STEP = 0.1;

/** How far the linear model is for each reply, for a text of these sums. */
export function taughtScores(taught: Taught, lesson: Lesson, sums: Sums): Float32Array {
  const scores = taughtSums(taught, sums);
  taught.meanings?.addTaught(scores, lesson.meaning, SHARES.meaning);
  return scores;
}

/** The part of it that comes of words and runs of letters, for the replies whose sums these are. */
export function taughtSums({ words, grams }: Taught, sums: Sums): Float32Array {
  const scores = new Float32Array(sums.words.length / LAYERS);
  words.addTaught(scores, sums.words, SHARES.words);
  grams.addTaught(scores, sums.grams, SHARES.grams);
  return scores;
}

/**
 * One lesson for a linear model over all features: where the right reply is not ahead of every other by a margin, it is
 * brought nearer and the foremost wrong one is pushed away, just as far as it takes (K. Crammer and others, “Online
 * Passive-Aggressive Algorithms”, 2006, multiclass, variant I). It tells apart replies whose pasts look alike.
 * @param scores how far the model is now for each reply
 * @param wrong a reply that is known to be wrong; else the foremost other one
 * @returns the step that was taken; null where none was needed
 */
export function teach(
  taught: Taught,
  lesson: Lesson,
  scores: Float32Array,
  right: number,
  wrong?: number,
): Step | null {
  const other = wrong ?? foremost(scores, right);
  if (other < 0 || other === right) return null;
  const loss = MARGIN - (scores[right] ?? 0) + (scores[other] ?? 0);
  const squared =
    (lesson.words.terms.length > 0 ? SHARES.words : 0) +
    (lesson.grams.terms.length > 0 ? SHARES.grams : 0) +
    (lesson.meaning.some((number) => number !== 0) ? SHARES.meaning : 0);
  if (loss <= 0 || squared === 0) return null;
  const step = { right, other, by: Math.min(STEP, loss / (2 * squared)) };
  go(taught, lesson, step);
  return step;
}

/** Takes a step of a lesson back. */
export function takeBack(taught: Taught, lesson: Lesson, step: Step | null): void {
  if (step) go(taught, lesson, { ...step, by: -step.by });
}

function go(taught: Taught, lesson: Lesson, { right, other, by: far }: Step): void {
  for (const [reply, by] of [
    [right, far],
    [other, -far],
  ] as const) {
    taught.words.teach(reply, lesson.words, by);
    taught.grams.teach(reply, lesson.grams, by);
    taught.meanings?.teach(reply, lesson.meaning, by);
  }
}

function foremost(scores: Float32Array, but: number): number {
  let best = -1;
  for (let at = 0; at < scores.length; at += 1)
    if (at !== but && (best < 0 || (scores[at] ?? 0) > (scores[best] ?? 0))) best = at;
  return best;
}
