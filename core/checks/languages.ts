import { languageName, sameLanguage } from "../language/tag";
import { placesOf, look } from "./finding";
import type { CheckInput, SendCheck } from "./check";

/** A part of a letter and the language that it is in. */
interface Part {
  /** As a note calls it: `The opening “Hello”`. */
  name: string;
  language: string;
  /** Where it stands, found when it is asked for. */
  at: () => SendCheck["at"];
}

/** Parts in another language than the answer: opening, closing, the agent's own words, house facts, signature. */
export function languagesThatDiffer(input: CheckInput): SendCheck[] {
  if (isPlainlyInOne(input)) return [];
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
        part.at(),
      ),
    );
}

/** The usual case: replies in one language, without facts or signature. */
function isPlainlyInOne({ letter, slips }: CheckInput): boolean {
  const [first] = slips;
  if (first?.language === undefined) return false;
  const { language } = first;
  if (
    !slips.every(
      (slip) => slip.reply !== null && slip.language !== undefined && sameLanguage(slip.language, language),
    )
  )
    return false;
  return !letter.pieces.some(
    ({ source }) =>
      source?.slip === "signature" || (source?.kind === "token" && source.name?.startsWith("house.")),
  );
}

function slipParts({ letter, slips, languageOf }: CheckInput): (Part & { isAnswer: boolean })[] {
  const saying = new Set(
    letter.fragments.flatMap(({ fragment }) => (fragment.words.hasWords ? [fragment.words.slip] : [])),
  );
  return slips.flatMap((slip) => {
    if (!saying.has(slip.id)) return [];
    const own = () => placesOf(letter, (source) => source.slip === slip.id && source.kind === "own");
    // What a reply is written in is known; what somebody writes is told by its words.
    const language = (slip.reply === null ? null : slip.language) ?? languageOf(own().words);
    if (language === null) return [];
    const name = slip.reply === null ? "What you wrote" : `The ${slip.part} “${slip.title}”`;
    return [
      { name, language, at: () => own().place, isAnswer: slip.part === "answer" && slip.reply !== null },
    ];
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
    return language === null ? [] : [{ name: `The house fact “${words}”`, language, at: () => place }];
  });
}

function signaturePart({ letter, languageOf }: CheckInput): Part[] {
  const { words, place } = placesOf(letter, (source) => source.slip === "signature" && source.kind === "own");
  const language = languageOf(words);
  return language === null ? [] : [{ name: "The signature", language, at: () => place }];
}

function lower(text: string): string {
  return text.slice(0, 1).toLowerCase() + text.slice(1);
}
