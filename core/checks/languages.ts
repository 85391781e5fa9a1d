import { languageName, sameLanguage } from "../language/tag";
import { placesOf, look } from "./finding";
import type { CheckInput, SendCheck } from "./check";

/** A part of a letter and the language that it is in. */
interface Part {
  /** As a note calls it: `The opening “Hello”`. */
  name: string;
  language: string;
  /** Id of the slip, or the name of a house fact. */
  at: SendCheck["at"];
}

/** Parts in another language than the answer: opening, closing, the agent's own words, house facts, signature. */
export function languagesThatDiffer(input: CheckInput): SendCheck[] {
  const slips = slipParts(input);
  const answers = slips.filter((part) => part.isAnswer);
  const [lead] = [...answers, ...slips];
  if (!lead) return [];
  const others = [...slips.filter((part) => part !== lead), ...factParts(input), ...signaturePart(input)];
  return others
    .filter((part) => !sameLanguage(part.language, lead.language))
    .map((part) =>
      look(
        "languages-differ",
        `${part.name} is in ${languageName(part.language)}, ${lower(lead.name)} in ${languageName(lead.language)}.`,
        part.at,
      ),
    );
}

function slipParts({ letter, slips, languageOf }: CheckInput): (Part & { isAnswer: boolean })[] {
  return slips.flatMap((slip) => {
    const { words, place } = placesOf(letter, (source) => source.slip === slip.id && source.kind === "own");
    if (words.trim() === "") return [];
    // What a reply is written in is known; what somebody writes is told by its words.
    const language = (slip.reply === null ? null : slip.language) ?? languageOf(words);
    if (language === null) return [];
    const name = slip.reply === null ? "What you wrote" : `The ${slip.part} “${slip.title}”`;
    return [{ name, language, at: place, isAnswer: slip.part === "answer" && slip.reply !== null }];
  });
}

/** House facts in the words of slips and signature; what stands below every letter is not looked at. */
function factParts({ letter, languageOf }: CheckInput): Part[] {
  const names = new Set(
    letter.pieces.flatMap(({ source }) =>
      source?.kind === "token" && source.name?.startsWith("house.") && source.slip !== "footer"
        ? [source.name]
        : [],
    ),
  );
  return [...names].flatMap((name) => {
    const { words, place } = placesOf(letter, (source) => source.name === name && source.slip !== "footer");
    const language = languageOf(words);
    return language === null ? [] : [{ name: `The house fact “${words}”`, language, at: place }];
  });
}

function signaturePart({ letter, languageOf }: CheckInput): Part[] {
  const { words, place } = placesOf(letter, (source) => source.slip === "signature" && source.kind === "own");
  const language = languageOf(words);
  return language === null ? [] : [{ name: "The signature", language, at: place }];
}

function lower(text: string): string {
  return text.slice(0, 1).toLowerCase() + text.slice(1);
}
