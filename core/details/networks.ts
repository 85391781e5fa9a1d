import ipaddr from "ipaddr.js";
import { t } from "../words/details";

/** Networks that may be asked although they are not public: addresses, or networks in CIDR notation (RFC 4632). */
export type Allowed = readonly string[];

/**
 * Why an address may not be asked: only what is public on the internet may, and what is allowed (RFC 6890 lists the others).
 * @param address IPv4 or IPv6; IPv4 in IPv6 counts as what it is
 * @returns null where it may
 */
export function networkProblem(address: string, allowed: Allowed): string | null {
  const problem = t("anAddressOfAPrivateNetwork", { address });
  if (!ipaddr.isValid(address)) return problem;
  const known = ipaddr.process(address);
  if (known.range() === "unicast") return null;
  return allowed.some((network) => isWithin(known, network)) ? null : problem;
}

function isWithin(address: ipaddr.IPv4 | ipaddr.IPv6, network: string): boolean {
  const [base, bits] = network.includes("/") ? ipaddr.parseCIDR(network) : wholeOf(network);
  return address.kind() === base.kind() && address.match([base, bits]);
}

function wholeOf(network: string): [ipaddr.IPv4 | ipaddr.IPv6, number] {
  const base = ipaddr.process(network);
  return [base, base.kind() === "ipv4" ? 32 : 128];
}
