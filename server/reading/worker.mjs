// A thread that reads what strangers wrote. It must be told how to read TypeScript.
import { register } from "tsx/esm/api";

register();
const { readMail } = await import("../receiving/parse.ts");
const { sanitiseMessage } = await import("../cases/sanitise.ts");

export const mail = readMail;
export const html = ({ html: source, pictures, remote }) => sanitiseMessage(source, pictures, remote);
