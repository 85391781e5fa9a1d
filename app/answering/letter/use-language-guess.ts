import { useEffect, useState } from "react";
import type { LanguageGuess } from "#core/language/guess";

/** Until it is here, words that nobody has told the language of are not told apart. */
const notYet: LanguageGuess = () => null;

/** What tells the language of words, loaded behind the first look at a case. */
export function useLanguageGuess(): LanguageGuess {
  const [guess, setGuess] = useState<LanguageGuess>(() => notYet);
  useEffect(() => {
    let current = true;
    void import("#core/language/guess").then(({ guessLanguage }) => {
      if (current) setGuess(() => guessLanguage);
    });
    return () => {
      current = false;
    };
  }, []);
  return guess;
}
