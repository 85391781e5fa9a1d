const NUL = /\u0000/g;

/**
 * A text as a database keeps it: without NUL, which PostgreSQL's text refuses, and without half surrogate pairs, which no
 * encoding carries. Each of them becomes U+FFFD, the sign for what cannot be shown.
 */
export function wellFormed(text: string): string {
  return text.isWellFormed() && !text.includes("\u0000") ? text : text.toWellFormed().replace(NUL, "\ufffd");
}
