import type { Letter, Place } from "../compose/letter";
import { walk } from "../document/walk";
import { riskOf } from "../mail/risky-file";
import { bareSubject } from "../mail/subject";
import { listed } from "../text/counted";
import { isOnTopic } from "../tokens/fields";
import { lookUp } from "../tokens/values";
import type { CheckInput, SendCheck } from "./check";
import { bodyPlace, look, stop } from "./finding";
import { foundInLines, foundInOwnWords, linesOf } from "./reading";
import { findName, nameKey } from "./names";
import { notLetThrough } from "./forwarder";
import { linksThatDiffer } from "./links";
import { languagesThatDiffer, textsThatLack } from "./languages";
import { attachmentWords, greetings, nobody, SIGN_OFF_LINE, titles, unfinishedMarks } from "./phrases";
import { t } from "../words/second-look";

/** Largest sum of attachments and pictures that is sent, in bytes (20 MB). */
export const MAX_ATTACHMENT_BYTES = 20 * 1024 * 1024;

/**
 * The second look at a letter: what stops sending first, then what is worth a look,
 * each in the order in which it stands in the letter.
 */
export function secondLook(input: CheckInput): SendCheck[] {
  return [...foundBy(STOPPING, input), ...foundBy(LOOKING, input)];
}

function foundBy(checks: ((input: CheckInput) => SendCheck[])[], input: CheckInput): SendCheck[] {
  const all: SendCheck[] = [];
  for (const check of checks) for (const one of check(input)) all.push(one);
  return all.length < 2 ? all : inOrder(all);
}

const STOPPING = [recipient, problems, leftoverBraces, nothingToSay, tooLarge, tooLong, notLetThrough];
const LOOKING = [
  strangersBeside,
  otherCustomers,
  otherGreeting,
  signOffTwice,
  saidTwice,
  attachmentWording,
  riskyFiles,
  filesLeftOut,
  picturesWithoutWords,
  subjectChanged,
  sentBefore,
  fieldsMissing,
  unfinished,
  linksThatDiffer,
  languagesThatDiffer,
  textsThatLack,
];

/** Whether a letter with these findings may not be sent. */
export function stopsSending(checks: SendCheck[]): boolean {
  return checks.some((check) => check.severity === "stop");
}

function inOrder(checks: SendCheck[]): SendCheck[] {
  return [...checks].sort((a, b) => (a.at?.start ?? -1) - (b.at?.start ?? -1));
}

