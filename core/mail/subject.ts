/** Prefixes that mail programs of several languages put before a subject when answering or forwarding. */
const PREFIX = /\s*(?:re|aw|sv|vs|antw|tr|rif|r|fwd?|wg|rv|res|enc)(?:\[\d{1,4}\])?\s*:\s*/iy;

/** A case number in brackets, at the end of the last characters of a subject. */
const NUMBER_AT_END = /\s*\[[A-Z]{1,6}-\d{1,12}\]\s*$/;
const LONGEST_NUMBER = 30;

const CONTROL = /[\u0000-\u001f\u007f-\u009f\u2028\u2029]+/g;

/** A subject on one line, as a header may carry it (RFC 5322, 2.2). */
export function oneLine(text: string): string {
  if (!/[\s\u0000-\u001f\u007f-\u009f]{2}|[^\S ]|[\u0000-\u001f\u007f-\u009f]|^ | $/.test(text)) return text;
  return text.replace(CONTROL, " ").replace(/\s+/g, " ").trim();
}

/** A subject without answer prefixes and without a case number in brackets: what the thread is about. */
export function bareSubject(subject: string): string {
  let known = bare.get(subject);
  if (known === undefined) {
    known = bared(subject);
    if (bare.size >= MOST_KEPT) bare.clear();
    if (subject.length <= LONGEST_KEPT) bare.set(subject, known);
  }
  return known;
}

/** The subjects of the cases that are open just now are asked about with every key. */
const bare = new Map<string, string>();
const MOST_KEPT = 500;
const LONGEST_KEPT = 1000;

function bared(subject: string): string {
  const line = oneLine(subject);
  let start = 0;
  let end = line.length;
  for (;;) {
    PREFIX.lastIndex = start;
    const prefix = PREFIX.exec(line)?.[0] ?? "";
    const tail = line.slice(Math.max(start, end - LONGEST_NUMBER), end);
    const number = NUMBER_AT_END.exec(tail)?.[0] ?? "";
    if (prefix === "" && number === "") return line.slice(start, end).trim();
    // A prefix never reaches over what stands at the end.
    start = Math.min(start + prefix.length, end);
    end = Math.max(start, end - number.length);
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
