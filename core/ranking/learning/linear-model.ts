import type { TextVectors } from "../vectors/text-vectors";
import { LAYERS } from "../terms/postings";
import type { VectorSpace } from "../terms/vector-space";
import type { Weighed } from "../terms/weighed";

/** A text as its features: stems, runs of letters and meaning, each of a length of its own. */
export interface Features {
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

/** How far an update brought the right reply nearer, and pushed another away. */
export interface ModelUpdate {
  right: number;
  other: number;
  by: number;
}

/** Where what was learned is kept: beside what is known of each feature anyway. */
export interface LinearModel {
  words: VectorSpace;
  grams: VectorSpace;
  textVectors: TextVectors | null;
}

/** What each kind of feature counts, squared. */
export const SHARES = { words: 0.36, grams: 0.36, meaning: 0.25 };
/** By how much the right reply should be ahead, and how far one update goes at most. */
const MARGIN = 1;
const STEP = 0.1;

/** How far the linear model is for each reply, for a text of these sums. */
export function modelScores(model: LinearModel, features: Features, sums: Sums): Float32Array {
  const scores = modelSums(model, sums);
  model.textVectors?.addLearned(scores, features.meaning, SHARES.meaning);
  return scores;
}

/** The part of it that comes of words and runs of letters, for the replies whose sums these are. */
export function modelSums({ words, grams }: LinearModel, sums: Sums): Float32Array {
  const scores = new Float32Array(sums.words.length / LAYERS);
  words.addLearned(scores, sums.words, SHARES.words);
  grams.addLearned(scores, sums.grams, SHARES.grams);
  return scores;
}

/**
 * One step of a linear model over all features: where the right reply is not ahead of every other by a margin, it is
 * brought nearer and the foremost wrong one is pushed away, just as far as it takes (K. Crammer and others, “Online
 * Passive-Aggressive Algorithms”, 2006, multiclass, variant I). It tells apart replies whose pasts look alike.
 * @param scores how far the model is now for each reply
 * @param wrong a reply that is known to be wrong; else the foremost other one
 * @returns the step that was taken; null where none was needed
 */
export function train(
  model: LinearModel,
  features: Features,
  scores: Float32Array,
  right: number,
  wrong?: number,
): ModelUpdate | null {
  const other = wrong ?? foremost(scores, right);
  if (other < 0 || other === right) return null;
  const loss = MARGIN - (scores[right] ?? 0) + (scores[other] ?? 0);
  const squared =
    (features.words.terms.length > 0 ? SHARES.words : 0) +
    (features.grams.terms.length > 0 ? SHARES.grams : 0) +
    (features.meaning.some((number) => number !== 0) ? SHARES.meaning : 0);
  if (loss <= 0 || squared === 0) return null;
  const step = { right, other, by: Math.min(STEP, loss / (2 * squared)) };
  apply(model, features, step);
  return step;
}

/** Takes an update back. */
export function revert(model: LinearModel, features: Features, step: ModelUpdate | null): void {
  if (step) apply(model, features, { ...step, by: -step.by });
}

function apply(model: LinearModel, features: Features, { right, other, by: far }: ModelUpdate): void {
  for (const [reply, by] of [
    [right, far],
    [other, -far],
  ] as const) {
    model.words.adjust(reply, features.words, by);
    model.grams.adjust(reply, features.grams, by);
    model.textVectors?.adjust(reply, features.meaning, by);
  }
}

function foremost(scores: Float32Array, but: number): number {
  let best = -1;
  for (let at = 0; at < scores.length; at += 1)
    if (at !== but && (best < 0 || (scores[at] ?? 0) > (scores[best] ?? 0))) best = at;
  return best;
}
