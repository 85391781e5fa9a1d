// A thread that reads what strangers wrote. It must be told how to read TypeScript.
import { move, transferableSymbol, valueSymbol } from "piscina";
import { register } from "tsx/esm/api";

register();
const { readMail } = await import("./parse.ts");
const { sanitiseMessage } = await import("./sanitise.ts");

/** Files that have memory of their own are handed over; small ones share theirs, and are copied. */
export async function mail(given) {
  const read = await readMail(given);
  const whole = read.attachments
    .map(({ content }) => content)
    .filter(({ buffer, byteLength }) => buffer instanceof ArrayBuffer && buffer.byteLength === byteLength)
    .map(({ buffer }) => buffer);
  const transferred = [...new Set(whole)];
  return move({
    get [transferableSymbol]() {
      return transferred;
    },
    get [valueSymbol]() {
      return read;
    },
  });
}

export const html = ({ html: source, pictures, remote }) => sanitiseMessage(source, pictures, remote);
