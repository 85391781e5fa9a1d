import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { moneySchema, type Detail } from "#core/tokens/context";
import { Case, CaseLookup } from "../db/entities/cases";
import { environment } from "../environment";
import { notify } from "../events/notify";

const SOURCE = "bookings";
const TIMEOUT_MS = 4000;

/** What the booking system may answer; what it adds beyond this is not read. */
const bookingSchema = z.object({
  reference: z.string().max(40),
  status: z.string().max(80),
  cause: z.string().max(200).nullable(),
  lead_name: z.string().max(300),
  sails_at: z.iso.datetime({ offset: true }),
  arrives_at: z.iso.datetime({ offset: true }),
  check_in_at: z.iso.datetime({ offset: true }),
  from: z.string().max(80),
  to: z.string().max(80),
  ship: z.string().max(80),
  fare: moneySchema,
  passengers: z.number().int(),
  vehicle: z.string().max(80).nullable(),
  vehicle_height: z.number().nullable(),
  animals: z.number().int().nullable(),
  new_sails_at: z.iso.datetime({ offset: true }).nullable(),
  new_arrives_at: z.iso.datetime({ offset: true }).nullable(),
  new_ship: z.string().max(80).nullable(),
});

/** References that may stand in a message: three and three capitals or digits, at least one of each kind. */
const REFERENCE = /\b(?=[A-Z0-9-]{0,6}\d)(?=[A-Z0-9-]{0,6}[A-Z])[A-Z0-9]{3}-[A-Z0-9]{3}\b/;

/** The first booking reference in a text; null when there is none. */
export function bookingReferenceIn(text: string): string | null {
  return REFERENCE.exec(text)?.[0] ?? null;
}

type Answer = { data: Record<string, Detail>; problem: null } | { data: null; problem: string };

/** Asks the booking system over HTTP. Never throws: what went wrong is told in words. */
async function askBookings(reference: string): Promise<Answer> {
  try {
    const response = await fetch(`${environment().standins.url}/bookings/${encodeURIComponent(reference)}`, {
      headers: { accept: "application/json" },
      signal: AbortSignal.timeout(TIMEOUT_MS),
    });
    if (response.status === 404) return { data: null, problem: `There is no booking ${reference}` };
    if (!response.ok) return { data: null, problem: `The booking system answers ${response.status}` };
    const parsed = bookingSchema.safeParse(await response.json());
    if (!parsed.success) {
      const issue = parsed.error.issues[0];
      return {
        data: null,
        problem: `The booking system’s answer cannot be read: ${issue?.path.join(".")}: ${issue?.message}`,
      };
    }
    return { data: parsed.data, problem: null };
  } catch (error) {
    const late = error instanceof Error && error.name === "TimeoutError";
    return {
      data: null,
      problem: late ? "The booking system takes too long" : "The booking system cannot be reached",
    };
  }
}

/**
 * Looks up a case's booking and keeps the answer; open screens are told.
 * A booking that was found before is kept when the system cannot be asked.
 * @returns false where asking again may help
 */
export async function lookUpBooking(em: EntityManager, caseId: number, now: Date): Promise<boolean> {
  const subject = await em.findOne(Case, { id: caseId });
  if (!subject?.bookingReference) return true;
  const answer = await askBookings(subject.bookingReference);
  const known = await em.findOne(CaseLookup, { case: caseId, source: SOURCE });
  const lookup =
    known ??
    em.create(CaseLookup, {
      case: subject,
      source: SOURCE,
      reference: subject.bookingReference,
      data: null,
      problem: null,
      fetchedAt: now,
    });
  const same = lookup.reference === subject.bookingReference;
  const gone = answer.problem?.startsWith("There is no booking") ?? false;
  lookup.data = answer.data ?? (same && !gone ? lookup.data : null);
  lookup.problem = answer.problem;
  lookup.reference = subject.bookingReference;
  lookup.fetchedAt = now;
  await em.flush();
  await notify(em, { case: subject.number, kind: "details" });
  return answer.problem === null || gone;
}
