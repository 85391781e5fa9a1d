import { convert } from "html-to-text";
import { simpleParser, type AddressObject, type EmailAddress, type ParsedMail } from "mailparser";
import { detect } from "tinyld";
import { foundAgainst } from "#core/mail/authentication";
import { flowOf, unflowed } from "#core/mail/flowed";
import { readFailure, type DeliveryFailure } from "#core/mail/failure";
import { kindOf, sealOf, type Headers } from "#core/mail/kind";
import type { MailPart } from "#core/mail/parts";
import { splitQuoted } from "#core/mail/quoting";
import { answeredIds } from "#core/mail/threading";
import { isReadByRules } from "#core/standing/loop";
import { fileName } from "#core/text/file-name";
import { wellFormed } from "#core/text/well-formed";
import { digestOf } from "../digest";
import type { Doubt, Envelope } from "../db/entities/messages";
import { readInvitation } from "./invitation";
import { limits, NOBODY, type ReceivedMail } from "./mail";

const LANGUAGES = ["en", "de", "fr", "es", "pt", "it", "nl", "pl", "da", "sv", "no", "fi"];
const SHORTEST_TELLING = 30;
/** A text's language is told by its beginning. */
const TELLING = 4000;

/** What is to be read. */
export interface RawMail {
  raw: Uint8Array;
  /** The address that the envelope names as sender; null for none (RFC 5321, 4.5.5). */
  envelopeFrom: string | null;
  /** Whose Authentication-Results are believed: authserv-ids. */
  trusted: string[];
  /** Whether these bytes are only the beginning of the message. */
  cut?: boolean;
}

/**
 * Reads a raw message: charsets, encoded words, nested multiparts and odd line ends included. Words that its structure
 * hides are shown as they stand in it. Sizes are capped; time and memory are the caller's to limit.
 */
export async function readMail({ raw, envelopeFrom, trusted, cut = false }: RawMail): Promise<ReceivedMail> {
  const bytes = Buffer.from(raw);
  const mail = await simpleParser(bytes, {
    skipTextToHtml: true,
    skipImageLinks: true,
    keepDeliveryStatus: true,
    maxHtmlLengthToParse: limits.html,
  });
  const html = typeof mail.html === "string" && mail.html.trim() !== "" ? wellFormed(mail.html) : null;
  const flow = flowOf(bytes.subarray(0, HEADERS_LOOKED_AT).toString("latin1"));
  const found = bodyText(mail, html, flow);
  const isEmpty = found === "" && html === null && mail.attachments.length === 0;
  const text = isEmpty ? hiddenWords(bytes) : found;
  const { from, doubts } = senderOf(mail, envelopeFrom);
  const replyTo = usable(mail.replyTo)?.address ?? null;
  const headers = mail.headerLines
    .filter(({ key }) => key === "authentication-results")
    .map(({ line }) => line.slice(line.indexOf(":") + 1));
  const against = foundAgainst(headers, new Set(trusted.map((one) => one.toLowerCase())));
  const told = mail.headerLines.map(({ key, line }) => ({
    name: key,
    value: line.slice(line.indexOf(":") + 1),
  }));
  const failure = failureIn(mail);
  return {
    from,
    replyTo: replyTo === from.address ? null : replyTo,
    to: addresses(mail.to).slice(0, limits.addresses),
    cc: addresses(mail.cc).slice(0, limits.addresses),
    kind: kindOf(told, failure !== null),
    parts: partsOf(mail, told, text),
    failure,
    subject: capped(mail.subject?.trim() ?? "", limits.subject),
    text: capped(text, limits.text),
    html: html !== null && html.length <= limits.html ? html : null,
    envelope: envelopeOf(told, envelopeFrom),
    messageId: mail.messageId === undefined ? null : capped(mail.messageId, 998),
    answers: answeredIds(
      mail.inReplyTo?.slice(0, 20_000),
      [mail.references ?? []].flat().join(" ").slice(0, 20_000),
    ).slice(0, limits.references),
    language: languageOf(splitQuoted(text.slice(0, limits.text)).written),
    attachments: mail.attachments.slice(0, limits.attachments).map((file, index) => ({
      name: fileName(file.filename ?? `part-${index + 1}`),
      contentType: contentTypeOf(file.contentType),
      content: file.content,
      sha256: digestOf(file.content),
      contentId: file.cid === undefined ? null : capped(file.cid, 200),
    })),
    doubts: [
      ...doubts,
      ...against.map(({ method, result, about }): Doubt => ({
        kind: "authentication",
        words: `${method.toUpperCase()} ${result}${about === "" ? "" : ` (${capped(about, 200)})`}`,
      })),
    ],
    cut:
      cut ||
      text.length > limits.text ||
      (html !== null && html.length > limits.html) ||
      mail.attachments.length > limits.attachments,
  };
}

