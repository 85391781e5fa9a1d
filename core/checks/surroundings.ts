import { primary } from "../language/tag";
import type { Letter } from "../compose/letter";
import type { Slip } from "../compose/slip";
import type { Doc, Inline } from "../document/types";
import { GREETING_LINE, SIGN_OFF_LINE } from "./phrases";
import { linesOf } from "./reading";

/** What stands around the answers of a letter. */
export type Surrounding = "opening" | "closing";

/** A sign-off stands among so many of a letter's last lines: a name may follow it. */
const LAST_LINES = 3;

/**
 * What a letter lacks around its answers: a reply of that part, or words of the agent's own that do the same.
 * @param letter as it was composed of the slips
 */
export function lacking(letter: Letter, slips: Slip[]): Surrounding[] {
  const ids = new Set(slips.map((slip) => slip.id));
  const lines = linesOf(letter).filter(({ slip, text }) => ids.has(slip) && text.trim() !== "");
  const has: Record<Surrounding, boolean> = {
    opening: slips.some(({ part }) => part === "opening") || GREETING_LINE.test(lines[0]?.text ?? ""),
    closing:
      slips.some(({ part }) => part === "closing") ||
      lines.slice(-LAST_LINES).some(({ text }) => SIGN_OFF_LINE.test(text)),
  };
  return (["opening", "closing"] as const).filter((part) => !has[part]);
}

/** A greeting as languages write it: before the name, after it, and how one greets who has not told a name. */
interface Plain {
  greeting: string;
  /** Which name it is by. */
  name: "customer.first_name" | "customer.full_name";
  mark: string;
  closing: string;
}

const PLAIN: Record<string, Plain> = {
  de: { greeting: "Guten Tag", name: "customer.full_name", mark: ",", closing: "Freundliche Grüße" },
  en: { greeting: "Hello", name: "customer.first_name", mark: ",", closing: "Kind regards," },
  es: { greeting: "Hola", name: "customer.first_name", mark: ":", closing: "Un cordial saludo," },
  fr: { greeting: "Bonjour", name: "customer.full_name", mark: ",", closing: "Cordialement," },
};

/**
 * A plain opening or closing, for a house that has none in a language.
 * @param language BCP 47 tag of the letter
 * @param context values of the case: who is not known by name is greeted without one
 * @returns null for a language in which there is none
 */
export function plainSurrounding(
  part: Surrounding,
  language: string,
  context: { customer: Record<string, unknown> },
): Doc | null {
  const plain = PLAIN[primary(language)];
  if (!plain) return null;
  const text = (words: string): Inline => ({ type: "text", text: words });
  const isNamed = context.customer[plain.name.slice("customer.".length)] != null;
  const opening: Inline[] = isNamed
    ? [
        text(`${plain.greeting} `),
        { type: "token", attrs: { name: plain.name, fn: null, options: {} } },
        text(plain.mark),
      ]
    : [text(`${plain.greeting}${plain.mark}`)];
  const content = part === "opening" ? opening : [text(plain.closing)];
  return { type: "doc", content: [{ type: "paragraph", attrs: { passages: [] }, content }] };
}
