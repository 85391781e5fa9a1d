import * as z from "zod/mini";
import type { Detail } from "../tokens/context";
import { moneySchema } from "../tokens/context";
import { t } from "../words/standing";

const text = z.string().check(z.maxLength(1_000_000));
const detail = z.union([z.string(), z.number(), z.boolean(), z.null(), moneySchema, z.array(z.string())]);
const details = z.record(z.string().check(z.maxLength(80)), detail);

/** A message that came in, as rules read it: what its envelope and its headers say, and what is known beside it. */
export const incomingSchema = z.object({
  id: z.union([z.string(), z.number()]),
  /** ISO 8601 with its offset. */
  at: z.iso.datetime({ offset: true, ...t.error("anInstantWithItsOffset") }),
  channel: z.string().check(z.minLength(1), z.maxLength(40)),
  /** The address of ours that it came to; left out for none in particular. */
  mailbox: z.optional(z.nullable(z.string())),
  /** As a header has it: an address, or a name with its address in angle brackets. */
  from: text,
  to: z.union([text, z.array(text)]),
  /** The envelope’s sender: empty, or `<>`, where nobody is to answer; left out where it is not known. */
  return_path: z.optional(z.nullable(text)),
  subject: z._default(z.optional(text), ""),
  body: z._default(z.optional(text), ""),
  /** Names in any case. */
  headers: z._default(z.optional(z.record(z.string(), z.union([text, z.array(text)]))), {}),
  /** What is known of its case and its customer, or what tells the case from others. */
  case: z.optional(z.nullable(z.union([details, z.string(), z.number()]))),
  customer: z.optional(z.nullable(z.union([details, z.string(), z.number()]))),
  organisation: z.optional(z.nullable(details)),
  booking: z.optional(z.nullable(details)),
  /** What is known of the message itself, beside what stands above: `message.language` and the like. */
  message: z.optional(z.nullable(details)),
  /** Its sender is set aside as junk. */
  junk: z.optional(z.boolean()),
});
export type Incoming = z.infer<typeof incomingSchema>;

/** The address of a header, in lower case: what stands in angle brackets (RFC 5322, 3.4), else all of it. */
export function addressIn(text: string): string {
  const bracketed = /<([^<>]*)>\s*$/.exec(text.trim());
  return (bracketed?.[1] ?? text).trim().toLowerCase();
}

/** The values of a header, whatever the case of its name. */
export function headerOf({ headers }: Incoming, name: string): string[] {
  return Object.entries(headers).flatMap(([key, value]) => (key.toLowerCase() === name ? value : []));
}

/** Details of a group; where only a number or a name is given, as what tells it from others. */
export function detailsIn(given: Incoming["case"]): Readonly<Record<string, Detail>> {
  if (given === undefined || given === null) return {};
  return typeof given === "object" ? given : { number: String(given) };
}

/**
 * What tells a thread from others: its case, else the first message of it that headers name (RFC 5322, 3.6.4).
 * @returns null for what begins one
 */
export function threadOf(message: Incoming): string | null {
  const { number, id } = detailsIn(message.case);
  const known = number ?? id;
  if (typeof known === "string" || typeof known === "number") return `case ${known}`;
  const named = [...headerOf(message, "references"), ...headerOf(message, "in-reply-to")].join(" ");
  return /<[^<>\s]+>/.exec(named)?.[0] ?? null;
}
