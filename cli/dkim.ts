import { generateKeyPairSync } from "node:crypto";
import { writeFileSync } from "node:fs";
import { Failure } from "./failure";

export interface DkimOptions {
  /** The domain that letters come from. */
  domain: string;
  /** What the key is called there. */
  selector: string;
  /** The file that the private key is written to. */
  out: string;
}

/**
 * Makes a key by which letters are signed (RFC 6376; RSA of 2048 bits, RFC 8301), and says what to publish.
 * @returns the TXT record of DNS, and the settings that use the key
 * @throws Failure where a name is none, or the file is there already
 */
export function dkim({ domain, selector, out }: DkimOptions): object {
  if (!/^([a-z0-9]([a-z0-9-]*[a-z0-9])?\.)+[a-z]{2,}$/i.test(domain))
    throw new Failure(`“${domain}” is no domain, as in example.com`);
  if (!/^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/i.test(selector))
    throw new Failure(`“${selector}” is no selector: letters, digits and hyphens, as in shelf2026`);
  const { publicKey, privateKey } = generateKeyPairSync("rsa", {
    modulusLength: 2048,
    publicKeyEncoding: { type: "spki", format: "der" },
    privateKeyEncoding: { type: "pkcs8", format: "pem" },
  });
  try {
    writeFileSync(out, privateKey, { mode: 0o600, flag: "wx" });
  } catch (error) {
    const isThere = typeof error === "object" && error !== null && "code" in error && error.code === "EEXIST";
    throw new Failure(isThere ? `${out} is there already; choose another file` : `${out} cannot be written`);
  }
  const value = `v=DKIM1; k=rsa; p=${publicKey.toString("base64")}`;
  return {
    record: { name: `${selector}._domainkey.${domain}`, type: "TXT", value, parts: value.match(/.{1,255}/g) },
    settings: { DKIM_DOMAIN: domain, DKIM_SELECTOR: selector, DKIM_KEY: out },
  };
}
