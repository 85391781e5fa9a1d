import { readFileSync } from "node:fs";
import { allCopies, noCopies } from "#core/mail/copies";
import { raw, type EntityManager } from "@mikro-orm/postgresql";
import { createTransport, type Transporter } from "nodemailer";
import { z } from "zod";
import { CaseEvent } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { environment } from "../environment";
import { notify } from "../events/notify";
import { storeFile } from "../files/store";
import { log } from "../log";
import { query } from "../db/sql";
import { GatewayRefusal, handOver } from "../sms/gateway";
import { queue } from "../queue/boss";
import { envelopeSender } from "./envelope";
import { buildMime } from "./mime";

/** What nodemailer tells of a server that refused. */
const smtpError = z.object({
  responseCode: z.number().optional(),
  response: z.string().optional(),
  message: z.string(),
  code: z.string().optional(),
});

let transport: Transporter | null = null;

/** The mail server that letters are handed to. */
export function mailServer(): Transporter {
  transport ??= createTransport({
    url: environment().smtpUrl,
    requireTLS: environment().smtpTlsRequired,
    ...signing(),
    connectionTimeout: 10_000,
    greetingTimeout: 10_000,
    socketTimeout: 30_000,
  });
  return transport;
}

/** By what letters are signed, where the house has a key (RFC 6376). */
function signing(): { dkim?: { domainName: string; keySelector: string; privateKey: string } } {
  const { dkim } = environment();
  if (dkim === null) return {};
  const privateKey = readFileSync(dkim.keyFile, "utf8");
  return { dkim: { domainName: dkim.domain, keySelector: dkim.selector, privateKey } };
}

export type Delivery = "sent" | "nothing to do" | "under way" | "refused" | "try later" | "put off";

const MINUTE_MS = 60_000;

/** How long a letter waits so that no more leave within a minute than may, in milliseconds; 0 for not at all. */
async function untilNext(em: EntityManager, messageId: number, now: Date): Promise<number> {
  const { smtpPerMinute } = environment();
  if (smtpPerMinute === null) return 0;
  const since = new Date(now.getTime() - MINUTE_MS);
  const [row] = await query<{ first: string | null }>(
    em,
    `select sent_at as first from messages where direction = 'out' and channel = 'email' and sent_at > ?
        and (select channel from messages where id = ?) = 'email'
      order by sent_at desc offset ? limit 1`,
    [since, messageId, smtpPerMinute - 1],
  );
  return row?.first == null ? 0 : Math.max(0, new Date(row.first).getTime() + MINUTE_MS - now.getTime());
}

/** The class of advisory locks by which letters are claimed; the other half of the lock is the message's id. */
export const CLAIM = 7422;

/**
 * Delivers one message over SMTP. Safe to call again at any time: a message that was sent, refused or
 * called back is left alone, and so is one that another process is just delivering. It is claimed right before it goes,
 * by a lock that ends with the process that holds it: whoever is killed in the middle leaves one letter that may
 * already have gone out, and that one goes again under the same Message-ID.
 * A refusal (5xx) is final and kept with the server's words; anything else is worth another try.
 * @param lastTry when true, a failure that another try might have mended is kept as a refusal too
 */
export async function deliver(
  em: EntityManager,
  messageId: number,
  lastTry: boolean,
  now: () => Date,
): Promise<Delivery> {
  return em.transactional(async (holding) => {
    const [lock] = await query<{ held: boolean }>(holding, "select pg_try_advisory_xact_lock(?, ?) as held", [
      CLAIM,
      messageId,
    ]);
    if (!lock?.held) return "under way";
    const wait = await untilNext(holding, messageId, now());
    if (wait > 0) {
      await queue(holding, "send", { message: messageId }, new Date(now().getTime() + wait));
      return "put off";
    }
    // Told at once, whatever becomes of this transaction: from now on it cannot be called back.
    const claimed = await em
      .fork()
      .nativeUpdate(
        Message,
        { id: messageId, state: { $in: ["due", "sending"] }, dueAt: { $lte: now() } },
        { state: "sending", attempts: raw("attempts + 1") },
      );
    if (claimed === 0) return "nothing to do";
    return attempt(holding, messageId, lastTry, now);
  });
}

async function attempt(
  em: EntityManager,
  messageId: number,
  lastTry: boolean,
  now: () => Date,
): Promise<Delivery> {
  const message = await em.findOneOrFail(Message, { id: messageId }, { populate: ["case"], refresh: true });
  const number = message.case.number;
  const event = (kind: "sent" | "refused", data: object) =>
    em.create(CaseEvent, {
      case: message.case,
      person: null,
      kind,
      data: { message: message.id, ...data },
      at: now(),
    });
  let raw: Buffer | null;
  try {
    raw = await handOn(em, message);
  } catch (error) {
    const { responseCode, response, message: words } = smtpError.parse(error);
    const refused = error instanceof GatewayRefusal ? error.final : (responseCode ?? 0) >= 500;
    const final = lastTry || refused;
    message.state = final ? "refused" : "due";
    message.refusal = response ?? words;
    if (final) event("refused", { words: message.refusal });
    await em.flush();
    await notify(em, { case: number, kind: "message" });
    log.warn({ event: "delivery failed", message: message.id, final, code: responseCode ?? null });
    return final ? "refused" : "try later";
  }
  if (raw !== null) message.raw = await storeFile(em, raw);
  message.state = "sent";
  message.sentAt = now();
  message.refusal = null;
  event("sent", {});
  await em.flush();
  await notify(em, { case: number, kind: "message" });
  log.info({ event: "delivered", message: message.id, attempts: message.attempts });
  return "sent";
}

/** Hands a message to what carries its channel. @returns what went over the wire, where that is kept */
async function handOn(em: EntityManager, message: Message): Promise<Buffer | null> {
  switch (message.channel) {
    case "email": {
      const raw = await buildMime(em, message);
      const to = [...new Set([message.toAddress, ...allCopies(message.copies ?? noCopies)])];
      await mailServer().sendMail({ envelope: { from: envelopeSender(message), to }, raw });
      return raw;
    }
    case "sms":
      await handOver({
        id: message.messageId ?? `sms-${message.id}`,
        from: message.fromAddress,
        to: message.toAddress,
        text: message.text,
      });
      return null;
    case "chat":
      // The customer's window reads it where it is kept.
      return null;
  }
}

/** Lets go of the connection to the mail server. */
export function closeMailServer(): void {
  transport?.close();
  transport = null;
}