const EMAIL = /^[^\s@<>"(),;:\\[\]]+@[^\s@<>"(),;:\\[\]]+\.[^\s@<>"(),;:\\[\]]+$/;

/** A telephone number, its grouping taken away; those that are kept are written as in ITU-T E.164. */
const NUMBER = /^\+?\d{6,15}$/;

function recipient({ recipient: to, channel, standing }: CheckInput): SendCheck[] {
  if (!to?.trim()) return [stop("no-recipient", t("thereIsNobodyToSendIt"))];
  if (channel === "email" && !EMAIL.test(to)) {
    return [stop("no-recipient", t("toIsNotAnEmailAddress", { to }))];
  }
  if (channel === "sms" && !NUMBER.test(to.replace(/[\s().-]/g, "")))
    return [stop("no-recipient", t("toIsNoTelephoneNumber", { to }))];
  if (standing.is === "ours") return [stop("recipient-ours", t("toIsAMailboxOfOurs", { to }))];
  if (standing.is === "new" && !standing.confirmed)
    return [
      stop(
        "recipient-unknown",
        t("newsChooseAnotherAddressOrConfirm", { news: standing.news ?? t("toIsNotKnownToBe", { to }) }),
      ),
    ];
  return [];
}

function problems({ letter }: CheckInput): SendCheck[] {
  return letter.problems.map(({ code, message, at, blank, token }) => ({
    ...stop(code, message, at),
    ...(blank ? { blank } : {}),
    ...(token === undefined ? {} : { token }),
  }));
}

const BRACES = /\{\s*\$?[\w.]+[^{}]{0,200}\}?|\{\{|\}\}/g;

/** Braces that a person typed and that look like a token: it would reach the customer as it is. */
function leftoverBraces({ letter }: CheckInput): SendCheck[] {
  return foundInOwnWords(letter, BRACES).map(({ start, text }) =>
    stop("leftover-braces", t("textIsNoToken", { text }), bodyPlace(letter, start, start + text.length)),
  );
}

function nothingToSay({ letter }: CheckInput): SendCheck[] {
  const said = letter.pieces.some(
    (piece) =>
      piece.source &&
      piece.source.slip !== "signature" &&
      piece.source.slip !== "footer" &&
      piece.text.trim() !== "",
  );
  return said || letter.pictures.length > 0 ? [] : [stop("nothing-to-say", t("theLetterSaysNothingYet"))];
}

function tooLarge({ letter }: CheckInput): SendCheck[] {
  const bytes = [...letter.attachments, ...letter.pictures].reduce((sum, file) => sum + file.size, 0);
  if (bytes <= MAX_ATTACHMENT_BYTES) return [];
  return [
    stop(
      "attachments-too-large",
      t("theAttachmentsComeToBytesMb", { bytes: (bytes / 1024 / 1024).toFixed(1) }),
    ),
  ];
}

/** Longest letter that is sent, in UTF-16 units: what is longer is not kept whole to be searched. */
const MAX_LETTER = 100_000;

function tooLong({ letter }: CheckInput): SendCheck[] {
  if (letter.text.length <= MAX_LETTER) return [];
  const most = MAX_LETTER.toLocaleString("en");
  return [stop("letter-too-long", t("theLetterIsLongerThanMost", { most }))];
}

/** Somebody new who reads the customer's details along with them. */
function strangersBeside({ strangers = [], letter, context }: CheckInput): SendCheck[] {
  if (strangers.length === 0) return [];
  const details = Object.values(context.booking).flatMap((value) =>
    typeof value === "string" && value.length > 3 ? [value] : [],
  );
  const isTold = details.some((value) => letter.text.includes(value));
  return strangers.map((address) =>
    look(
      "copy-unknown",
      isTold ? t("addressReadsTheBooking", { address }) : t("addressIsNewHere", { address }),
    ),
  );
}

function otherCustomers({ letter, otherNames }: CheckInput): SendCheck[] {
  return otherNames.flatMap((name) => {
    const found = findName(letter.text, name);
    return found
      ? [
          look(
            "other-customer",
            t("nameIsAnotherCustomerOfOurs", { name }),
            bodyPlace(letter, found.start, found.end),
          ),
        ]
      : [];
  });
}

const GREETING = new RegExp(
  `^[ \\t]{0,20}(?:${greetings.join("|")})\\b[ \\t]{1,20}((?:(?:${titles.join("|")})\\b\\.?[ \\t]{0,20}){0,5})([^,!.:;\\n]{1,80})`,
  "iu",
);

/** A greeting by a name that is neither the customer's nor their organisation's. */
function otherGreeting({ letter, context }: CheckInput): SendCheck[] {
  const { customer } = context;
  return foundInLines(letter, GREETING).flatMap(({ match, at: line }) => {
    const name = match[2] ?? "";
    const start = line + match.index + match[0].length - name.length;
    // A greeting by a value of the customer's own is theirs.
    if (fromValue(letter, start)) return [];
    const words = [...name.matchAll(/[\p{L}\p{M}'’-]+/gu)].slice(0, 4);
    const first = words[0]?.[0];
    // A greeting names somebody by a capital; “hello and thank you” does not.
    if (!first || first.slice(0, 1) === first.slice(0, 1).toLowerCase()) return [];
    const known = namesOf(context);
    const strange = words.find((word) => {
      const capital = word[0].slice(0, 1) !== word[0].slice(0, 1).toLowerCase();
      return (
        capital &&
        !nameKey(word[0])
          .split(" ")
          .every((key) => NOBODY.has(key) || known.has(key))
      );
    });
    if (!strange || fromValue(letter, start + strange.index)) return [];
    const at = bodyPlace(letter, start, start + name.trimEnd().length);
    const said = name.trim();
    const who = customer.full_name;
    const note =
      typeof who === "string"
        ? t("theGreetingSaysAnother", { name: said, who })
        : t("theGreetingSays", { name: said });
    return [look("other-greeting", note, at)];
  });
}

const NOBODY = new Set([...nobody, ...titles]);

/** The parts of the names that the customer and their organisation have, as name keys. */
function namesOf({ customer, organisation }: CheckInput["context"]): Set<string> {
  const names = [
    customer.first_name,
    customer.last_name,
    customer.full_name,
    organisation.name,
    organisation.contact,
  ];
  return new Set(names.flatMap((name) => (typeof name === "string" ? nameKey(name).split(" ") : [])));
}

/** Whether the words at an offset are a value of the customer's own. */
function fromValue(letter: Letter, at: number): boolean {
  let offset = 0;
  for (const piece of letter.pieces) {
    if (at >= offset && at < offset + piece.text.length) {
      return piece.source?.kind === "token" && /^(?:customer|organisation)\./.test(piece.source.name ?? "");
    }
    offset += piece.text.length;
  }
  return false;
}

function signOffTwice({ letter, context }: CheckInput): SendCheck[] {
  const [, ...again] = foundInLines(letter, SIGN_OFF_LINE);
  const name = context.agent.name;
  const own = typeof name === "string" ? linesThatAre(letter, name).slice(1) : [];
  const spots = again.length > 0 ? again.map(({ at, match }) => ({ start: at, text: match[0] })) : own;
  return spots.map(({ start, text }) =>
    look("sign-off-twice", t("theSignOffStandsTwice"), bodyPlace(letter, start, start + text.length)),
  );
}

/** Shorter lines may well stand twice: a sailing, an address. */
const LONG_LINE = 40;

/** A paragraph that stands in the letter before, word by word. */
function saidTwice({ letter }: CheckInput): SendCheck[] {
  const before = new Set<string>();
  return linesOf(letter).flatMap(({ start, text, slip }) => {
    if (text.length < LONG_LINE) return [];
    // What the house puts below every letter may be said in it as well.
    if (slip === "signature" || slip === "footer") return [];
    const words = /\s\s|^\s|\s$/.test(text) ? text.replace(/\s+/g, " ").trim() : text;
    if (words.length < LONG_LINE) return [];
    if (!before.has(words)) {
      before.add(words);
      return [];
    }
    const place = bodyPlace(letter, start, start + text.length);
    return place.source === null
      ? []
      : [look("said-twice", t("wordsIsSaidTwice", { words: words.slice(0, LONG_LINE) }), place)];
  });
}

let agent = { name: "", key: "" };

/** The key of the agent's name, which is the same from letter to letter. */
function agentKey(name: string): string {
  if (agent.name !== name) agent = { name, key: nameKey(name) };
  return agent.key;
}

/** The lines that are a name and nothing else. */
function linesThatAre(letter: Letter, name: string): { start: number; text: string }[] {
  const key = agentKey(name);
  const most = 2 * name.length + 10;
  const likely = linesOf(letter).filter(({ text }) => text.length <= most && text.length >= key.length);
  return likely.filter(({ text }) => text === name || nameKey(text) === key);
}

function attachmentWording({ letter }: CheckInput): SendCheck[] {
  const [first] = foundInOwnWords(letter, attachmentWords);
  if (first && letter.attachments.length === 0 && letter.pictures.length === 0) {
    return [
      look(
        "attachment-missing",
        t("itSaysTextAndNothingIs", { text: first.text }),
        bodyPlace(letter, first.start, first.start + first.text.length),
      ),
    ];
  }
  if (!first && letter.attachments.length > 0) {
    const names = listed(letter.attachments.map((file) => `“${file.name}”`));
    const count = letter.attachments.length;
    return [look("attachment-unmentioned", t("isAttachedUnmentioned", { names, count }))];
  }
  return [];
}

function riskyFiles({ letter }: CheckInput): SendCheck[] {
  return letter.attachments.flatMap((file) => {
    const risk = riskOf(file);
    return risk === null ? [] : [look("attachment-risky", `“${file.name}” ${risk}.`)];
  });
}

/** Files of replies that a short message cannot carry. */
function filesLeftOut({ channel, slips }: CheckInput): SendCheck[] {
  if (channel !== "sms") return [];
  const names = slips.flatMap((slip) => slip.attachments.map((file) => `“${file.name}”`));
  if (names.length === 0) return [];
  return [
    look(
      "attachment-left-out",
      t("shortMessagesCarryNoFiles", { names: listed(names), count: names.length }),
    ),
  ];
}

function picturesWithoutWords({ letter }: CheckInput): SendCheck[] {
  const withPictures = letter.fragments.filter(({ fragment }) => fragment.words.mayHavePictures);
  let isNameless = false;
  walk({ type: "doc", content: withPictures.map(({ fragment }) => fragment.block()) }, (node) => {
    if (node.type === "image" && node.attrs.alt.trim() === "") isNameless = true;
  });
  return isNameless ? [look("picture-without-words", t("aPictureHasNoWords"))] : [];
}

function subjectChanged({ letter, threadSubject, channel }: CheckInput): SendCheck[] {
  if (channel !== "email" || threadSubject === null) return [];
  if (bareSubject(letter.subject) === bareSubject(threadSubject) || bareSubject(threadSubject) === "")
    return [];
  const at: Place = { in: "subject", start: 0, end: letter.subject.length, source: null };
  return [
    look(
      "subject-changed",
      t("theThreadIsCalledThreadsubject", { threadSubject: bareSubject(threadSubject) }),
      at,
    ),
  ];
}

function sentBefore({ slips, sentReplies }: CheckInput): SendCheck[] {
  const answers = slips.filter(
    (slip) => slip.part === "answer" && slip.reply !== null && sentReplies.includes(slip.reply),
  );
  return answers.map((slip) => look("sent-before", t("slipWasAlreadySentOnThis", { slip: slip.title })));
}

function unfinished({ letter }: CheckInput): SendCheck[] {
  return foundInOwnWords(letter, unfinishedMarks).map(({ start, text }) =>
    look("unfinished", t("textLooksUnfinished", { text }), bodyPlace(letter, start, start + text.length)),
  );
}

/** Fields that cases of this topic want filled in, and are not. */
function fieldsMissing({ tokens, context }: CheckInput): SendCheck[] {
  const topic = typeof context.case.topic === "string" ? context.case.topic : null;
  const lacking: SendCheck[] = [];
  for (const { name, label, group, requiredOn } of tokens.values()) {
    if (requiredOn === undefined || !isOnTopic(requiredOn, topic)) continue;
    // Who belongs to no organisation lacks nothing of one.
    if (group === "organisation" && Object.keys(context.organisation).length === 0) continue;
    if (lookUp(context, name, null).kind === "missing")
      lacking.push(look("field-missing", t("fieldIsNotFilledIn", { label })));
  }
  return lacking;
}
