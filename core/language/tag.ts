/** Whether a text is a language tag that `Intl` takes (BCP 47, in the form of Unicode UTS 35). */
export function isLanguageTag(tag: string): boolean {
  let known = tags.get(tag);
  if (known === undefined) {
    known = isTag(tag);
    if (tags.size >= MOST_KEPT) tags.clear();
    tags.set(tag, known);
  }
  return known;
}

/** Few tags are met, and all the time; what is met once is no reason to keep much. */
const tags = new Map<string, boolean>();
const MOST_KEPT = 500;

function isTag(tag: string): boolean {
  try {
    return Intl.getCanonicalLocales(tag).length === 1;
  } catch {
    return false; // Told as no tag.
  }
}

/** Whether two tags are of one language, whatever the region: `en` and `en-GB`. */
export function sameLanguage(a: string, b: string): boolean {
  if (a === b) return true;
  return primary(a) === primary(b);
}

/** The language of a tag without its region or script: `en` of `en-GB`. */
export function primary(tag: string): string {
  const end = tag.indexOf("-");
  return (end < 0 ? tag : tag.slice(0, end)).toLowerCase();
}

/** A language by its English name; the tag itself where it has none. */
export function languageName(tag: string): string {
  try {
    return new Intl.DisplayNames("en", { type: "language" }).of(tag) ?? tag;
  } catch {
    return tag; // No tag that Intl takes: it stands for itself.
  }
}
