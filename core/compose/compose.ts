import { channelName } from "../words/named";
import type { PatternEngine } from "../conditions/patterns";
import type { Doc, Source } from "../document/types";
import { picturesOf } from "../document/walk";
import { isLanguageTag, sameLanguage } from "../language/tag";
import { readIn, type Written } from "../language/written";
import { answerSubject, oneLine, withCaseNumber } from "../mail/subject";
import type { Token } from "../tokens/catalogue";
import type { Context } from "../tokens/context";
import type { Style } from "../tokens/format";
import { readText } from "../tokens/text-form";
import { fillFragments, type FilledFragments } from "./fill";
import type { FillProblem } from "./fill-input";
import { fillOwnFragments } from "./fill-own";
import { fillBlank, fillToken, gap } from "./placeholder-words";
import type { ComposeProblem, Letter, Place, TraceEntry } from "./letter";
import { decidePassages, labelOf, slipValues, type Decision } from "./passages";
import type { AttachmentRef, Slip } from "./slip";
import { unanswered } from "./unanswered";
import { layOutHtml, layOutText, type LetterParts, type Stationery } from "./stationery";
import { t } from "../words/letters";

/** Whose words the subject has: the thread's, those of the first reply that has one, or the agent's own. */
export type SubjectChoice = { from: "thread" } | { from: "reply" } | { from: "own"; text: string };

export interface ComposeInput {
  slips: Slip[];
  context: Context;
  /** “email” has formatting, stationery and a subject; other channels are plain text. */
  channel: string;
  /** BCP 47 tag. */
  language: string;
  customerTimeZone?: string | null;
  tokens: ReadonlyMap<string, Token>;
  /** What runs the regular expressions of conditions. */
  patterns: PatternEngine;
  signature: Written<Doc> | null;
  stationery: Stationery | null;
  subject: SubjectChoice;
  /** The subject of the thread that is answered; null for a letter that starts one. */
  threadSubject: string | null;
  /** Whether the letter is the first of its thread, which has a subject all the same. */
  startsThread?: boolean;
  caseNumber: string;
  /** Files that the agent added beyond those of the slips. */
  attachments: AttachmentRef[];
  /** Content-ID for a picture; pictures are left out as text where it is not given. */
  contentId?: (attachment: string) => string;
}

/**
 * Composes a letter in visible steps: decide passages, fill, lay out, trace.
 * It never throws on bad content: problems are collected, with their places, for the second look.
 */
export function compose(input: ComposeInput): Letter {
  const style = styleOf(input);
  const shared = { context: input.context, style, tokens: input.tokens };
  const decided = input.slips.map((slip) =>
    decidePassages(slip, input.context, styleOf(input, slip), input.tokens, input.patterns),
  );
  const filled = input.slips.map((slip, index) =>
    fillFragments({
      ...shared,
      style: styleOf(input, slip),
      slip,
      decisions: decided[index] ?? new Map<string, Decision>(),
    }),
  );
  const nothing: FilledFragments = { fragments: [], trace: [], problems: [] };
  // Where the letter's language lacks, its values are written in the language of the words around them, too.
  const own = (id: string, written: Written<Doc> | null | undefined) => {
    if (!written) return nothing;
    const { text, language } = readIn(written, style.language);
    return fillOwnFragments(id, text, {
      ...shared,
      style: styleOf(input, { language: language ?? undefined }),
    });
  };
  const email = input.channel === "email";
  const signature = own("signature", input.signature);
  const header = own("header", email ? input.stationery?.header : null);
  const footer = own("footer", email ? input.stationery?.footer : null);
  const parts: LetterParts = {
    header: header.fragments,
    slips: filled
      .map(({ fragments }) => (email ? fragments : fragments.map((one) => one.narrow())))
      .filter((fragments) => fragments.some((one) => one.words.hasWords)),
    signature: email ? signature.fragments : signature.fragments.map((one) => one.narrow()),
    footer: footer.fragments,
  };

  const files = new Map<string, AttachmentRef>();
  for (const slip of input.slips) for (const file of slip.attachments) files.set(file.id, file);
  for (const file of input.attachments) files.set(file.id, file);
  const pictureIds = new Set<string>();
  for (const fragments of [parts.header, ...parts.slips, parts.signature, parts.footer])
    for (const fragment of fragments)
      if (fragment.words.mayHavePictures)
        for (const id of picturesOf({ type: "doc", content: [fragment.block()] })) pictureIds.add(id);
  const carries = input.channel !== "sms";
  const logo = email ? (input.stationery?.logo ?? null) : null;
  if (logo) {
    const { alt: _alt, ...file } = logo;
    files.set(file.id, file);
    pictureIds.add(file.id);
  }
  const { text, pieces, placed: fragments } = layOutText(parts);
  const subject = composeSubject(input, shared);
  const all = [...filled, signature, header, footer];
  const later = {
    html: once(() =>
      email
        ? layOutHtml(parts, input.stationery, style.language, {
            pictureSource: (id) => (files.has(id) && input.contentId ? `cid:${input.contentId(id)}` : null),
          })
        : null,
    ),
    trace: once(() =>
      collected([
        subject.trace,
        ...input.slips.map((slip, index) => passageTrace(slip, decided[index] ?? new Map())),
        ...all.map((part) => part.trace),
        surroundings(input, email),
      ]),
    ),
    blocks: once(() => parts.slips.flat().map((fragment) => fragment.block())),
  };
  return {
    subject: subject.text,
    get html() {
      return later.html();
    },
    text,
    // Short messages are words alone.
    attachments: carries ? [...files.values()].filter((file) => !pictureIds.has(file.id)) : [],
    pictures: carries ? [...pictureIds].flatMap((id) => files.get(id) ?? []) : [],
    get trace() {
      return later.trace();
    },
    problems: collected([
      languageProblems(input),
      subject.problems,
      ...decided.map(conditionProblems),
      ...input.slips.map((slip, index) =>
        unansweredProblems(slip, decided[index] ?? new Map(), filled[index]?.problems ?? [], input),
      ),
      ...all.map((part) => part.problems.map((problem) => inPlace(problem, pieces))),
      missingPictures(pictureIds, files),
    ]),
    pieces,
    fragments,
    decisions: new Map(input.slips.map((slip, index) => [slip.id, decided[index] ?? new Map()])),
    get blocks() {
      return later.blocks();
    },
  };
}

