import { filedAs, type FilingChange } from "#core/forms/library";
import type { Content } from "#server/replies/content";
import type { Filing } from "#server/writing/open";
import { sameJson } from "./same-json";

/** What of a reply's filing is otherwise than it is filed. */
export function filingChange(filed: Filing, wanted: Filing): FilingChange {
  const names = Object.keys(filed) as (keyof Filing)[];
  const changed = names.filter((name) => !sameJson(filed[name], wanted[name]));
  return Object.fromEntries(changed.map((name) => [name, wanted[name]]));
}

/** Parts of what a reply says, as people call them. */
const PARTS: [words: string, part: (content: Content) => unknown][] = [
  ["title", (content) => content.title],
  [
    "words",
    (content) => content.variants.map(({ language, document, texts }) => [language, document, texts]),
  ],
  [
    "subject",
    (content) => [
      content.useTemplateSubject,
      content.variants.map(({ language, subject }) => [language, subject]),
    ],
  ],
  ["blanks", (content) => content.blanks],
  ["passages", (content) => content.passages],
  ["files", (content) => content.files.map(({ id }) => id)],
];

/**
 * What of a reply is not published yet, by name: `words`, `tags`.
 * @param onShelf what is published; null for a reply that never was
 */
export function unpublished(
  onShelf: Content | null,
  content: Content,
  filed: Filing,
  filing: Filing,
): string[] {
  const parts = onShelf === null ? [] : PARTS.filter(([, part]) => !sameJson(part(onShelf), part(content)));
  const names = (Object.keys(filingChange(filed, filing)) as (keyof Filing)[]).map(filedAs);
  return [...new Set([...parts.map(([words]) => words), ...names])];
}
