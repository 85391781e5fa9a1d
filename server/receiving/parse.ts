import { convert } from "html-to-text";
import { simpleParser, type AddressObject, type ParsedMail } from "mailparser";
import { detect } from "tinyld";
import { answeredIds } from "#core/mail/threading";
import { flowOf, unflowed } from "#core/mail/flowed";
import { splitQuoted } from "#core/mail/quoting";

/** A message as it was received, in the parts that we keep. */
export interface ReceivedMail {
  from: { name: string | null; address: string };
  to: string[];
  subject: string;
  text: string;
  html: string | null;
  messageId: string | null;
  /** Message-IDs that it answers, the nearest first. */
  answers: string[];
  /** Language of what was written, where it can be told. */
  language: string | null;
  attachments: { name: string; contentType: string; content: Buffer; contentId: string | null }[];
}

const LANGUAGES = ["en", "de", "fr", "es", "pt", "it", "nl", "pl", "da", "sv", "no", "fi"];
const SHORTEST_TELLING = 30;

/**
 * Reads a raw message: charsets, encoded words, nested multiparts and odd line ends included.
 * @returns null when it names no sender that could be answered
 */
export async function parseMail(raw: Buffer): Promise<ReceivedMail | null> {
  const mail = await simpleParser(raw, {
    skipTextToHtml: true,
    skipImageLinks: true,
    maxHtmlLengthToParse: 2 * 1024 * 1024,
  });
  const from = firstAddress(mail.replyTo) ?? firstAddress(mail.from);
  if (!from) return null;
  const html = typeof mail.html === "string" && mail.html.trim() !== "" ? mail.html : null;
  const text = bodyText(mail, html, flowOf(raw.toString("latin1")));
  return {
    from,
    to: addresses(mail.to).concat(addresses(mail.cc)),
    subject: mail.subject?.trim() ?? "",
    text,
    html,
    messageId: mail.messageId ?? null,
    answers: answeredIds(mail.inReplyTo, [mail.references ?? []].flat().join(" ")),
    language: languageOf(splitQuoted(text).written),
    attachments: mail.attachments.map((file, index) => ({
      name: file.filename ?? `part-${index + 1}`,
      contentType: file.contentType,
      content: file.content,
      contentId: file.cid ?? null,
    })),
  };
}

function bodyText(mail: ParsedMail, html: string | null, flow: ReturnType<typeof flowOf>): string {
  const lines = mail.text?.replace(/\r\n?/g, "\n") ?? "";
  const plain = (flow ? unflowed(lines, flow.deleteSpace) : lines).trim();
  if (plain) return plain;
  if (html === null) return "";
  return convert(html, {
    wordwrap: false,
    selectors: [
      { selector: "img", format: "skip" },
      { selector: "a", options: { hideLinkHrefIfSameAsText: true } },
    ],
  }).trim();
}

function languageOf(text: string): string | null {
  if (text.length < SHORTEST_TELLING) return null;
  return detect(text, { only: LANGUAGES }) || null;
}

function addresses(field: AddressObject | AddressObject[] | undefined): string[] {
  return [field ?? []]
    .flat()
    .flatMap((one) => one.value.flatMap((entry) => (entry.address ? [entry.address.toLowerCase()] : [])));
}

function firstAddress(field: AddressObject | undefined): { name: string | null; address: string } | null {
  const entry = field?.value.find((one) => one.address);
  return entry?.address ? { name: entry.name.trim() || null, address: entry.address.toLowerCase() } : null;
}