/** Several lists as one; most are empty. */
function collected<T>(lists: T[][]): T[] {
  const all: T[] = [];
  for (const list of lists) for (const one of list) all.push(one);
  return all;
}

function missingPictures(
  ids: ReadonlySet<string>,
  files: ReadonlyMap<string, AttachmentRef>,
): ComposeProblem[] {
  const missing: ComposeProblem[] = [];
  for (const id of ids) {
    if (files.has(id)) continue;
    const message = t("pictureIsNotAmongTheFiles", { id });
    missing.push({ code: "picture-missing", message, at: null });
  }
  return missing;
}

/** What is made when it is asked for first, and is the same ever after. */
function once<T>(make: () => T): () => T {
  let made: { value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

/** How values are written in a letter, or in one of its slips: in the language of the words around them. */
export function styleOf(
  input: Pick<ComposeInput, "language" | "context" | "customerTimeZone">,
  slip?: Pick<Slip, "language">,
): Style {
  const language = isLanguageTag(input.language) ? input.language : "en";
  const own = slip?.language;
  const written = own === undefined || sameLanguage(own, language) || !isLanguageTag(own) ? language : own;
  return styleIn(written, input.context.time_zone, input.customerTimeZone ?? null);
}

/** Styles are few, and the same one is the same object: what was written in it is kept by it. */
const styles = new Map<string, Style>();
const MOST_STYLES = 200;

let latest: Style | null = null;

function styleIn(language: string, timeZone: string, customerTimeZone: string | null): Style {
  const isLatest =
    latest?.language === language &&
    latest.timeZone === timeZone &&
    latest.customerTimeZone === customerTimeZone;
  if (latest && isLatest) return latest;
  const key = `${language} ${timeZone} ${customerTimeZone ?? ""}`;
  let known = styles.get(key);
  if (!known) {
    known = { language, timeZone, customerTimeZone };
    if (styles.size >= MOST_STYLES) styles.clear();
    styles.set(key, known);
  }
  latest = known;
  return known;
}

function languageProblems(input: ComposeInput): ComposeProblem[] {
  if (isLanguageTag(input.language) && input.slips.every((slip) => isLanguageTag(slip.language ?? "en")))
    return [];
  const languages = [input.language, ...input.slips.flatMap((slip) => slip.language ?? [])];
  return [...new Set(languages)]
    .filter((language) => !isLanguageTag(language))
    .map((language) => ({
      code: "language-unusable",
      message: t("languageIsNoLanguage", { language }),
      at: null,
    }));
}

/** Blanks without an answer that print nothing themselves: nobody has decided what the letter is to say. */
function unansweredProblems(
  slip: Slip,
  decisions: ReadonlyMap<string, Decision>,
  told: FillProblem[],
  input: ComposeInput,
): ComposeProblem[] {
  if (Object.keys(slip.blanks).length === 0) return [];
  const style = styleOf(input, slip);
  const values = slipValues(slip, input.context, style, input.patterns);
  const names = unanswered(
    slip,
    decisions,
    values,
    (name) => values.value(`blank.${name}`).kind === "missing",
  );
  return names
    .filter((name) => !told.some((problem) => problem.blank?.name === name))
    .map((name) => {
      const label = labelOf(`blank.${name}`, slip, input.tokens);
      return {
        code: "blank-empty",
        message: t("labelIsNotAnswered", { label, title: slip.title }),
        at: null,
        blank: { slip: slip.id, name },
      };
    });
}

/** Where words of a source stand in a plain text made of pieces; null when they do not stand in it. */
function placeOf(source: Pick<Source, "slip" | "from" | "to">, pieces: Letter["pieces"]): Place | null {
  let offset = 0;
  for (const piece of pieces) {
    const from = piece.source;
    if (from?.slip === source.slip && from.from < source.to && from.to > source.from) {
      return {
        in: "body",
        start: offset,
        end: offset + piece.text.length,
        source: { slip: source.slip, from: source.from, to: source.to },
      };
    }
    offset += piece.text.length;
  }
  return null;
}

function inPlace({ source, ...problem }: FillProblem, pieces: Letter["pieces"]): ComposeProblem {
  return { ...problem, at: source && placeOf(source, pieces) };
}

function passageTrace(slip: Slip, decisions: ReadonlyMap<string, Decision>): TraceEntry[] {
  return [...decisions].map(([name, decision]) => ({
    kind: "passage",
    slip: slip.id,
    name,
    value: decision.holds ? "in" : "out",
    why: t("passageDecided", { condition: decision.words, values: decision.seen.join("; ") }),
  }));
}

function conditionProblems(decisions: ReadonlyMap<string, Decision>): ComposeProblem[] {
  let isFine = true;
  for (const decision of decisions.values()) if (decision.problems.length > 0) isFine = false;
  if (isFine) return [];
  return [...decisions].flatMap(([name, decision]) =>
    decision.problems.map((problem) => ({
      code: "condition-unusable" as const,
      message: t("conditionCannotBeTested", { name, problem }),
      at: null,
    })),
  );
}

function surroundings(input: ComposeInput, email: boolean): TraceEntry[] {
  const entries: TraceEntry[] = [];
  if (input.signature) {
    entries.push({
      kind: "signature",
      slip: null,
      name: "signature",
      value: "in",
      why: t("standsOnceAtTheEnd"),
    });
  }
  if (input.stationery) {
    const why = email ? t("emailsCarryIt") : t("channelCarriesNone", { channel: channelName(input.channel) });
    entries.push({
      kind: "stationery",
      slip: null,
      name: input.stationery.name,
      value: email ? "in" : "out",
      why,
    });
  }
  return entries;
}

interface ComposedSubject {
  text: string;
  trace: TraceEntry[];
  problems: ComposeProblem[];
}

interface Shared {
  context: Context;
  style: Style;
  tokens: ReadonlyMap<string, Token>;
}

function composeSubject(input: ComposeInput, shared: Shared): ComposedSubject {
  if (input.channel !== "email") return { text: "", trace: [], problems: [] };
  const done = (text: string, why: string): ComposedSubject => ({
    text: withCaseNumber(text, input.caseNumber),
    trace: [{ kind: "subject", slip: null, name: "subject", value: oneLine(text), why }],
    problems: [],
  });
  if (input.subject.from === "own") return done(input.subject.text, t("writtenByTheAgent"));
  const slip = input.slips.find((one) => one.subject !== null && one.subject.trim() !== "");
  const wanted = input.subject.from === "reply" || input.threadSubject === null;
  if (wanted && slip?.subject) {
    const filled = fillText(slip.subject, slip, { ...shared, style: styleOf(input, slip) });
    const composed = done(filled.text, t("subjectOfTitle", { title: slip.title }));
    return { ...composed, problems: filled.problems };
  }
  const text =
    input.startsThread === true
      ? withCaseNumber(input.threadSubject ?? "", input.caseNumber)
      : answerSubject(input.threadSubject ?? "", input.caseNumber);
  return { ...done(text, t("theThreadsSubject")), text };
}

/** A text with placeholders, filled. Values are put in as they are: nothing in them is read again. */
function fillText(source: string, slip: Slip, shared: Shared): { text: string; problems: ComposeProblem[] } {
  const read = readText(source);
  const problems: ComposeProblem[] = read.problems.map((problem) => ({
    code: "text-unreadable",
    message: t("subjectCannotBeRead", { title: slip.title, message: problem.message }),
    at: null,
  }));
  let text = "";
  for (const piece of read.pieces) {
    if (piece.type === "text") {
      text += piece.text;
      continue;
    }
    const filled = piece.type === "token" ? fillToken(piece, shared) : fillBlank(piece, { ...shared, slip });
    const name = piece.type === "blank" ? `blank.${piece.attrs.name}` : piece.attrs.name;
    const label = labelOf(name, slip, shared.tokens);
    const words = filled.kind === "text" ? oneLine(filled.text) : gap(label);
    if (filled.kind !== "text") {
      problems.push({
        code: piece.type === "blank" ? "blank-empty" : "token-missing",
        message: t("theSubjectLacks", { label }),
        at: { in: "subject", start: text.length, end: text.length + words.length, source: null },
      });
    }
    text += words;
  }
  return { text, problems };
}
