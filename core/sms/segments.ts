import { SegmentedMessage } from "sms-segments-calculator";

/** How many messages a text takes as an SMS, by its characters (3GPP TS 23.038: GSM 7-bit, else UCS-2). */
export function smsSegments(text: string): number {
  return new SegmentedMessage(text).segmentsCount;
}

/** What a text costs as a short message, and what makes it cost more. */
export interface SmsLength {
  segments: number;
  /** What it would take were the characters of `forcing` that can be replaced replaced. */
  plainerSegments: number;
  encoding: "GSM-7" | "UCS-2";
  /** Characters that the seven-bit alphabet lacks, each once, in their order, with what says the same in it; null for none. */
  forcing: { character: string; replacement: string | null }[];
}

/** Measures a text as a short message (3GPP TS 23.038, TS 23.040 for what several parts cost each). */
export function smsLength(text: string): SmsLength {
  const measured = new SegmentedMessage(text);
  const forcing = [...new Set(measured.getNonGsmCharacters())].map((character) => ({
    character,
    replacement: plainerCharacter(character),
  }));
  return {
    segments: measured.segmentsCount,
    plainerSegments: forcing.length === 0 ? measured.segmentsCount : smsSegments(plainerText(text)),
    encoding: forcing.length === 0 ? "GSM-7" : "UCS-2",
    forcing,
  };
}

/** The text with whatever has a like in the seven-bit alphabet written so: curly quotes straight, dashes short. */
export function plainerText(text: string): string {
  const characters = [...new Set(new SegmentedMessage(text).getNonGsmCharacters())];
  let plainer = text;
  for (const character of characters) {
    const replacement = plainerCharacter(character);
    if (replacement !== null) plainer = plainer.replaceAll(character, replacement);
  }
  return plainer;
}

/** A character of the seven-bit alphabet, or several, that read the same; null where there is none. */
export function plainerCharacter(character: string): string | null {
  const smart = new SegmentedMessage(character, "auto", true).graphemes.join("");
  if (smart !== character && isSevenBit(smart)) return smart;
  // A letter whose mark the alphabet lacks reads without it: ł, č, ñ's kin.
  const bare = (WITHOUT_MARK[character] ?? character.normalize("NFD").replace(/\p{M}+/gu, "")).trim();
  return bare !== "" && bare !== character && isSevenBit(bare) ? bare : null;
}

/** Letters that no decomposition takes apart. */
const WITHOUT_MARK: Partial<Record<string, string>> = {
  ...{ ł: "l", Ł: "L", đ: "d", Đ: "D", ħ: "h", ı: "i", œ: "oe", Œ: "OE", þ: "th", ð: "d" },
};

function isSevenBit(text: string): boolean {
  return new SegmentedMessage(text).getNonGsmCharacters().length === 0;
}
