import { SMTPServer, type SMTPServerDataStream } from "smtp-server";
import { entityManager } from "../db/orm";
import { Team } from "../db/entities/people";
import { log } from "../log";
import { acceptMail } from "./accept";
import { parseMail } from "./parse";

/** Largest message that is taken, in bytes (30 MB: 20 MB of files, encoded). */
const MAX_MESSAGE_BYTES = 30 * 1024 * 1024;

class SmtpRefusal extends Error {
  readonly responseCode: number;

  constructor(code: number, message: string) {
    super(message);
    this.responseCode = code;
  }
}

/**
 * Receives mail on a port (RFC 5321). Only addresses of the house's teams are taken (550 else); a message
 * that is too large or cannot be read is refused (552, 554); when the database is away the sender is asked
 * to keep the message (451).
 */
export async function listenForMail(port: number, host: string): Promise<SMTPServer> {
  const server = new SMTPServer({
    banner: "Plain Shelf receives here",
    disabledCommands: ["AUTH", "STARTTLS"],
    size: MAX_MESSAGE_BYTES,
    logger: false,
    onRcptTo(address, _session, callback) {
      isOurs(address.address).then(
        (ours) => callback(ours ? null : new SmtpRefusal(550, `No mailbox ${address.address} here`)),
        (error: unknown) => callback(away(error)),
      );
    },
    onData(stream, session, callback) {
      const recipients = session.envelope.rcptTo.map((one) => one.address);
      take(stream, recipients).then(
        (note) => callback(null, note),
        (error: unknown) => callback(error instanceof SmtpRefusal ? error : away(error)),
      );
    },
  });
  server.on("error", (error: Error) => log.warn({ event: "receiving error", error: error.message }));
  await new Promise<void>((resolve, reject) => {
    server.server.once("error", reject);
    server.listen(port, host, () => {
      server.server.off("error", reject);
      resolve();
    });
  });
  return server;
}

async function isOurs(address: string): Promise<boolean> {
  const em = await entityManager();
  return (await em.count(Team, { mailbox: address.toLowerCase() })) > 0;
}

function away(error: unknown): SmtpRefusal {
  log.error({ event: "receiving failed", error: error instanceof Error ? error.message : String(error) });
  return new SmtpRefusal(451, "Not possible just now; please keep the message and try again");
}

async function take(stream: SMTPServerDataStream, recipients: string[]): Promise<string> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    size += chunk.byteLength;
    // The rest is read and dropped, so that the sender hears the answer.
    if (size <= MAX_MESSAGE_BYTES) chunks.push(chunk);
  }
  if (size > MAX_MESSAGE_BYTES || stream.sizeExceeded) {
    throw new SmtpRefusal(552, `The message is larger than ${MAX_MESSAGE_BYTES / 1024 / 1024} MB`);
  }
  const raw = Buffer.concat(chunks);
  const mail = await parseMail(raw).catch((error: unknown) => {
    throw new SmtpRefusal(
      554,
      `The message cannot be read: ${error instanceof Error ? error.message : String(error)}`,
    );
  });
  if (!mail) throw new SmtpRefusal(554, "The message names no sender who could be answered");
  const accepted = await acceptMail(await entityManager(), mail, raw, recipients, new Date());
  log.info({
    event: "received",
    case: accepted.caseNumber,
    message: accepted.messageId,
    opened: accepted.opened,
  });
  return "Taken in";
}
