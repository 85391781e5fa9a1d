import { lookup as resolve } from "node:dns";
import { request as plain, type IncomingMessage } from "node:http";
import { request as secure } from "node:https";
import { isIP, type LookupFunction } from "node:net";
import { addressFor, readAnswer, type SourceField } from "#core/details/source";
import { networkProblem } from "#core/details/networks";
import type { Detail } from "#core/tokens/context";
import type { DetailSource } from "../db/entities/cases";
import { environment } from "../environment";
import { t } from "../words";
import { unseal } from "./secrets";

/** An answer that is longer is not read, in bytes. */
const MOST_BYTES = 1_000_000;

/** A system to ask. */
export type Asked = Pick<DetailSource, "name" | "address" | "headers" | "timeoutSeconds">;

/** What a system said of a reference; or why it said nothing, in words. */
export type Answer =
  | { data: Record<string, Detail>; problem: null }
  /** `gone`: it knows no such reference, and asking again will not help. */
  | { data: null; problem: string; gone: boolean };

/** It took longer than it may. */
class Late extends Error {}

/** Something about the address itself. */
class Refused extends Error {}

/**
 * Asks an outside system. Only public networks are asked, and those that the operator allows, whatever a name leads to at
 * the moment it is connected; it is led nowhere else. Never throws: what went wrong is told in words.
 */
export async function askSource(
  source: Asked,
  fields: readonly SourceField[],
  reference: string,
): Promise<Answer> {
  const { name } = source;
  const failed = (problem: string, gone = false): Answer => ({ data: null, problem, gone });
  const headers: Record<string, string> = { accept: "application/json" };
  for (const { name: header, sealed } of source.headers) {
    const value = unseal(sealed);
    if (value === null) return failed(t("secretCannotBeOpened", { name, header }));
    headers[header] = value;
  }
  let answered: { status: number; body: string };
  try {
    answered = await get(new URL(addressFor(source.address, reference)), headers, source.timeoutSeconds);
  } catch (error) {
    if (error instanceof Refused) return failed(t("sourceMayNotBeAsked", { name, why: error.message }));
    return failed(
      error instanceof Late ? t("sourceTakesTooLong", { name }) : t("sourceCannotBeReached", { name }),
    );
  }
  const { status, body } = answered;
  if (status === 404) return failed(t("sourceKnowsNone", { name, reference }), true);
  if (status >= 300 && status < 400) return failed(t("sourceLeadsElsewhere", { name, status }));
  if (status !== 200) return failed(t("sourceAnswersStatus", { name, status }));
  let json: unknown;
  try {
    json = JSON.parse(body);
  } catch {
    return failed(t("sourceAnswersNoJson", { name }));
  }
  const read = readAnswer(fields, json);
  return read.ok
    ? { data: read.data, problem: null }
    : failed(t("sourceCannotBeRead", { name, problem: read.problem }));
}

/** Fetches an address, which is checked when it is connected: what a name leads to is not looked up twice. */
async function get(
  address: URL,
  headers: Record<string, string>,
  timeoutSeconds: number,
): Promise<{ status: number; body: string }> {
  const host = address.hostname.replace(/^\[|\]$/g, "");
  const port = address.port || (address.protocol === "https:" ? "443" : "80");
  if (isIP(host) !== 0) refuseUnlessAllowed(host, port);
  const signal = AbortSignal.timeout(timeoutSeconds * 1000);
  const response = await new Promise<IncomingMessage>((done, failed) => {
    const start = address.protocol === "https:" ? secure : plain;
    start(address, { headers, signal, agent: false, lookup: checked(port) }, done)
      .on("error", (error) => failed(signal.aborted ? new Late() : error))
      .end();
  });
  const parts: Buffer[] = [];
  let size = 0;
  try {
    for await (const part of response as AsyncIterable<Buffer>) {
      size += part.length;
      if (size > MOST_BYTES) throw new Refused(t("answerIsTooLong"));
      parts.push(part);
    }
  } catch (error) {
    throw signal.aborted ? new Late() : error;
  } finally {
    response.destroy();
  }
  return { status: response.statusCode ?? 0, body: Buffer.concat(parts).toString("utf8") };
}

/** Looks names up, and lets through only what may be asked. */
function checked(port: string): LookupFunction {
  return (host, options, done) => {
    resolve(host, { ...options, all: true }, (error, addresses) => {
      if (error) return done(error, "", 0);
      try {
        for (const { address } of addresses) refuseUnlessAllowed(address, port);
      } catch (refused) {
        return done(refused as Error, "", 0);
      }
      if (options.all) return done(null, addresses);
      const [first] = addresses;
      return done(null, first?.address ?? "", first?.family ?? 4);
    });
  };
}

function refuseUnlessAllowed(address: string, port: string): void {
  const { detailNetworks, standins } = environment();
  // The simulated outside stands in for what would be on the internet.
  if (standins.on && address === "127.0.0.1" && port === String(standins.port)) return;
  const problem = networkProblem(address, detailNetworks);
  if (problem !== null) throw new Refused(problem);
}
