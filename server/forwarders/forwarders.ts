import type { EntityManager } from "@mikro-orm/postgresql";
import type { ForwarderInput } from "#core/forms/forwarder";
import type { ForwardedDetails } from "#core/mail/forwarded";
import { Forwarder, Mailbox } from "../db/entities/mailboxes";
import { exactly, query } from "../db/sql";
import { NotFound, Unusable } from "../errors";
import { contentOf } from "../files/store";
import { readReceived } from "../receiving/read";
import { settingsOf } from "../house/settings";
import { requireRole, type Viewer } from "../people/viewer";
import { readBy } from "./read";
import { t } from "../words";

/** Whoever forwards to us, as the setup lists them. */
export interface ForwarderRow extends ForwarderInput {
  id: number;
  isOn: boolean;
  /** Cases that came by them. */
  cases: number;
}

/** A past mail, read by the form. */
export interface TriedMail {
  message: number;
  case: number;
  subject: string;
  /** ISO 8601 instant. */
  at: string;
  read: ForwardedDetails | null;
  /** Why it does not fit; null where it does. */
  problem: string | null;
}

/** So many past mails are tried. */
const MOST_TRIED = 20;

/** Forwarders, and the mailboxes that they may forward to. @throws NotAllowed unless lead */
export async function listForwarders(
  em: EntityManager,
  viewer: Viewer,
): Promise<{ forwarders: ForwarderRow[]; mailboxes: { id: number; address: string }[] }> {
  requireRole(viewer, "lead");
  const forwarders = await em.find(Forwarder, {}, { orderBy: { name: "asc", id: "asc" } });
  const counts = await query<{ id: number; cases: number }>(
    em,
    "select forwarder_id as id, count(*)::int as cases from cases where forwarder_id is not null group by forwarder_id",
  );
  const mailboxes = await em.find(Mailbox, {}, { orderBy: { address: "asc" } });
  return {
    forwarders: forwarders.map(({ id, name, mailbox, sender, example, marks, rules, isOn }) => ({
      ...{ id, name, sender, example, marks, rules, isOn, mailbox: mailbox.id },
      cases: counts.find((one) => one.id === id)?.cases ?? 0,
    })),
    mailboxes: mailboxes.map(({ id, address }) => ({ id, address })),
  };
}

/**
 * Makes a forwarder, or changes one; either way it is off until it was tried and is switched on.
 * @param id null for a new one
 * @throws NotAllowed unless lead; NotFound; Unusable where its example cannot be read by its own marks
 */
export async function saveForwarder(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
  { mailbox: mailboxId, ...input }: ForwarderInput,
  now: Date,
): Promise<number> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    const mailbox = await inner.findOne(Mailbox, { id: mailboxId });
    if (!mailbox) throw new Unusable(t("chooseOneOfTheList"), "mailbox");
    const read = readBy(input, input.example, await settingsOf(inner), now);
    if (!read.ok) throw new Unusable(read.problem, "example");
    if (id === null) {
      const forwarder = inner.create(Forwarder, { ...input, mailbox, isOn: false });
      await inner.flush();
      return forwarder.id;
    }
    const known = await findForwarder(inner, id);
    Object.assign(known, { ...input, mailbox, isOn: false });
    return id;
  });
}

/** The latest mail of a sender, as an example to mark up. @throws NotAllowed unless lead; NotFound where there is none */
export async function exampleOf(
  em: EntityManager,
  viewer: Viewer,
  sender: string,
): Promise<{ text: string }> {
  requireRole(viewer, "lead");
  const [latest] = await query<{ text: string; raw: number | null }>(
    em,
    `select text, raw_id as raw from messages
      where direction = 'in' and channel = 'email' and kind = 'message' and lower(from_address) like ? order by at desc, id desc limit 1`,
    [senderPattern(sender.trim().toLowerCase())],
  );
  if (!latest) throw new NotFound(t("noMailOfThisSenderIsHere"));
  return { text: await wholeText(em, latest) };
}

/** All that a mail says: of what was read by a form before, the message keeps the buyer’s words alone. */
async function wholeText(
  em: EntityManager,
  { text, raw }: { text: string; raw: number | null },
): Promise<string> {
  if (raw === null) return text;
  const mail = await readReceived({ raw: await contentOf(em, raw), envelopeFrom: null, trusted: [] });
  return mail.text;
}

function senderPattern(sender: string): string {
  return sender.startsWith("@") ? `%${exactly(sender)}` : exactly(sender);
}

/** Past mail of its sender, the latest first, as it would be read. @throws NotAllowed unless lead; NotFound */
export async function tryForwarder(
  em: EntityManager,
  viewer: Viewer,
  id: number,
  now: Date,
): Promise<TriedMail[]> {
  requireRole(viewer, "lead");
  const forwarder = await findForwarder(em, id);
  const settings = await settingsOf(em);
  const rows = await query<Omit<TriedMail, "read" | "problem"> & { text: string; raw: number | null }>(
    em,
    `select m.id as message, c.number as "case", m.subject, m.at, m.text, m.raw_id as raw from messages m join cases c on c.id = m.case_id
      where m.direction = 'in' and m.channel = 'email' and m.kind = 'message' and lower(m.from_address) like ?
        and coalesce(c.mailbox_id, (select b.id from mailboxes b join teams t on t.mailbox = b.address where t.id = c.team_id)) = ?
      order by m.at desc, m.id desc limit ${MOST_TRIED}`,
    [senderPattern(forwarder.sender), forwarder.mailbox.id],
  );
  const tried: TriedMail[] = [];
  for (const { text, raw, at, ...row } of rows) {
    const read = readBy(forwarder, await wholeText(em, { text, raw }), settings, now);
    tried.push({
      ...row,
      at: new Date(at).toISOString(),
      read: read.ok ? read.details : null,
      problem: read.ok ? null : read.problem,
    });
  }
  return tried;
}

/**
 * Switches a forwarder on or off. It is tried first: where past mail of its sender does not fit, that must be wanted.
 * @throws NotAllowed unless lead; NotFound; Unusable where some does not fit
 */
export async function switchForwarder(
  em: EntityManager,
  viewer: Viewer,
  id: number,
  { on, allTheSame }: { on: boolean; allTheSame: boolean },
  now: Date,
): Promise<void> {
  requireRole(viewer, "lead");
  if (on && !allTheSame) {
    const tried = await tryForwarder(em, viewer, id, now);
    const count = tried.filter((one) => one.problem !== null).length;
    if (count > 0) throw new Unusable(t("someOfItsMessagesDoNotFit", { count }));
  }
  const forwarder = await findForwarder(em, id);
  forwarder.isOn = on;
  await em.flush();
}

/** Takes a forwarder away: its cases stay, and wait as others do. @throws NotAllowed unless lead; NotFound */
export async function removeForwarder(em: EntityManager, viewer: Viewer, id: number): Promise<void> {
  requireRole(viewer, "lead");
  if ((await em.nativeDelete(Forwarder, { id })) === 0) throw new NotFound(t("thereIsNoSuchForwarder"));
}

async function findForwarder(em: EntityManager, id: number): Promise<Forwarder> {
  const forwarder = await em.findOne(Forwarder, { id });
  if (!forwarder) throw new NotFound(t("thereIsNoSuchForwarder"));
  return forwarder;
}
