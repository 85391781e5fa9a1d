import { detectAll } from "tinyld/light";

/** The languages that are told apart, those in which the house and its customers write. */
const LANGUAGES = ["en", "de", "fr", "es", "pt", "it", "nl", "pl", "da", "sv", "no", "fi"];
const FEWEST_LETTERS = 20;
/** Names and addresses are of no language: what is told apart has the words of a sentence. */
const FEWEST_WORDS = 5;
/** What is read of a text; more tells nothing new. UTF-16 units. */
const MOST_READ = 4000;
const SUREST_OF_OTHERS = 1.6;

/** Tells the language of a text, as a primary tag; null where it cannot be told. */
export type LanguageGuess = (text: string) => string | null;

/** Tells a text's language by its first 4,000 characters (n-grams, by tinyld); null for a short text, or one that may be of two languages. */
export const guessLanguage: LanguageGuess = (text) => {
  let known = kept.get(text);
  if (known === undefined) {
    known = guess(text);
    if (kept.size >= MOST_KEPT) kept.clear();
    if (text.length <= MOST_READ) kept.set(text, known);
  }
  return known;
};

/** What somebody writes is asked about with every key. */
const kept = new Map<string, string | null>();
const MOST_KEPT = 500;

function guess(text: string): string | null {
  const words = text.slice(0, MOST_READ);
  if ((words.match(/\p{L}/gu)?.length ?? 0) < FEWEST_LETTERS) return null;
  if ((words.match(/\p{L}+/gu)?.length ?? 0) < FEWEST_WORDS) return null;
  const [first, second] = detectAll(words, { only: LANGUAGES });
  if (!first || (second && first.accuracy < second.accuracy * SUREST_OF_OTHERS)) return null;
  return first.lang;
}
