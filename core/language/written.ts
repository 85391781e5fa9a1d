import { sameLanguage } from "./tag";

/** Something that is written in one language, and in others where somebody wrote it there too. */
export interface Written<T> {
  /** Of `text`, as a BCP 47 tag; null where it reads the same in every language. */
  language: string | null;
  text: T;
  /** The same in further languages, by their tags. */
  others: Readonly<Record<string, T>>;
}

/** How something reads in a language. */
export interface Reading<T> {
  text: T;
  /** Of `text`; null where it reads the same in every language. */
  language: string | null;
  /** Whether it stands in another language than the one that was asked for. */
  lacks: boolean;
}

/** What reads in a language: its own text where there is one, else the first, whatever the regions of the tags. */
export function readIn<T>({ language, text, others }: Written<T>, wanted: string): Reading<T> {
  if (language === null || sameLanguage(language, wanted)) return { text, language, lacks: false };
  const own = tagIn(others, wanted);
  const other = own === null ? undefined : others[own];
  return own === null || other === undefined
    ? { text, language, lacks: true }
    : { text: other, language: own, lacks: false };
}

/** The tag of a record that is of a language; null where none is. */
export function tagIn(texts: Readonly<Record<string, unknown>>, wanted: string): string | null {
  if (Object.hasOwn(texts, wanted)) return wanted;
  return Object.keys(texts).find((tag) => sameLanguage(tag, wanted)) ?? null;
}

/** Something written once, in a language. */
export function writtenIn<T>(language: string | null, text: T): Written<T> {
  return { language, text, others: {} };
}

/** Names and numbers, addresses of mail and of pages read the same everywhere; words do not. */
export function saysWords(text: string): boolean {
  return /\p{L}{2}/u.test(text.replace(/\S+@\S+|(?:https?:\/\/|www\.)\S+/gi, ""));
}
