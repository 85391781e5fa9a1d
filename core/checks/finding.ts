import type { Letter, Place } from "../compose/letter";
import type { Source } from "../document/types";
import type { CheckCode, SendCheck } from "./check";

export function stop(code: CheckCode, message: string, at: Place | null = null): SendCheck {
  return { severity: "stop", code, message, at };
}

export function look(code: CheckCode, message: string, at: Place | null = null): SendCheck {
  return { severity: "look", code, message, at };
}

/** A range of the letter's text as a place, with the slip that its first words came from. */
export function bodyPlace(letter: Letter, start: number, end: number): Place {
  let offset = 0;
  const ranges = letter.pieces.flatMap(({ text, source }) => {
    const at = offset;
    offset += text.length;
    return source && offset > start && at < end ? [overlap(source, at, text.length, start, end)] : [];
  });
  const [first] = ranges;
  const last = ranges.filter((range) => range.slip === first?.slip).at(-1);
  return { in: "body", start, end, source: first && last ? { ...first, to: last.to } : null };
}

/** The words of the pieces whose source is wanted, and the place of the first of them; null where there is none. */
export function placesOf(
  letter: Letter,
  wanted: (source: Source) => boolean,
): { words: string; place: Place | null } {
  let offset = 0;
  let place: Place | null = null;
  const words: string[] = [];
  for (const { text, source } of letter.pieces) {
    if (source && wanted(source)) {
      words.push(text);
      place ??= bodyPlace(letter, offset, offset + text.length);
    }
    offset += text.length;
  }
  return { words: words.join(" "), place };
}

function overlap(
  source: Source,
  offset: number,
  length: number,
  start: number,
  end: number,
): NonNullable<Place["source"]> {
  if (source.kind !== "own") return { slip: source.slip, from: source.from, to: source.to };
  return {
    slip: source.slip,
    from: source.from + Math.max(0, start - offset),
    to: source.from + Math.min(length, end - offset),
  };
}
