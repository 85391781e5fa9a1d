/** Prefixes that mail programs of several languages put before a subject when answering or forwarding. */
const PREFIX = /^\s*(?:re|aw|sv|vs|antw|tr|rif|r|fwd?|wg|rv|res|enc)(?:\[\d+\])?\s*:\s*/i;

const CONTROL = /[\u0000-\u001f\u007f-\u009f\u2028\u2029]+/g;

/** A subject on one line, as a header may carry it (RFC 5322, 2.2). */
export function oneLine(text: string): string {
  return text.replace(CONTROL, " ").replace(/\s+/g, " ").trim();
}

/** A subject without answer prefixes and without a case number in brackets: what the thread is about. */
export function bareSubject(subject: string): string {
  let bare = oneLine(subject);
  for (;;) {
    const shorter = bare
      .replace(PREFIX, "")
      .replace(/\s*\[[A-Z]{1,6}-\d{1,12}\]\s*$/, "")
      .trim();
    if (shorter === bare) return bare;
    bare = shorter;
  }
}

/** A subject with the case number behind it, once. */
export function withCaseNumber(subject: string, caseNumber: string): string {
  const line = oneLine(subject);
  const number = oneLine(caseNumber);
  if (number === "" || line.includes(`[${number}]`)) return line;
  return line === "" ? `[${number}]` : `${line} [${number}]`;
}

/** The subject of an answer in a thread: `Re: `, what it is about, the case number. */
export function answerSubject(threadSubject: string, caseNumber: string): string {
  const bare = bareSubject(threadSubject);
  return withCaseNumber(bare === "" ? "Re: your message" : `Re: ${bare}`, caseNumber);
}

/**
 * The case number that a subject names, in brackets or bare.
 * @param prefix the letters of the house's case numbers, as SF in SF-20417
 * @returns the digits' number, or null
 */
export function caseNumberIn(subject: string, prefix: string): number | null {
  const match = new RegExp(`\\b${prefix}-(\\d{1,12})\\b`, "i").exec(subject);
  return match ? Number(match[1]) : null;
}
