import { createHmac } from "node:crypto";
import { z } from "zod";
import { resolve } from "node:path";
import ipaddr from "ipaddr.js";

const port = z.coerce
  .number({ error: "is not a number" })
  .int("is not a whole number")
  .min(1, "is not a port")
  .max(65535, "is not a port");

const schema = z.object({
  PORT: port.default(4310),
  HOST: z.string().min(1, "is empty").default("127.0.0.1"),
  DATABASE_URL: z.url({ protocol: /^postgres(ql)?$/, error: "is not a postgresql:// address" }),
  SMTP_URL: z.url({ protocol: /^smtps?$/, error: "is not an smtp:// or smtps:// address" }).optional(),
  INBOUND_SMTP_PORT: port.default(4325),
  STANDINS_PORT: port.default(4320),
  STANDINS: z.enum(["on", "off"], { error: "is neither on nor off" }).optional(),
  DATA_DIR: z.string().min(1, "is empty").default(".data"),
  SESSION_SECRET: z.string().min(32, "is shorter than 32 characters"),
  TRUST_PROXY: z
    .string()
    .transform(listed)
    .refine(
      (list) => list.every(isNetwork),
      "names what is neither an address nor a network, as in 10.0.0.7 or 10.0.0.0/8",
    )
    .default([]),
  DETAIL_NETWORKS: z
    .string()
    .transform(listed)
    .refine(
      (list) => list.every(isNetwork),
      "names what is neither an address nor a network, as in 10.0.0.7 or 10.0.0.0/8",
    )
    .default([]),
  MAIL_RECEIVERS: z
    .string()
    .transform(listed)
    .refine(
      (list) => list.every((name) => /^[\w.-]+$/.test(name)),
      "names what is no receiver, as in mx.example.com",
    )
    .default([]),
  INBOUND_TLS_CERT: z.string().optional(),
  INBOUND_TLS_KEY: z.string().optional(),
  SMTP_TLS: z.enum(["required", "offered"], { error: "is neither required nor offered" }).default("offered"),
  SMTP_PER_MINUTE: z.coerce
    .number({ error: "is not a number" })
    .int("is not a whole number")
    .min(1, "is less than 1")
    .max(100_000, "is more than 100000")
    .optional(),
  ENVELOPE_FROM: z.email("is not an address of mail").optional(),
  DKIM_DOMAIN: z
    .string()
    .regex(/^[a-z0-9.-]+\.[a-z]{2,}$/i, "is not a domain")
    .optional(),
  DKIM_SELECTOR: z
    .string()
    .regex(/^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/i, "is not a name as in shelf2026")
    .default("shelf"),
  DKIM_KEY: z.string().min(1, "is empty").optional(),
  PUBLIC_URL: z
    .url({ protocol: /^https?$/, error: "is no address, as in https://shelf.example.com" })
    .optional(),
  SMS_GATEWAY_URL: z
    .url({ protocol: /^https?$/, error: "is no address, as in https://sms.example.com/v1" })
    .optional(),
  SMS_GATEWAY_TOKEN: z
    .string()
    .regex(/^\S{16,500}$/, "is shorter than 16 characters, or has a space in it")
    .optional(),
  SEED: z.enum(["demo", "none"], { error: "is neither demo nor none" }).default("demo"),
});

/** The entries of a list with commas. */
function listed(text: string): string[] {
  return text
    .split(",")
    .map((one) => one.trim())
    .filter((one) => one !== "");
}

function isNetwork(text: string): boolean {
  return ipaddr.isValid(text) || ipaddr.isValidCIDR(text);
}

/** Settings of the program, from its environment. */
export interface Environment {
  port: number;
  host: string;
  databaseUrl: string;
  /** Where letters are delivered to. */
  smtpUrl: string;
  inboundSmtpPort: number;
  /** Whether the simulated outside runs, and where its HTTP interface is. */
  standins: { on: boolean; port: number; smtpPort: number; url: string };
  dataDir: string;
  sessionSecret: string;
  seed: "demo" | "none";
  /** Where people reach the program, for links in mail; null for wherever the one who asks has reached it. */
  publicUrl: string | null;
  /** Addresses and networks of proxies on other machines whose word on address and encryption counts; loopback always does. */
  trustProxy: string[];
  /** Receivers whose Authentication-Results are believed, by their authserv-id (RFC 8601, 2.5). */
  /** Networks beside the public ones that detail sources may be in. */
  detailNetworks: string[];
  mailReceivers: string[];
  /** Files of the certificate under which mail is received; null for one of our own making. */
  inboundTls: { cert: string; key: string } | null;
  /** Whether letters leave only encrypted. */
  smtpTlsRequired: boolean;
  /** Letters that leave within a minute at most; null for as many as there are. */
  smtpPerMinute: number | null;
  /** Where reports of failure go, each with a mark of its letter; null for the mailbox that a letter comes from. */
  envelopeFrom: string | null;
  /** By what letters are signed (RFC 6376): the file of the private key, in PEM; null for unsigned. */
  dkim: { domain: string; selector: string; keyFile: string } | null;
  /** Where short messages are handed over, and what signs in there and here; null where there is no gateway. */
  sms: { url: string; token: string } | null;
}

