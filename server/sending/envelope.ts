import { environment } from "../environment";
import { isSame, proofOf } from "../proof";

/** Digits of the proof that a mark is ours: 48 bits, which nobody guesses by mail. */
const PROOF = 12;

function markOf(id: number): string {
  return `${id}-${proofOf(`letter ${id}`, "hex").slice(0, PROOF)}`;
}

/**
 * The envelope’s sender of a letter: where reports of failure go. Where an address for them is set, it has a mark of the
 * letter (as sub-addresses have, RFC 5233), so that a report tells which it is about whatever it brings along.
 */
export function envelopeSender(message: { id: number; fromAddress: string }): string {
  const { envelopeFrom } = environment();
  if (envelopeFrom === null) return message.fromAddress;
  const [local = "", domain = ""] = envelopeFrom.split("@");
  return `${local}+${markOf(message.id)}@${domain}`;
}

/** Whether mail to an address comes back from our letters. */
export function isForReports(address: string): boolean {
  const { envelopeFrom } = environment();
  if (envelopeFrom === null) return false;
  const [local = "", domain = ""] = address.toLowerCase().split("@");
  return `${local.split("+")[0] ?? ""}@${domain}` === envelopeFrom;
}

/** The letter that a report is about, by the address that it went to; null where that says none of ours. */
export function letterOfReport(address: string): number | null {
  if (!isForReports(address)) return null;
  const [, mark = "", id = ""] = /\+((\d{1,10})-[0-9a-f]+)@/.exec(address.toLowerCase()) ?? [];
  return id !== "" && isSame(mark, markOf(Number(id))) ? Number(id) : null;
}
