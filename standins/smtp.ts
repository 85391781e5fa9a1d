import { SMTPServer } from "smtp-server";
import { faultsFor, type Faults } from "./faults";
import type { Mailboxes } from "./mailbox";

class Refusal extends Error {
  readonly responseCode: number;

  constructor(code: number, message: string) {
    super(message);
    this.responseCode = code;
  }
}

/** A mail server that takes mail for anybody and keeps it, unless a fault is switched on. */
export function mailServer(mailboxes: Mailboxes, faults: () => Faults): SMTPServer {
  return new SMTPServer({
    banner: "Outside",
    disabledCommands: ["AUTH", "STARTTLS"],
    logger: false,
    onRcptTo(address, _session, callback) {
      const { mail } = faultsFor(faults(), address.address);
      if (mail === "busy") callback(new Refusal(451, "The mailbox is busy, please try again later"));
      else if (mail === "refuses") callback(new Refusal(550, `No such mailbox: ${address.address}`));
      else callback();
    },
    onData(stream, session, callback) {
      const chunks: Buffer[] = [];
      stream.on("data", (chunk: Buffer) => chunks.push(chunk));
      stream.once("error", callback);
      stream.once("end", () => {
        const to = session.envelope.rcptTo.map((one) => one.address);
        mailboxes.keep(Buffer.concat(chunks), to, new Date()).then(
          (mail) => callback(null, `Kept as ${mail.id}`),
          (error: unknown) => callback(new Refusal(451, error instanceof Error ? error.message : "Not kept")),
        );
      });
    },
  });
}