/** The stand-in mail server listens one port above its HTTP interface. */
function standinSmtpPort(standinsPort: number): number {
  return standinsPort + 1;
}

/**
 * Reads the environment.
 * @returns the settings, or one line that names the first unusable value and says what is wrong with it
 */
export function readEnvironment(
  source: Record<string, string | undefined>,
): { ok: true; environment: Environment } | { ok: false; problem: string } {
  const given = Object.fromEntries(
    Object.entries(source).filter(([, value]) => value !== undefined && value !== ""),
  );
  const parsed = schema.safeParse(given);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    const name = String(issue?.path[0] ?? "");
    const missing = given[name] === undefined;
    return {
      ok: false,
      problem: missing
        ? `${name} is not set`
        : `${name}=${name === "SESSION_SECRET" ? "…" : given[name]} ${issue?.message ?? "is not usable"}`,
    };
  }
  const env = parsed.data;
  const on = (env.STANDINS ?? (env.SMTP_URL ? "off" : "on")) === "on";
  if (!on && !env.SMTP_URL)
    return { ok: false, problem: "STANDINS=off wants SMTP_URL: there is no mail server to send through" };
  const { INBOUND_TLS_CERT: cert, INBOUND_TLS_KEY: key } = env;
  if ((cert === undefined) !== (key === undefined))
    return {
      ok: false,
      problem: `${cert === undefined ? "INBOUND_TLS_KEY" : "INBOUND_TLS_CERT"} wants ${cert === undefined ? "INBOUND_TLS_CERT" : "INBOUND_TLS_KEY"} beside it`,
    };
  if ((env.DKIM_DOMAIN === undefined) !== (env.DKIM_KEY === undefined))
    return {
      ok: false,
      problem: env.DKIM_DOMAIN
        ? "DKIM_DOMAIN wants DKIM_KEY beside it: the file that `shelf dkim` wrote"
        : "DKIM_KEY wants DKIM_DOMAIN beside it",
    };
  if ((env.SMS_GATEWAY_URL === undefined) !== (env.SMS_GATEWAY_TOKEN === undefined) && !on)
    return {
      ok: false,
      problem: env.SMS_GATEWAY_URL
        ? "SMS_GATEWAY_URL wants SMS_GATEWAY_TOKEN beside it"
        : "SMS_GATEWAY_TOKEN wants SMS_GATEWAY_URL beside it",
    };
  const standinsUrl = `http://127.0.0.1:${env.STANDINS_PORT}`;
  const smsUrl = env.SMS_GATEWAY_URL ?? (on ? `${standinsUrl}/sms` : null);
  const smtpPort = standinSmtpPort(env.STANDINS_PORT);
  return {
    ok: true,
    environment: {
      port: env.PORT,
      host: env.HOST,
      databaseUrl: env.DATABASE_URL,
      smtpUrl: env.SMTP_URL ?? `smtp://127.0.0.1:${smtpPort}`,
      inboundSmtpPort: env.INBOUND_SMTP_PORT,
      standins: { on, port: env.STANDINS_PORT, smtpPort, url: standinsUrl },
      dataDir: resolve(env.DATA_DIR),
      sessionSecret: env.SESSION_SECRET,
      seed: env.SEED,
      publicUrl: env.PUBLIC_URL ?? null,
      trustProxy: env.TRUST_PROXY,
      detailNetworks: env.DETAIL_NETWORKS,
      mailReceivers: env.MAIL_RECEIVERS,
      inboundTls: cert !== undefined && key !== undefined ? { cert, key } : null,
      smtpTlsRequired: env.SMTP_TLS === "required",
      smtpPerMinute: env.SMTP_PER_MINUTE ?? null,
      envelopeFrom: env.ENVELOPE_FROM?.toLowerCase() ?? null,
      dkim:
        env.DKIM_DOMAIN !== undefined && env.DKIM_KEY !== undefined
          ? {
              domain: env.DKIM_DOMAIN.toLowerCase(),
              selector: env.DKIM_SELECTOR,
              keyFile: resolve(env.DKIM_KEY),
            }
          : null,
      sms:
        smsUrl === null
          ? null
          : { url: smsUrl.replace(/\/+$/, ""), token: env.SMS_GATEWAY_TOKEN ?? tokenOf(env.SESSION_SECRET) },
    },
  };
}

/** What the simulated gateway and the program know each other by, where nothing else is set. */
function tokenOf(secret: string): string {
  return createHmac("sha256", secret).update("sms gateway").digest("hex");
}

/** Where the program is served, as this machine reaches it. */
export function ownAddress({ host, port }: Pick<Environment, "host" | "port">): string {
  return `http://${host === "0.0.0.0" ? "localhost" : host}:${port}`;
}

let current: Environment | null = null;

/** The settings of this process. @throws Error with one line when a value is unusable */
export function environment(): Environment {
  if (current) return current;
  const read = readEnvironment(process.env);
  if (!read.ok) throw new Error(read.problem);
  current = read.environment;
  return current;
}
