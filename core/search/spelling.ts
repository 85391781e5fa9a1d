import damerauLevenshtein from "damerau-levenshtein";

/**
 * How many letters were left out, put in, mistaken or swapped with their neighbours to make one word of another (F. J.
 * Damerau, “A technique for computer detection and correction of spelling errors”, 1964).
 */
export function spellingDistance(one: string, other: string): number {
  return damerauLevenshtein(one, other).steps;
}

/** Shorter words are not taken for beginnings: too much begins like them. */
const BEGINS = 5;

/**
 * The words that somebody may have meant who typed a term, the nearest first. The longer the term, the more may be wrong;
 * a term of five letters may be the beginning of a word.
 */
export function spelledLike(term: string, words: Iterable<string>, most: number): string[] {
  const length = [...term].length;
  const limit = length < 5 ? 1 : length < 11 ? 2 : 3;
  const near: { word: string; distance: number }[] = [];
  for (const word of words) {
    const whole = spellingDistance(term, word);
    // A beginning is a little farther than a whole word that is as like it.
    const begun =
      length < BEGINS ? Infinity : spellingDistance(term, [...word].slice(0, length).join("")) + 0.5;
    const distance = Math.min(whole, begun);
    if (distance < limit + 1) near.push({ word, distance });
  }
  near.sort((a, b) => a.distance - b.distance || (a.word < b.word ? -1 : 1));
  return near.slice(0, most).map(({ word }) => word);
}
