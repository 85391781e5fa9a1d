import type { Doc } from "../document/types";
import { walk } from "../document/walk";
import { languageName, primary, sameLanguage } from "../language/tag";
import { readIn, saysWords, type Written } from "../language/written";
import { ownEntry } from "../tokens/own";
import { bodyPlace, placesOf, look } from "./finding";
import type { CheckInput, SendCheck } from "./check";
import { t } from "../words/second-look";

/** A part of a letter and the language that it is in. */
interface Part {
  /** As a note calls it: `The opening “Hello”`. */
  name: string;
  language: string;
  /** Where it stands, found when it is asked for. */
  at: () => SendCheck["at"];
}

/** What the house keeps in one language and the letter is not in: facts, the sender's team, signature, header and footer. */
export function textsThatLack(input: CheckInput): SendCheck[] {
  return [...lackingValues(input), ...lackingSurroundings(input)].map(({ name, language, at }) => {
    const wanted = languageName(primary(input.language));
    return look(
      "language-lacks",
      t("nameHasNoWantedTextIt", { name, wanted, language: languageName(primary(language)) }),
      at(),
    );
  });
}

/** Values that print words which nobody wrote in the language of the words around them. */
function lackingValues({ letter, slips, context, tokens, language, channel }: CheckInput): Part[] {
  const around = new Map(slips.map((slip) => [slip.id, slip.language]));
  const lacking = new Map<string, Part>();
  let offset = 0;
  for (const { text, source } of letter.pieces) {
    const [start, end] = [offset, offset + text.length];
    offset = end;
    if (source?.kind !== "token" || source.name === undefined || lacking.has(source.name)) continue;
    const own = ownEntry(context.written, source.name);
    if (!own) continue;
    const stands = standsIn({ ...own, text }, around.get(source.slip) ?? language, saysWords);
    if (stands === null) continue;
    const label = tokens.get(source.name)?.label ?? source.name;
    const at = () => bodyPlace(letter, start, end);
    lacking.set(source.name, { name: upper(label), language: stands, at });
  }
  return [
    ...lacking.values(),
    ...(channel === "email" && !lacking.has(TEAM) ? sender(context, language) : []),
  ];
}

/** The token of the team's name, which every email has beside its address too. */
const TEAM = "agent.team";

function sender(context: CheckInput["context"], language: string): Part[] {
  const own = ownEntry(context.written, TEAM);
  const team = context.agent.team;
  if (!own || typeof team !== "string") return [];
  const stands = standsIn({ ...own, text: team }, language, saysWords);
  return stands === null ? [] : [{ name: t("teamAsTheSender", { team }), language: stands, at: () => null }];
}

/** The language in which something stands for want of a text in the one that is wanted; null where it reads well, or says no words. */
function standsIn<T>(written: Written<T>, wanted: string, says: (text: T) => boolean): string | null {
  const { text, language, lacks } = readIn(written, wanted);
  return lacks && says(text) ? language : null;
}

function lackingSurroundings({ letter, signature, stationery, channel, language }: CheckInput): Part[] {
  const email = channel === "email";
  const parts = [
    ["theSignature", signature, "signature"],
    ["theHeader", email ? stationery?.header : null, "header"],
    ["theFooter", email ? stationery?.footer : null, "footer"],
  ] as const;
  return parts.flatMap(([name, written, slip]) => {
    const stands = written ? standsIn(written, language, hasOwnWords) : null;
    if (stands === null) return [];
    const at = () => placesOf(letter, (source) => source.slip === slip).place;
    return [{ name: t(name), language: stands, at }];
  });
}

/** Whether a document says words beside its values: else it reads the same in every language. */
export function hasOwnWords(doc: Doc): boolean {
  let found = false;
  walk(doc, (node) => {
    if (node.type === "text" && saysWords(node.text)) found = true;
  });
  return found;
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
        t("partIsInLanguageLeadIn", {
          part: part.name,
          language: languageName(part.language),
          lead: lower(lead.name),
          language2: languageName(lead.language),
        }),
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

const PARTS = { opening: "theOpening", answer: "theAnswer", closing: "theClosing" } as const;

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
    const name = slip.reply === null ? t("whatYouWrote") : t(PARTS[slip.part], { title: slip.title });
    return [
      { name, language, at: () => own().place, isAnswer: slip.part === "answer" && slip.reply !== null },
    ];
  });
}

/** House facts in the words of slips and signature; what stands below every letter is not looked at. */
function factParts({ letter, languageOf, context }: CheckInput): Part[] {
  // Of what says its languages itself nothing needs to be told by its words.
  const names = new Set(
    letter.pieces.flatMap(({ source }) =>
      source?.kind === "token" &&
      source.name?.startsWith("house.") &&
      source.slip !== "footer" &&
      !ownEntry(context.written, source.name)
        ? [source.name]
        : [],
    ),
  );
  return [...names].flatMap((name) => {
    const { words, place } = placesOf(letter, (source) => source.name === name && source.slip !== "footer");
    const language = languageOf(words);
    return language === null ? [] : [{ name: t("theHouseFact", { words }), language, at: () => place }];
  });
}

function signaturePart({ letter, languageOf, signature, language: wanted }: CheckInput): Part[] {
  if (signature && readIn(signature, wanted).lacks) return [];
  const { words, place } = placesOf(letter, (source) => source.slip === "signature" && source.kind === "own");
  const language = languageOf(words);
  return language === null ? [] : [{ name: t("theSignature"), language, at: () => place }];
}

function upper(text: string): string {
  return text.slice(0, 1).toUpperCase() + text.slice(1);
}

function lower(text: string): string {
  return text.slice(0, 1).toLowerCase() + text.slice(1);
}
