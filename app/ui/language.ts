const names = new Intl.DisplayNames("en", { type: "language" });

/** What English calls a language: `de` is German. */
export function languageName(tag: string): string {
  try {
    return names.of(tag) ?? tag;
  } catch {
    return tag; // Half typed.
  }
}