/** What a report on delivery says, with the headers of the letter that it brings; null where it is none. */
function failureIn(mail: ParsedMail): DeliveryFailure | null {
  const part = (type: RegExp) =>
    mail.attachments.find((one) => type.test(one.contentType))?.content.toString("utf8");
  const status = part(/^message\/(?:global-)?delivery-status$/i);
  if (status === undefined) return null;
  return readFailure(
    status,
    part(/^(?:text\/rfc822-headers|message\/(?:rfc822|global(?:-headers)?))$/i) ?? "",
  );
}

function partsOf(mail: ParsedMail, headers: Headers, text: string): MailPart[] {
  const calendar = mail.attachments.find((one) => /^text\/calendar$/i.test(one.contentType));
  const invitation = calendar ? readInvitation(calendar.content.toString("utf8")) : null;
  const seal = sealOf(headers, text);
  return [...(invitation ? [invitation] : []), ...(seal ? [seal] : [])];
}

/** Where headers are looked for by hand. */
const HEADERS_LOOKED_AT = 256 * 1024;

/**
 * The beginning of a message that could not be read in time: its sender and subject as far as they stand in plain
 * header lines, and its first lines as they are.
 */
export function readBeginning({ raw, envelopeFrom }: RawMail): ReceivedMail {
  const beginning = Buffer.from(raw.subarray(0, 32 * 1024)).toString("latin1");
  const header = (name: string) =>
    new RegExp(`^${name}:[ \\t]*([^\\r\\n]{0,500})`, "im").exec(beginning)?.[1]?.trim() ?? "";
  const named = /[^\s<>"(),;:]{1,64}@[^\s<>"(),;:]{1,200}/.exec(header("From"))?.[0] ?? "";
  const { from, doubts } = chooseSender(
    named === "" ? null : { name: null, address: named.toLowerCase() },
    envelopeFrom,
  );
  return {
    from,
    replyTo: null,
    to: [],
    subject: wellFormed(header("Subject")),
    text: wellFormed(hiddenWords(Buffer.from(beginning, "latin1")).slice(0, 10_000)),
    html: null,
    messageId: /<[^<>\s]{1,900}>/.exec(header("Message-ID"))?.[0] ?? null,
    answers: answeredIds(header("In-Reply-To"), header("References")),
    language: null,
    attachments: [],
    doubts,
    cut: true,
    cc: [],
    kind: "message",
    parts: [],
    failure: null,
    envelope: { returnPath: envelopeFrom ?? "", headers: {} },
  };
}

/** What rules ask for before they answer. */
function envelopeOf(headers: Headers, envelopeFrom: string | null): Envelope {
  const kept: Record<string, string[]> = {};
  for (const { name, value } of headers.filter((one) => isReadByRules(one.name)).slice(0, limits.references))
    kept[name] = [...(kept[name] ?? []), capped(value.replace(/\s+/g, " ").trim(), limits.subject)];
  return { returnPath: envelopeFrom ?? "", headers: kept };
}

