import type { EntityManager, Loaded } from "@mikro-orm/postgresql";
import { personNames } from "#core/checks/names";
import { failureWords, type DeliveryFailure } from "#core/mail/failure";
import { isAlone, noCopies, type Copies } from "#core/mail/copies";
import { bareSubject, caseNumberIn } from "#core/mail/subject";
import { Attachment } from "../db/entities/answering";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import type { Customer } from "../db/entities/customers";
import { Mailbox } from "../db/entities/mailboxes";
import { Team } from "../db/entities/people";
import { caseOfBuyer, dueBy, knownBuyer, newBuyer, readForwardedMail } from "../forwarders/receive";
import { letterOfReport } from "../sending/envelope";
import { storeDigested, type Digested } from "../files/store";
import { findHouse } from "../house/house";
import type { ReceivedMail } from "../reading/mail";
import { query } from "../db/sql";
import { t } from "../words";
import {
  arrived,
  createCustomer,
  goesOn,
  failedLater,
  firstTeam,
  knownCustomer,
  openCase,
  openCasesOf,
  type Accepted,
} from "./arrival";
import { asideAsJunk, isJunkSender } from "../cases/states";
import { askRules } from "../standing/on-arrival";

/**
 * Takes a received message in, whole or not at all: it joins the case that it answers, else the one whose
 * number it names, else its sender's open case of the same subject; else it opens one. A message that joins a case
 * says nothing of its sender: whose address is not known to be the customer's stays a stranger there.
 * A message that was taken in before (same Message-ID, sender and content) is recognised and left alone.
 */
export async function acceptMail(
  em: EntityManager,
  mail: ReceivedMail,
  raw: Digested | null,
  recipients: string[],
  now: Date,
): Promise<Accepted> {
  return em.transactional(async (inner) => {
    // Two messages of a new sender may arrive at once: the second waits here, and finds the first's customer.
    await query(inner, "select pg_advisory_xact_lock(hashtext(?))", [`email:${mail.from.address}`]);
    const known = await takenBefore(inner, mail);
    if (known)
      return { caseId: known.case.id, caseNumber: known.case.number, messageId: known.id, opened: false };
    const mailbox = await mailboxOfMail(inner, mail, recipients);
    const forwarded = mail.kind === "message" ? await readForwardedMail(inner, mail, mailbox, now) : null;
    const carried = forwarded?.carried ?? null;
    const customer = carried
      ? await knownBuyer(inner, mail, carried)
      : await knownCustomer(inner, { channel: "email", address: mail.from.address });
    const house = await findHouse(inner);
    const letter = await failedLetter(inner, mail, recipients);
    const named = carried
      ? await caseOfBuyer(inner, mail, carried)
      : await caseOfMail(inner, mail, customer, house.casePrefix, now);
    const { found, follows } = letter
      ? { found: letter.case, follows: null }
      : await goesOn(inner, named, now);
    const subject =
      found ??
      (await createCase(
        inner,
        mail,
        customer ?? (carried ? await newBuyer(inner, mail, carried.details) : await newCustomer(inner, mail)),
        mailbox,
        now,
      ));
    if (follows) subject.follows = follows;
    if (carried) Object.assign(subject, { forwarder: carried.forwarder, forwarded: carried.details });
    const doubts = forwarded?.doubt ? [...mail.doubts, forwarded.doubt] : mail.doubts;
    const message = inner.create(Message, {
      case: subject,
      direction: "in",
      channel: "email",
      state: "received",
      fromName: carried?.details.name ?? mail.from.name,
      fromAddress: mail.from.address,
      toAddress: mail.to[0] ?? recipients[0] ?? "",
      replyTo: mail.replyTo,
      doubts: doubts.length > 0 ? doubts : null,
      envelope: mail.envelope,
      cut: mail.cut,
      subject: mail.subject,
      text: carried?.details.text ?? mail.text,
      html: mail.html,
      language: mail.language,
      messageId: mail.messageId,
      references: [...mail.answers].reverse(),
      kind: mail.kind,
      parts: mail.parts.length > 0 ? mail.parts : null,
      copies: copiesOf(mail),
      raw: raw === null ? null : await storeDigested(inner, raw),
      at: now,
    });
    for (const [position, file] of mail.attachments.entries()) {
      const stored = await storeDigested(inner, { content: bytesOf(file.content), sha256: file.sha256 });
      inner.create(Attachment, {
        message,
        file: stored,
        name: file.name,
        contentType: file.contentType,
        contentId: file.contentId,
        position,
      });
    }
    if (mail.failure && letter) await noteFailure(inner, letter, mail.failure, now);
    const words = `${mail.subject}\n${mail.text}`;
    const isJunk =
      !carried &&
      (!found || found.asideAs === "junk or fraud") &&
      (await isJunkSender(inner, mail.from.address));
    if (isJunk) asideAsJunk(inner, subject, now);
    await arrived(inner, { subject, opened: !found, words, isDue: mail.kind === "message" && !isJunk }, now);
    if (carried) await dueBy(inner, subject, carried.details);
    else await askRules(inner, message, now);
    return { caseId: subject.id, caseNumber: subject.number, messageId: message.id, opened: !found };
  });
}

