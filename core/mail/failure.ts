/** What a report says of a letter that could not be delivered, or not yet (RFC 3464). */
export interface DeliveryFailure {
  /** The address that it is about; null where it does not say. */
  recipient: string | null;
  /** Given up, or still tried. */
  action: "failed" | "delayed";
  /** As `5.1.1` (RFC 3463); null where it does not say. */
  status: string | null;
  /** What the other server said; null where it does not say. */
  words: string | null;
  /** Message-ID of the letter; null where the report does not bring its headers. */
  messageId: string | null;
}

/** Fields of a part `message/delivery-status`: blocks of headers, the first about the message, one for each recipient. */
function blocksOf(text: string): Map<string, string>[] {
  return text
    .replace(/\r\n?/g, "\n")
    .split(/\n[ \t]*\n/)
    .map((block) => {
      const fields = new Map<string, string>();
      for (const line of block
        .replace(/\n[ \t]+/g, " ")
        .split("\n")
        .slice(0, 200)) {
        const at = line.indexOf(":");
        if (at > 0) fields.set(line.slice(0, at).trim().toLowerCase(), line.slice(at + 1).trim());
      }
      return fields;
    })
    .filter((fields) => fields.size > 0);
}

/** The value behind a type, as in `rfc822; ana@example.org`. */
function typed(value: string | undefined): string | null {
  if (value === undefined) return null;
  return value.slice(value.indexOf(";") + 1).trim() || null;
}

/**
 * Reads a report on delivery. One that says that a letter arrived, was relayed or expanded reports no failure.
 * @param status the part `message/delivery-status`
 * @param original headers of the letter, as the report brings them; empty where it does not
 */
export function readFailure(status: string, original: string): DeliveryFailure | null {
  const worst = blocksOf(status.slice(0, 200_000))
    .filter((fields) => /^(?:failed|delayed)$/i.test(fields.get("action") ?? ""))
    .sort((a, b) => rank(a) - rank(b))[0];
  if (!worst) return null;
  return {
    recipient:
      (typed(worst.get("final-recipient")) ?? typed(worst.get("original-recipient")))
        ?.toLowerCase()
        .replace(/^<|>$/g, "") ?? null,
    action: /^delayed$/i.test(worst.get("action") ?? "") ? "delayed" : "failed",
    status: /^[245]\.\d{1,3}\.\d{1,3}/.exec(worst.get("status") ?? "")?.[0] ?? null,
    words: typed(worst.get("diagnostic-code"))?.slice(0, 500) ?? null,
    messageId: /^message-id:\s*(<[^<>\s]{1,900}>)/im.exec(original.slice(0, 200_000))?.[1] ?? null,
  };
}

const rank = (fields: Map<string, string>) => (/^failed$/i.test(fields.get("action") ?? "") ? 0 : 1);

/** A report's words for an agent: the other server's own, with the code that explains them. */
export function failureWords({ words, status, recipient }: DeliveryFailure): string {
  const said = words ?? "";
  const code = status === null || said.includes(status) ? "" : status;
  return [code, said, recipient !== null && !said.includes(recipient) ? `(${recipient})` : ""]
    .filter((part) => part !== "")
    .join(" ");
}
