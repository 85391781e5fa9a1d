import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { generate } from "selfsigned";
import type { Environment } from "../environment";

const TEN_YEARS_MS = 10 * 365 * 24 * 60 * 60_000;

/** A certificate and its key, as PEM. */
export interface Certificate {
  cert: string;
  key: string;
}

/**
 * The certificate by which received mail is encrypted: the one that the settings name, else one made once and kept
 * in the data folder. Senders encrypt with whatever certificate there is (RFC 7435).
 * @throws Error when a file of the settings cannot be read
 */
export async function receivingCertificate(
  environment: Pick<Environment, "dataDir" | "inboundTls">,
): Promise<Certificate> {
  const { dataDir, inboundTls } = environment;
  if (inboundTls)
    return { cert: readFileSync(inboundTls.cert, "utf8"), key: readFileSync(inboundTls.key, "utf8") };
  const folder = join(dataDir, "tls");
  const [certFile, keyFile] = [join(folder, "receiving.crt"), join(folder, "receiving.key")];
  if (!existsSync(certFile) || !existsSync(keyFile)) {
    const made = await generate([{ name: "commonName", value: "plain-shelf" }], {
      keySize: 2048,
      notAfterDate: new Date(Date.now() + TEN_YEARS_MS),
    });
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    writeFileSync(certFile, made.cert, { mode: 0o600 });
    writeFileSync(keyFile, made.private, { mode: 0o600 });
  }
  return { cert: readFileSync(certFile, "utf8"), key: readFileSync(keyFile, "utf8") };
}