/** The letter of ours that a report is about; null where it is about none that we know. */
async function failedLetter(
  em: EntityManager,
  { failure }: ReceivedMail,
  recipients: string[],
): Promise<Loaded<Message, "case"> | null> {
  if (failure === null) return null;
  const marked = recipients.map(letterOfReport).find((id) => id !== null);
  if (marked != null) return em.findOne(Message, { id: marked, direction: "out" }, { populate: ["case"] });
  if (failure.messageId === null) return null;
  return em.findOne(
    Message,
    { messageId: failure.messageId, direction: "out" },
    { populate: ["case"], orderBy: { id: "desc" } },
  );
}

/** Notes on a letter what a report says of it: given up, it is refused, and its case waits for us again; else it is still tried. */
async function noteFailure(
  em: EntityManager,
  letter: Message,
  failure: DeliveryFailure,
  now: Date,
): Promise<void> {
  const words = failureWords(failure);
  const isMain = failure.recipient === null || failure.recipient === letter.toAddress.toLowerCase();
  const said = words === "" ? t("theOtherServerSaysNoMore") : words;
  if (failure.action === "failed" && isMain) await failedLater(em, letter, said, now);
  else letter.refusal = said;
}

/** Whom it went to besides; null for nobody. */
function copiesOf({ to, cc }: ReceivedMail): Copies | null {
  const copies = { ...noCopies, to: to.slice(1), cc };
  return isAlone(copies) ? null : copies;
}

/** Bytes that came from a thread, as they are: not copied. */
function bytesOf(bytes: Uint8Array): Buffer {
  return Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}

/** The message itself, where it was taken in already: the same content of the same sender under the same Message-ID. */
async function takenBefore(em: EntityManager, mail: ReceivedMail): Promise<Loaded<Message, "case"> | null> {
  if (mail.messageId === null) return null;
  const { messageId, from, subject, text, html } = mail;
  const alike = { messageId, direction: "in" as const, fromAddress: from.address, subject, text, html };
  const candidates = await em.find(Message, alike, { populate: ["case"] });
  const digests = mail.attachments.map((file) => file.sha256);
  for (const one of candidates) {
    const files = await em.find(
      Attachment,
      { message: one },
      { populate: ["file"], orderBy: { position: "asc" } },
    );
    if (files.map(({ file }) => file.sha256).join() === digests.join()) return one;
  }
  return null;
}

async function newCustomer(em: EntityManager, mail: ReceivedMail): Promise<Customer> {
  const address = mail.from.address;
  const { name } = mail.from;
  return createCustomer(
    em,
    { ...personNames(name), displayName: name ?? address, language: mail.language },
    { channel: "email", address },
  );
}

async function caseOfMail(
  em: EntityManager,
  mail: ReceivedMail,
  customer: Customer | null,
  prefix: string,
  now: Date,
): Promise<Case | null> {
  if (mail.answers.length > 0) {
    const answered = await em.find(
      Message,
      { messageId: { $in: mail.answers } },
      // Ours first: anybody may have written another message under its id.
      { populate: ["case"], orderBy: { direction: "desc", id: "asc" } },
    );
    for (const id of mail.answers) {
      const message = answered.find((one) => one.messageId === id);
      if (message) return message.case;
    }
  }
  if (customer === null) return null;
  const number = caseNumberIn(mail.subject, prefix);
  // A number alone can be guessed: it counts only for a case of the sender's own, or of their organisation.
  const named =
    number === null ? null : await em.findOne(Case, { number }, { populate: ["customer", "joinedTo"] });
  if (named && isTheirs(named, customer)) return named.joinedTo ?? named;
  const open = await openCasesOf(em, customer, "email", now);
  const about = bareSubject(mail.subject).toLowerCase();
  // What has a subject of its own is a matter of its own; what has none goes on with the latest.
  if (about === "") return open[0] ?? null;
  return open.find((one) => bareSubject(one.subject).toLowerCase() === about) ?? null;
}

function isTheirs(subject: Case, customer: Customer): boolean {
  const { organisation } = subject.customer;
  return (
    subject.customer.id === customer.id ||
    (organisation !== null && organisation?.id === customer.organisation?.id)
  );
}

/** The mailbox that a mail came to: where it was brought to goes before what its headers say. */
async function mailboxOfMail(
  em: EntityManager,
  mail: ReceivedMail,
  recipients: string[],
): Promise<Mailbox | null> {
  const addressed = [...recipients, ...mail.to].map((address) => address.toLowerCase());
  const ours = await em.find(Mailbox, { address: { $in: addressed } });
  const found = addressed.map((address) => ours.find((one) => one.address === address));
  return found.find((one) => one !== undefined) ?? null;
}

async function createCase(
  em: EntityManager,
  mail: ReceivedMail,
  customer: Customer,
  mailbox: Mailbox | null,
  now: Date,
): Promise<Case> {
  const team = mailbox ? await em.findOneOrFail(Team, { id: mailbox.team.id }) : await firstTeam(em);
  const subject = await openCase(em, {
    channel: "email",
    subject: mail.subject,
    language: customer.language ?? mail.language,
    customer,
    team,
    now,
  });
  subject.mailbox = mailbox;
  return subject;
}
