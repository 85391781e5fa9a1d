import type { LanguageGuess } from "#core/language/guess";
import { fetched } from "../../ui/fetched";

/** Until it is here, words that nobody has told the language of are not told apart. */
const notYet: LanguageGuess = () => null;

const useGuess = fetched(async () => (await import("#core/language/guess")).guessLanguage, { ahead: false });

/** What tells the language of words, loaded behind the first look at a case. */
export function useLanguageGuess(): LanguageGuess {
  return useGuess(true) ?? notYet;
}
