import { Router } from "express";
import { timingSafeEqual } from "node:crypto";
import { z } from "zod";
import { E164 } from "#core/sms/e164";
import { reasonOf } from "#core/text/reason";
import type { FaultBoard } from "./faults";
import type { PhoneMessage, Phones } from "./phones";
import { startTimers } from "./timers";

/** The program, as a gateway meets it. */
export interface Program {
  url: string;
  token: string;
}

export interface SmsOptions {
  phones: Phones;
  program: Program;
  faults: FaultBoard;
}

const number = z.string().regex(E164, "is no number");
const outgoing = z.strictObject({
  id: z.string().min(1).max(200),
  from: number,
  to: number,
  text: z.string().min(1).max(5000),
});
const written = z.strictObject({ to: number, text: z.string().min(1).max(4000) });

/** How long it takes until a phone says that a message is on it, in milliseconds. */
const SOON_MS = 300;
const LATE_MS = 15_000;

/**
 * The simulated gateway for short messages, as docs/sms.md describes one: takes messages, says later what became of them,
 * hands in what phones write. A receipt that the program did not take is brought again.
 * @returns the interface, and how to let go of what is still to be said
 */
export function smsGateway({ phones, program, faults }: SmsOptions): { router: Router; stop: () => void } {
  const router = Router();
  const { later, stop } = startTimers();
  const tell = async (path: string, body: object): Promise<Response> =>
    fetch(`${program.url}${path}`, {
      method: "POST",
      headers: { "Content-Type": "application/json", Authorization: `Bearer ${program.token}` },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(5000),
    });
  const receipt = (message: PhoneMessage, tries: number): void => {
    const { sms } = faults.for(message.phone);
    later(sms === "late" ? LATE_MS : SOON_MS, async () => {
      const state = sms === "fails" ? "failed" : "delivered";
      if (message.state !== state) await phones.keep({ ...message, state });
      const problem = state === "failed" ? { problem: "The phone is not reachable" } : {};
      const told = await tell("/sms/receipts", { id: message.theirs, state, ...problem }).catch(() => null);
      if (!told?.ok && tries > 0) receipt({ ...message, state }, tries - 1);
    });
  };

  router.post("/sms/messages", async (request, response) => {
    const given = /^Bearer (\S+)$/.exec(request.get("authorization") ?? "")?.[1] ?? "";
    if (!isSame(given, program.token)) return void response.status(401).json({ problem: "Wrong token" });
    const message = outgoing.safeParse(request.body);
    if (!message.success) {
      const [issue] = message.error.issues;
      return void response.status(400).json({ problem: `${issue?.path.join(".")} ${issue?.message}` });
    }
    const { id, from, to, text } = message.data;
    const { sms } = faults.for(to);
    if (sms === "down") return void response.status(503).json({ problem: "The gateway is down for a while" });
    if (sms === "refuses")
      return void response.status(422).json({ problem: `${to} takes no messages from ${from}` });
    const known = phones.byTheirs(id);
    if (!known) {
      const at = new Date().toISOString();
      const kept = {
        phone: to,
        other: from,
        written: false,
        text,
        at,
        theirs: id,
        state: "under way" as const,
      };
      receipt(await phones.keep(kept), 20);
    }
    response.status(202).json({ id });
  });
  router.get("/phones", (_request, response) => {
    response.json(phones.numbers());
  });
  router.get("/phones/:number", (request, response) => {
    response.json(phones.list(request.params.number));
  });
  router.post("/phones/:number/messages", async (request, response) => {
    const phone = number.safeParse(request.params.number);
    const message = written.safeParse(request.body);
    if (!phone.success || !message.success)
      return void response.status(400).json({ problem: "Not a number, or nothing said" });
    const { to, text } = message.data;
    const at = new Date().toISOString();
    const id = `phone-${Date.now()}-${Math.random().toString(36).slice(2, 10)}`;
    try {
      const told = await tell("/sms/messages", { id, from: phone.data, to, text });
      if (!told.ok) {
        const problem = z.object({ problem: z.string() }).safeParse(await told.json().catch(() => null));
        return void response
          .status(502)
          .json({ problem: problem.success ? problem.data.problem : `Answered ${told.status}` });
      }
    } catch (error) {
      return void response.status(502).json({ problem: reasonOf(error) });
    }
    await phones.keep({
      phone: phone.data,
      other: to,
      written: true,
      text,
      at,
      theirs: null,
      state: "delivered",
    });
    response.json({ ok: true });
  });
  return { router, stop };
}

function isSame(one: string, other: string): boolean {
  const [a, b] = [Buffer.from(one), Buffer.from(other)];
  return a.length === b.length && timingSafeEqual(a, b);
}
