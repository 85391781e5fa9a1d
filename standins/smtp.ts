import { createTransport } from "nodemailer";
import { SMTPServer } from "smtp-server";
import { bounceOf } from "./bounce";
import type { FaultBoard } from "./faults";
import type { Mailboxes } from "./mailbox";
import { startTimers } from "./timers";

class Refusal extends Error {
  readonly responseCode: number;

  constructor(code: number, message: string) {
    super(message);
    this.responseCode = code;
  }
}

/** How long a slow server thinks, and a letter lies before it is given up. */
const SLOW_MS = 6000;
const BOUNCE_MS = 2000;

interface SmtpOptions {
  mailboxes: Mailboxes;
  faults: FaultBoard;
  /** Port on which the program receives mail: reports go there. */
  programSmtpPort: number;
}

/** A mail server that takes mail for anybody and keeps it, unless a fault is switched on. @returns with how to call off what is still to happen */
export function mailServer({ mailboxes, faults, programSmtpPort }: SmtpOptions): {
  server: SMTPServer;
  stop: () => void;
} {
  const { later, stop } = startTimers();
  const server = new SMTPServer({
    banner: "Outside",
    disabledCommands: ["AUTH", "STARTTLS"],
    logger: false,
    onConnect(_session, callback) {
      callback(faults.read().mail === "down" ? new Refusal(421, "The mail server is out of order") : null);
    },
    onRcptTo({ address }, _session, callback) {
      const { mail } = faults.for(address);
      if (mail === "busy") callback(new Refusal(451, "The mailbox is busy, please try again later"));
      else if (mail === "refuses") callback(new Refusal(550, `No such mailbox: ${address}`));
      else if (mail === "down") callback(new Refusal(421, "The mail server is out of order"));
      else if (mail === "slow") later(SLOW_MS, () => callback());
      else callback();
    },
    onData(stream, session, callback) {
      const chunks: Buffer[] = [];
      stream.on("data", (chunk: Buffer) => chunks.push(chunk));
      stream.once("error", callback);
      stream.once("end", () => {
        const raw = Buffer.concat(chunks);
        const all = session.envelope.rcptTo.map((one) => one.address);
        const gone = all.filter((address) => faults.for(address).mail === "bounces");
        const from = session.envelope.mailFrom === false ? "" : session.envelope.mailFrom.address;
        for (const recipient of gone)
          later(BOUNCE_MS, () => giveUp({ raw, from, recipient }, programSmtpPort));
        const to = all.filter((address) => !gone.includes(address));
        if (to.length === 0) return callback(null, "Taken");
        mailboxes.keep(raw, to, new Date()).then(
          (mail) => callback(null, `Kept as ${mail.id}`),
          (error: unknown) => callback(new Refusal(451, error instanceof Error ? error.message : "Not kept")),
        );
      });
    },
  });
  return { server, stop };
}

/** Reports to a letter's envelope sender that it was given up; a report itself is reported to nobody (RFC 5321, 6.1). */
async function giveUp(letter: Parameters<typeof bounceOf>[0], port: number): Promise<void> {
  if (letter.from === "") return;
  const transport = createTransport({ host: "127.0.0.1", port, ignoreTLS: true, connectionTimeout: 5000 });
  try {
    await transport.sendMail({ envelope: { from: "", to: letter.from }, raw: bounceOf(letter) });
  } finally {
    transport.close();
  }
}
