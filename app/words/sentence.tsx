import { cloneElement, Fragment, type ReactElement, type ReactNode } from "react";
import type { NameOf, Say, Values } from "#core/words/words-of";

interface Props<Words, Name extends string> {
  /** The words of the screen. */
  of: Say<Words>;
  name: Name;
  values?: Values<Words, Name>[0];
  /** What stands in it as `<0>…</0>` or `<1/>`, in the order of their numbers. */
  parts: ReactElement<{ children?: ReactNode }>[];
}

/** Marks of where a value stands, of a range that Unicode leaves to such use: no text brings them along by itself. */
const [FROM, TO] = ["\ue000", "\ue001"];
const PIECES = new RegExp(
  `<(?<part>\\d+)>(?<inner>.*?)</\\k<part>>|<(?<alone>\\d+)/>|${FROM}(?<value>\\d+)${TO}`,
  "su",
);

/** A sentence of which some words are links, buttons or otherwise set off. Its values are text, whatever stands in them. */
export function Sentence<Words, Name extends NameOf<Words>>({ of, name, values, parts }: Props<Words, Name>) {
  const given = Object.entries<string | number>(values ?? {});
  // Texts are put in last: within the sentence they would be read as its markup.
  const marked = given.map(([one, value], index) => [
    one,
    typeof value === "string" ? `${FROM}${index}${TO}` : value,
  ]);
  const text = of(name, ...([Object.fromEntries(marked)] as unknown as Values<Words, Name>));
  const read = (words: string): ReactNode[] => {
    const found = PIECES.exec(words);
    if (!found) return [words];
    const { part, inner = "", alone, value } = found.groups ?? {};
    const element = parts[Number(part ?? alone)];
    const piece =
      value !== undefined
        ? given[Number(value)]?.[1]
        : element && (part === undefined ? element : cloneElement(element, {}, ...read(inner)));
    const after = words.slice(found.index + found[0].length);
    return [words.slice(0, found.index), piece, ...read(after)];
  };
  return read(text).map((piece, index) => <Fragment key={index}>{piece}</Fragment>);
}
