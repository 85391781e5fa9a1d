import { join } from "node:path";
import type { Server } from "node:http";
import { FaultBoard } from "./faults";
import { httpInterface } from "./http";
import { Mailboxes } from "./mailbox";
import { Phones } from "./phones";
import { smsGateway, type Program } from "./sms";
import { mailServer } from "./smtp";

export interface StandinsOptions {
  httpPort: number;
  smtpPort: number;
  programSmtpPort: number;
  /** The program, as the gateway for short messages knows it. */
  program: Program;
  /** Where mail and bookings are kept. */
  folder: string;
}

/** Starts the simulated outside. @returns how to stop it */
export async function startStandins({
  httpPort,
  smtpPort,
  programSmtpPort,
  program,
  folder,
}: StandinsOptions): Promise<() => Promise<void>> {
  const mailboxes = new Mailboxes(join(folder, "mail"));
  await mailboxes.open();
  const phones = new Phones(join(folder, "phones"));
  await phones.open();
  const faults = new FaultBoard();
  const sms = smsGateway({ phones, program, faults });
  const { server: smtp, stop: stopMail } = mailServer({ mailboxes, faults, programSmtpPort });
  smtp.on("error", (error: Error) => process.stderr.write(`outside: ${error.message}\n`));
  await new Promise<void>((resolve) => {
    smtp.listen(smtpPort, "127.0.0.1", resolve);
  });
  const app = httpInterface({
    mailboxes,
    sms: sms.router,
    programSmtpPort,
    bookingsFile: join(folder, "bookings.json"),
    faults,
  });
  const http = await new Promise<Server>((resolve, reject) => {
    const server = app.listen(httpPort, "127.0.0.1", (error?: Error) =>
      error ? reject(error) : resolve(server),
    );
  }).catch((error: unknown) => {
    // Nothing is left half started.
    smtp.close();
    throw error;
  });
  return async () => {
    sms.stop();
    stopMail();
    await Promise.all([
      new Promise<void>((resolve) => {
        smtp.close(() => resolve());
      }),
      new Promise<void>((resolve) => {
        http.close(() => resolve());
        http.closeAllConnections();
      }),
    ]);
  };
}
