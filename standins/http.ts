import { reasonOf } from "#core/text/reason";
import express, { type Express, type NextFunction, type Request, type Response, type Router } from "express";
import { readFile } from "node:fs/promises";
import { setTimeout as delay } from "node:timers/promises";
import { createTransport } from "nodemailer";
import { z } from "zod";
import { faultsSchema, type FaultBoard } from "./faults";
import type { Mailboxes } from "./mailbox";

/** A message that a customer writes to us. */
const letterIn = z.strictObject({
  fromName: z.string().max(200).default(""),
  to: z.email().max(320),
  subject: z.string().max(500),
  text: z.string().min(1).max(100_000),
  inReplyTo: z.string().max(500).nullable().default(null),
  references: z.string().max(5000).nullable().default(null),
});

export interface HttpOptions {
  mailboxes: Mailboxes;
  /** The gateway for short messages, and the phones. */
  sms: Router;
  /** Port on which the program receives mail. */
  programSmtpPort: number;
  /** File with the bookings: an object by reference. */
  bookingsFile: string;
  faults: FaultBoard;
}

const bookings = z.record(z.string(), z.record(z.string(), z.unknown()));

/** The HTTP interface of the simulated outside: mailboxes, writing in, bookings, faults. */
export function httpInterface({
  mailboxes,
  sms,
  programSmtpPort,
  bookingsFile,
  faults,
}: HttpOptions): Express {
  const app = express();
  app.disable("x-powered-by");
  app.use(express.json({ limit: "1mb" }));
  app.use(sms);

  app.get("/mailboxes", (_request, response) => {
    response.json(mailboxes.addresses());
  });
  app.get("/mailboxes/:address", (request, response) => {
    response.json(mailboxes.list(request.params.address));
  });
  app.get("/messages/:id", async (request, response) => {
    const mail = await mailboxes.read(request.params.id);
    if (mail) response.json(mail);
    else response.status(404).json({ problem: "There is no such message" });
  });
  app.get("/messages/:id/raw", async (request, response) => {
    if (!mailboxes.has(request.params.id))
      return void response.status(404).json({ problem: "There is no such message" });
    response.type("text/plain; charset=utf-8").send(await mailboxes.raw(request.params.id));
  });
  app.get("/messages/:id/attachments/:index", async (request, response) => {
    const file = await mailboxes.attachment(request.params.id, Number(request.params.index));
    if (!file) return void response.status(404).json({ problem: "There is no such attachment" });
    response.attachment(file.name).type(file.contentType).send(file.content);
  });

  app.post("/mailboxes/:address/messages", async (request, response) => {
    const address = z.email().safeParse(request.params.address);
    const letter = letterIn.safeParse(request.body);
    if (!address.success || !letter.success) {
      return void response
        .status(400)
        .json({ problem: letter.error?.issues[0]?.message ?? "Not an address" });
    }
    const { fromName, inReplyTo, references, ...message } = letter.data;
    const transport = createTransport({
      host: "127.0.0.1",
      port: programSmtpPort,
      ignoreTLS: true,
      connectionTimeout: 5000,
    });
    try {
      const sent = await transport.sendMail({
        ...message,
        from: { name: fromName, address: address.data },
        ...(inReplyTo ? { inReplyTo } : {}),
        ...(references ? { references } : {}),
      });
      response.json({ messageId: sent.messageId, answer: sent.response });
    } catch (error) {
      response.status(502).json({ problem: reasonOf(error) });
    } finally {
      transport.close();
    }
  });

  app.get("/bookings/:reference", async (request, response) => {
    const { bookingDelay, bookings: state } = faults.for(request.params.reference);
    await delay(bookingDelay);
    if (state === "broken")
      return void response.status(500).json({ problem: "The booking system is out of order" });
    // What another system may answer in its place: a page, a list, numbers where words were.
    if (state === "wrong") return void response.json({ reference: 12, sails_at: ["soon"], fare: "much" });
    const all = bookings.parse(JSON.parse(await readFile(bookingsFile, "utf8").catch(() => "{}")));
    const booking = Object.hasOwn(all, request.params.reference) ? all[request.params.reference] : undefined;
    if (booking) response.json(booking);
    else response.status(404).json({ problem: "There is no such booking" });
  });

  app.get("/faults", (_request, response) => {
    response.json(faults.read());
  });
  app.put("/faults", (request, response) => {
    const parsed = faultsSchema.safeParse(request.body);
    if (!parsed.success)
      return void response.status(400).json({ problem: parsed.error.issues[0]?.message ?? "Not usable" });
    faults.write(parsed.data);
    response.json(parsed.data);
  });
  app.get("/healthz", (_request, response) => {
    response.json({ ok: true });
  });
  app.use((error: unknown, _request: Request, response: Response, _next: NextFunction) => {
    response.status(500).json({ problem: reasonOf(error) });
  });
  return app;
}
