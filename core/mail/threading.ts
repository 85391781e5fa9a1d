/** The Message-IDs in a header value (RFC 5322, 3.6.4), with angle brackets, in their order. */
function messageIds(header: string | undefined): string[] {
  return header?.match(/<[^<>\s]+>/g) ?? [];
}

/** Message-IDs that a message answers, the nearest first: In-Reply-To, then References from its end. */
export function answeredIds(inReplyTo: string | undefined, references: string | undefined): string[] {
  return [...new Set([...messageIds(inReplyTo), ...messageIds(references).reverse()])];
}

/** Longest References header that is written, in ids; the first and the latest are kept (RFC 5322 allows shortening). */
const MOST_REFERENCES = 30;

/** The References of an answer: those of the message that it answers, then that message itself. */
export function referencesFor(parent: { messageId: string; references: string[] } | null): string[] {
  if (!parent) return [];
  const all = [...parent.references.filter((id) => id !== parent.messageId), parent.messageId];
  return all.length <= MOST_REFERENCES ? all : [...all.slice(0, 1), ...all.slice(-(MOST_REFERENCES - 1))];
}
