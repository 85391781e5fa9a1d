import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { E164 } from "#core/sms/e164";
import { shownNumber } from "#core/sms/number";
import { wellFormed } from "#core/text/well-formed";
import { Case, CaseEvent } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { PhoneNumber, Team } from "../db/entities/people";
import { query } from "../db/sql";
import { NotFound } from "../errors";
import { notifyCase } from "../events/notify";
import {
  arrived,
  customerOf,
  failedLater,
  goesOn,
  openCase,
  openCasesOf,
  type Accepted,
} from "../receiving/arrival";
import { beginningOf } from "../receiving/beginning";
import { askRules } from "../standing/on-arrival";
import { t } from "../words";

/** Longest text of a short message that is taken: some two dozen parts. */
const MOST_TEXT = 4000;

const number = z.string().regex(E164, "is no number as in +447400123456 (ITU-T E.164)");

/** A short message as a gateway hands it in (docs/sms.md). */
export const inboundSchema = z.object({
  /** The gateway's; the same one twice is one message. */
  id: z.string().min(1).max(200),
  from: number,
  to: number,
  text: z.string().min(1).max(MOST_TEXT),
});

/** What a gateway says became of a message that it took (docs/sms.md). */
export const receiptSchema = z.object({
  /** The message's id, as we gave it. */
  id: z.string().min(1).max(200),
  state: z.enum(["delivered", "failed"]),
  problem: z.string().max(1000).optional(),
});

/**
 * Takes a short message in: it joins its sender's open case by short message with the team whose number it came to,
 * else it opens one. One that was taken in before, by its id, is left alone.
 * @throws NotFound where the number that it came to is none of ours
 */
export async function acceptShortMessage(
  em: EntityManager,
  { id, from, to, text }: z.infer<typeof inboundSchema>,
  now: Date,
): Promise<Accepted> {
  return em.transactional(async (inner) => {
    await query(inner, "select pg_advisory_xact_lock(hashtext(?))", [`sms:${from}`]);
    const ours = await inner.findOne(PhoneNumber, { number: to }, { populate: ["team"] });
    if (!ours) throw new NotFound(t("numberIsNoneOfOurs", { number: to }));
    const messageId = `sms:${id}`;
    const known = await inner.findOne(
      Message,
      { messageId, direction: "in", channel: "sms", fromAddress: from },
      { populate: ["case"] },
    );
    if (known)
      return { caseId: known.case.id, caseNumber: known.case.number, messageId: known.id, opened: false };
    const team = await inner.findOneOrFail(Team, { id: ours.team.id });
    const newcomer = { displayName: shownNumber(from), phone: from, language: null };
    const customer = await customerOf(inner, { channel: "sms", address: from }, newcomer);
    const open = await openCasesOf(inner, customer, "sms", now);
    const ofTeam = open.find((one) => one.team.id === team.id);
    const [settled] = ofTeam
      ? []
      : await inner.find(
          Case,
          { customer, channel: "sms", team, status: "settled", joinedTo: null },
          { orderBy: { id: "desc" }, limit: 1 },
        );
    const { found, follows } = await goesOn(inner, ofTeam ?? settled ?? null, now);
    const words = wellFormed(text);
    const subject =
      found ??
      (await openCase(inner, {
        channel: "sms",
        subject: beginningOf(words),
        language: customer.language ?? null,
        customer,
        team,
        now,
      }));
    if (follows) subject.follows = follows;
    const message = inner.create(Message, {
      case: subject,
      direction: "in",
      channel: "sms",
      state: "received",
      fromName: null,
      fromAddress: from,
      toAddress: to,
      subject: "",
      text: words,
      html: null,
      language: null,
      messageId,
      person: null,
      at: now,
    });
    await arrived(inner, { subject, opened: !found, words, isDue: true }, now);
    await askRules(inner, message, now);
    return { caseId: subject.id, caseNumber: subject.number, messageId: message.id, opened: !found };
  });
}

/**
 * Keeps what a gateway says became of a message: it is on the phone, or it will not be, and then its case waits for us
 * again. What was heard before, and what is about no message of ours, changes nothing.
 * @returns whether it is about a message of ours
 */
export async function acceptReceipt(
  em: EntityManager,
  { id, state, problem }: z.infer<typeof receiptSchema>,
  now: Date,
): Promise<boolean> {
  return em.transactional(async (inner) => {
    const message = await inner.findOne(
      Message,
      { messageId: id, direction: "out", channel: "sms" },
      { populate: ["case"], lockMode: 4 },
    );
    if (!message) return false;
    if (message.deliveredAt != null || message.state === "refused") return true;
    const subject = message.case;
    if (state === "delivered") {
      message.deliveredAt = now;
      const data = { message: message.id };
      inner.create(CaseEvent, { case: subject, person: null, kind: "arrived", data, at: now });
    } else await failedLater(inner, message, problem ?? t("theGatewayCouldNotDeliverIt"), now);
    await inner.flush();
    await notifyCase(inner, subject.number, "message");
    return true;
  });
}
