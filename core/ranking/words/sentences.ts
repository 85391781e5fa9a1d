/** A sentence with fewer words asks nothing by itself. */
const FEWEST_WORDS = 4;
/** A message with more sentences is read by its questions first. */
const MOST = 6;

/** The sentences of a message that may ask something of their own; none where it is a single one. */
export function sentencesOf(text: string): string[] {
  const sentences = text
    .split(/(?<=[.!?…])\s+|\n+/u)
    .map((sentence) => sentence.trim())
    .filter((sentence) => (sentence.match(/[\p{L}\p{N}]+/gu)?.length ?? 0) >= FEWEST_WORDS);
  if (sentences.length < 2) return [];
  const questions = sentences.filter((sentence) => sentence.endsWith("?"));
  const others = sentences.filter((sentence) => !sentence.endsWith("?"));
  return [...questions, ...others].slice(0, MOST);
}
