import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { CustomerAddress } from "../db/entities/customers";
import { settingsOf } from "../house/settings";
import { ask, askFor } from "./ask";

/** A phone of the simulated outside, asked over HTTP as any other system would be. */

const messageSchema = z.object({
  id: z.string(),
  /** Our number. */
  other: z.string(),
  /** Whether the phone's owner wrote it. */
  written: z.boolean(),
  text: z.string(),
  at: z.string(),
});
type PhoneMessage = z.infer<typeof messageSchema>;

const numberSchema = z.object({ number: z.string(), messages: z.number(), latest: z.string() });
export type PhoneInUse = z.infer<typeof numberSchema>;

/** A phone as Outside shows it. */
export interface Phone {
  /** ITU-T E.164. */
  number: string;
  /** Oldest first. */
  messages: PhoneMessage[];
}

/** Phones that have messages, the latest first. */
export async function phonesInUse(): Promise<PhoneInUse[]> {
  return askFor(z.array(numberSchema), "/phones");
}

/** What a phone shows. */
export async function phone(number: string): Promise<Phone> {
  return { number, messages: await askFor(z.array(messageSchema), `/phones/${encodeURIComponent(number)}`) };
}

/** Our numbers that a phone can write to, with their teams' names. */
export async function numbersToWriteTo(em: EntityManager): Promise<{ number: string; team: string }[]> {
  const { numbers, teams } = await settingsOf(em);
  return numbers.map(({ number, team }) => ({ number, team: teams.get(team)?.text ?? "" }));
}

/** The number of the customer whose address of mail it is; null for none. */
export async function numberOf(em: EntityManager, address: string): Promise<string | null> {
  const known = await em.findOne(CustomerAddress, { channel: "email", address: address.toLowerCase() });
  if (!known) return null;
  const phones = await em.find(
    CustomerAddress,
    { channel: "sms", customer: known.customer },
    { orderBy: { id: "asc" }, limit: 1 },
  );
  return phones[0]?.address ?? null;
}

/** Writes to us from a phone, through the gateway. @throws Unusable with the gateway's words when it is not taken */
export async function textIn(number: string, to: string, text: string): Promise<void> {
  await ask(`/phones/${encodeURIComponent(number)}/messages`, {
    method: "POST",
    body: JSON.stringify({ to, text }),
  });
}
