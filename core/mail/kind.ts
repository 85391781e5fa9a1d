/** What a message is, beside one that somebody wrote to us. */
export type MailKind = "message" | "automatic" | "list" | "failure";

/** Headers of a message, the names in lower case, the values unfolded. */
export type Headers = readonly { name: string; value: string }[];

const value = (headers: Headers, name: string) =>
  headers
    .find((one) => one.name === name)
    ?.value.trim()
    .toLowerCase() ?? null;

/**
 * Tells by its headers whether somebody wrote a message to us: programs that answer say so (RFC 3834), lists name
 * themselves (RFC 2919), reports are of a type of their own (RFC 6522).
 * @param hasFailure whether it reports that a letter was not delivered
 */
export function kindOf(headers: Headers, hasFailure: boolean): MailKind {
  if (hasFailure) return "failure";
  const submitted = value(headers, "auto-submitted")?.split(";")[0]?.trim() ?? "no";
  const precedence = value(headers, "precedence") ?? "";
  const type = value(headers, "content-type") ?? "";
  if (
    submitted !== "no" ||
    precedence === "auto_reply" ||
    type.startsWith("multipart/report") ||
    ["x-autoreply", "x-autorespond"].some((name) => value(headers, name) !== null)
  )
    return "automatic";
  const isList =
    value(headers, "list-id") !== null ||
    value(headers, "list-unsubscribe") !== null ||
    precedence === "list" ||
    precedence === "bulk" ||
    precedence === "junk" ||
    type.startsWith("multipart/digest");
  if (isList) return "list";
  return "message";
}

/** How armoured text begins (RFC 9580, 6.2). */
const ARMOURED = /-----BEGIN PGP (SIGNED )?MESSAGE-----/;

/** Who signed or encrypted a message, told by its type and by what stands in its words; null for nobody. */
export function sealOf(
  headers: Headers,
  text: string,
): { kind: "signed" | "encrypted"; by: "S/MIME" | "OpenPGP" } | null {
  const type = value(headers, "content-type") ?? "";
  if (type.startsWith("multipart/encrypted")) return { kind: "encrypted", by: "OpenPGP" };
  if (/^application\/(?:x-)?pkcs7-mime/.test(type))
    return { kind: type.includes("signed-data") ? "signed" : "encrypted", by: "S/MIME" };
  if (type.startsWith("multipart/signed"))
    return { kind: "signed", by: type.includes("pgp") ? "OpenPGP" : "S/MIME" };
  const armoured = ARMOURED.exec(text.slice(0, 2000));
  return armoured && { kind: armoured[1] === undefined ? "encrypted" : "signed", by: "OpenPGP" };
}
