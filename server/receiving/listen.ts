import { createHash } from "node:crypto";
import { SMTPServer, type SMTPServerDataStream, type SMTPServerSession } from "smtp-server";
import { entityManager } from "../db/orm";
import { Mailbox } from "../db/entities/mailboxes";
import { isForReports } from "../sending/envelope";
import { log } from "../log";
import { acceptMail } from "./accept";
import { readReceived } from "./read";
import type { Certificate } from "./tls";
import { loggable } from "../told";

/** Largest message that is taken, in bytes (30 MB: 20 MB of files, encoded). */
const MAX_MESSAGE_BYTES = 30 * 1024 * 1024;
/** Connections at once: in all, and from one address. */
const MOST_CONNECTIONS = 60;
const MOST_BY_ADDRESS = 12;
/** A connection that says nothing for so long is closed. */
const IDLE_MS = 60_000;
/** Recipients of one message. */
const MOST_RECIPIENTS = 100;

class SmtpRefusal extends Error {
  readonly responseCode: number;

  constructor(code: number, message: string) {
    super(message);
    this.responseCode = code;
  }
}

/** How mail is received. */
export interface Receiving {
  port: number;
  host: string;
  /** For STARTTLS (RFC 3207); null where it is not offered. */
  certificate: Certificate | null;
  /** Receivers whose Authentication-Results are believed, by their authserv-id. */
  trusted: string[];
}

/**
 * Receives mail on a port (RFC 5321). Only addresses of the house's teams are taken (550 else); a message that is too
 * large is refused (552). Whatever else comes is received, however little of it can be read: 451, which asks the sender
 * to keep the message, is only for what can come right, as a database that is away.
 */
export async function listenForMail(receiving: Receiving): Promise<SMTPServer> {
  const { port, host, certificate } = receiving;
  const connections = new Map<string, number>();
  const server = new SMTPServer({
    banner: "Plain Shelf receives here",
    disabledCommands: certificate ? ["AUTH"] : ["AUTH", "STARTTLS"],
    ...(certificate ?? {}),
    size: MAX_MESSAGE_BYTES,
    maxClients: MOST_CONNECTIONS,
    socketTimeout: IDLE_MS,
    closeTimeout: 2000,
    logger: false,
    onConnect({ remoteAddress }, callback) {
      const open = (connections.get(remoteAddress) ?? 0) + 1;
      connections.set(remoteAddress, open);
      callback(
        open > MOST_BY_ADDRESS ? new SmtpRefusal(421, "Too many connections from your address") : null,
      );
    },
    onClose({ remoteAddress }) {
      const open = (connections.get(remoteAddress) ?? 1) - 1;
      if (open > 0) connections.set(remoteAddress, open);
      else connections.delete(remoteAddress);
    },
    onRcptTo(address, session, callback) {
      if (session.envelope.rcptTo.length >= MOST_RECIPIENTS)
        return callback(new SmtpRefusal(452, "Too many recipients; send the others another message"));
      isOurs(address.address).then(
        (ours) => callback(ours ? null : new SmtpRefusal(550, `No mailbox ${address.address} here`)),
        (error: unknown) => callback(away(error)),
      );
    },
    onData(stream, session, callback) {
      take(stream, session, receiving.trusted).then(
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

/** What came in pieces, in memory that a reading thread can look into: nothing large is copied for it. */
function shared(chunks: Buffer[], size: number): Buffer {
  const whole = Buffer.from(new SharedArrayBuffer(size));
  let at = 0;
  for (const chunk of chunks) {
    whole.set(chunk, at);
    at += chunk.byteLength;
  }
  return whole;
}

async function isOurs(address: string): Promise<boolean> {
  // No mailbox has such an address, and no database takes it.
  if (address.includes("\u0000")) return false;
  if (isForReports(address)) return true;
  const em = await entityManager();
  return (await em.count(Mailbox, { address: address.toLowerCase() })) > 0;
}

function away(error: unknown): SmtpRefusal {
  log.error({ event: "receiving failed", error: loggable(error) });
  return new SmtpRefusal(451, "Not possible just now; please keep the message and try again");
}

async function take(
  stream: SMTPServerDataStream,
  session: SMTPServerSession,
  trusted: string[],
): Promise<string> {
  const chunks: Buffer[] = [];
  const hash = createHash("sha256");
  let size = 0;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    size += chunk.byteLength;
    hash.update(chunk);
    // The rest is read and dropped, so that the sender hears the answer.
    if (size <= MAX_MESSAGE_BYTES) chunks.push(chunk);
    else chunks.length = 0;
  }
  if (size > MAX_MESSAGE_BYTES || stream.sizeExceeded) {
    throw new SmtpRefusal(552, `The message is larger than ${MAX_MESSAGE_BYTES / 1024 / 1024} MB`);
  }
  const raw = shared(chunks, size);
  const { mailFrom, rcptTo } = session.envelope;
  const envelopeFrom = mailFrom === false || mailFrom.address === "" ? null : mailFrom.address;
  const mail = await readReceived({ raw, envelopeFrom, trusted });
  const recipients = rcptTo.map((one) => one.address);
  const file = { content: raw, sha256: hash.digest("hex") };
  const accepted = await acceptMail(await entityManager(), mail, file, recipients, new Date());
  log.info({
    event: "received",
    case: accepted.caseNumber,
    message: accepted.messageId,
    opened: accepted.opened,
  });
  return "Taken in";
}
