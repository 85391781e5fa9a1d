import type { Doc, TextChannel, Texts } from "./types";

/** The text that a channel reads: its own, else the common one. */
export function textFor({ document, texts }: Texts, channel: string): Doc {
  return texts?.[channel as TextChannel] ?? document;
}

/** Every text, the common one first. */
export function allTexts({ document, texts }: Texts): Doc[] {
  return [document, ...Object.values(texts ?? {})];
}
