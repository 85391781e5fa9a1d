import type { EntityManager } from "@mikro-orm/postgresql";
import { createTransport, type Transporter } from "nodemailer";
import { z } from "zod";
import { CaseEvent, Message } from "../db/entities/cases";
import { environment } from "../environment";
import { notify } from "../events/notify";
import { storeFile } from "../files/store";
import { log } from "../log";
import { buildMime } from "./mime";

/** What nodemailer tells of a server that refused. */
const smtpError = z.object({
  responseCode: z.number().optional(),
  response: z.string().optional(),
  message: z.string(),
  code: z.string().optional(),
});

let transport: Transporter | null = null;

function mailServer(): Transporter {
  transport ??= createTransport({
    url: environment().smtpUrl,
    connectionTimeout: 10_000,
    greetingTimeout: 10_000,
    socketTimeout: 30_000,
  });
  return transport;
}

export type Delivery = "sent" | "nothing to do" | "refused" | "try later";

/**
 * Delivers one message over SMTP. Safe to call again at any time: a message that was sent, refused or
 * called back is left alone, and one that may already have gone out goes again under the same Message-ID.
 * A refusal (5xx) is final and kept with the server's words; anything else is worth another try.
 * @param lastTry when true, a failure that another try might have mended is kept as a refusal too
 */
export async function deliver(
  em: EntityManager,
  messageId: number,
  lastTry: boolean,
  now: () => Date,
): Promise<Delivery> {
  const claimed = await em.nativeUpdate(
    Message,
    { id: messageId, state: { $in: ["due", "sending"] }, dueAt: { $lte: now() } },
    { state: "sending" },
  );
  if (claimed === 0) return "nothing to do";
  const message = await em.findOneOrFail(Message, { id: messageId }, { populate: ["case"], refresh: true });
  const number = message.case.number;
  message.attempts += 1;
  let raw: Buffer;
  try {
    raw = await buildMime(em, message);
    await mailServer().sendMail({ envelope: { from: message.fromAddress, to: [message.toAddress] }, raw });
  } catch (error) {
    const { responseCode, response, message: words } = smtpError.parse(error);
    const final = lastTry || (responseCode !== undefined && responseCode >= 500);
    message.state = final ? "refused" : "due";
    message.refusal = response ?? words;
    if (final)
      em.create(CaseEvent, {
        case: message.case,
        person: null,
        kind: "refused",
        data: { message: message.id, words: message.refusal },
        at: now(),
      });
    await em.flush();
    await notify(em, { case: number, kind: "message" });
    log.warn({ event: "delivery failed", message: message.id, final, code: responseCode ?? null });
    return final ? "refused" : "try later";
  }
  await em.transactional(async (inner) => {
    message.raw = await storeFile(inner, raw);
    message.state = "sent";
    message.sentAt = now();
    message.refusal = null;
    inner.create(CaseEvent, {
      case: message.case,
      person: null,
      kind: "sent",
      data: { message: message.id },
      at: now(),
    });
    await inner.flush();
    await notify(inner, { case: number, kind: "message" });
  });
  log.info({ event: "delivered", message: message.id, attempts: message.attempts });
  return "sent";
}

/** Lets go of the connection to the mail server. */
export function closeMailServer(): void {
  transport?.close();
  transport = null;
}