function senderOf(
  mail: ParsedMail,
  envelopeFrom: string | null,
): { from: ReceivedMail["from"]; doubts: Doubt[] } {
  return chooseSender(usable(mail.from), envelopeFrom);
}

/** Who a message is from: whom its From names, else whoever the envelope names, which is told. */
function chooseSender(
  named: ReceivedMail["from"] | null,
  envelopeFrom: string | null,
): { from: ReceivedMail["from"]; doubts: Doubt[] } {
  if (named) return { from: named, doubts: [] };
  const envelope = envelopeFrom !== null && ADDRESS.test(envelopeFrom) ? envelopeFrom.toLowerCase() : null;
  const words =
    envelope === null
      ? "It names no sender at all."
      : "It names no sender; the address that it was delivered from stands for one.";
  return { from: { name: null, address: envelope ?? NOBODY }, doubts: [{ kind: "envelope", words }] };
}

function bodyText(mail: ParsedMail, html: string | null, flow: ReturnType<typeof flowOf>): string {
  // The rest is read no further; one character more tells that there is a rest.
  const lines = (mail.text ?? "").slice(0, limits.text * 2).replace(/\r\n?/g, "\n");
  const plain = wellFormed(flow ? unflowed(lines, flow.deleteSpace) : lines).trim();
  if (plain) return plain;
  if (html === null) return "";
  return convert(html.slice(0, limits.html), {
    wordwrap: false,
    limits: { maxInputLength: limits.html, maxDepth: 60, ellipsis: "…" },
    selectors: [
      { selector: "img", format: "skip" },
      { selector: "a", options: { hideLinkHrefIfSameAsText: true } },
    ],
  }).trim();
}

/** What stands below the headers as it is, for messages whose structure leads nowhere: a boundary that is missing, headers that never end. */
function hiddenWords(raw: Buffer): string {
  const lines = decoded(raw.subarray(0, limits.text * 4)).split(/\r\n|\r|\n/);
  const isHeader = (line: string) => /^(?:[!-9;-~]{1,200}:|[ \t])/.test(line);
  const end = lines.findIndex((line) => !isHeader(line));
  const body = end < 0 ? "" : lines.slice(end).join("\n").trim();
  return wellFormed(body === "" ? lines.join("\n").trim() : body);
}

/** Bytes as UTF-8 where they are that, else as what mail programs of the west took for granted. */
function decoded(bytes: Buffer): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return bytes.toString("latin1");
  }
}

function languageOf(text: string): string | null {
  if (text.length < SHORTEST_TELLING) return null;
  return detect(text.slice(0, TELLING), { only: LANGUAGES }) || null;
}

const ADDRESS = /^[^\s@<>"(),;:\\[\]\u0000-\u001f]{1,64}@[^\s@<>"(),;:\\[\]\u0000-\u001f]{1,250}$/;

function addresses(field: AddressObject | AddressObject[] | undefined): string[] {
  return [field ?? []]
    .flat()
    .flatMap((one) => one.value)
    .flatMap(withMembers)
    .flatMap(({ address }) => (address && ADDRESS.test(address) ? [address.toLowerCase()] : []));
}

/** The members of a group of addresses (RFC 5322, 3.4) for the group. */
function withMembers(entry: EmailAddress): EmailAddress[] {
  return entry.group ?? [entry];
}

/** The first address of a field that can be answered. */
function usable(field: AddressObject | undefined): { name: string | null; address: string } | null {
  const entry = field?.value.flatMap(withMembers).find((one) => one.address && ADDRESS.test(one.address));
  if (!entry?.address) return null;
  return {
    name: capped(entry.name.replace(/\s+/g, " ").trim(), limits.name) || null,
    address: entry.address.toLowerCase(),
  };
}

function contentTypeOf(type: string): string {
  return /^[\w!#$&^.+-]{1,100}\/[\w!#$&^.+-]{1,100}$/.test(type)
    ? type.toLowerCase()
    : "application/octet-stream";
}

function capped(text: string, length: number): string {
  return wellFormed(text.slice(0, length));
}
