/** What a receiver found of a message’s sender by one method. */
export interface AuthenticationResult {
  /** As `spf`, `dkim`, `dmarc`. */
  method: string;
  /** As `pass`, `fail`, `softfail`. */
  result: string;
  /** Whom it is about, as `smtp.mailfrom=example.org`; empty where it does not say. */
  about: string;
}

const TOKEN = /^[A-Za-z0-9.!#$%&'*+\-/=?^_`{|}~@:]+$/;

/**
 * Reads an Authentication-Results header (RFC 8601, 2.2).
 * @param header the header's value, unfolded or not
 * @returns who found it (the authserv-id, in small letters) and the results; null for what is no such header
 */
export function readAuthenticationResults(
  header: string,
): { by: string; results: AuthenticationResult[] } | null {
  const [first = "", ...parts] = split(withoutComments(header.slice(0, 20_000)));
  const by = first.trim().split(/\s+/)[0]?.replace(/^"|"$/g, "").toLowerCase() ?? "";
  if (by === "" || !TOKEN.test(by)) return null;
  return {
    by,
    results: parts.flatMap((part): AuthenticationResult[] => {
      const [found = "", ...properties] = part.trim().split(/\s+/);
      const [method = "", result = ""] = found.split("=");
      if (method === "" || result === "") return [];
      const about = properties.filter((one) => /^(?:smtp|header|body|policy)\.[^=]+=./.test(one));
      return [
        {
          method: (method.split("/")[0] ?? "").toLowerCase(),
          result: result.toLowerCase(),
          about: about.join(" "),
        },
      ];
    }),
  };
}

/** Results that speak against the sender; what was not looked at or is neutral says nothing. */
const AGAINST = new Set(["fail", "softfail", "hardfail", "permerror", "policy", "discard"]);

/** What trusted receivers found against a message’s sender. @param trusted authserv-ids, in small letters */
export function foundAgainst(headers: string[], trusted: ReadonlySet<string>): AuthenticationResult[] {
  return headers.flatMap((header) => {
    const read = readAuthenticationResults(header);
    // Anybody can write such a header: only what our own receiver wrote counts.
    return read && trusted.has(read.by) ? read.results.filter(({ result }) => AGAINST.has(result)) : [];
  });
}

/** The text without comments in parentheses, which nest; quoted strings are left alone. */
function withoutComments(text: string): string {
  let depth = 0;
  let quoted = false;
  let out = "";
  for (let index = 0; index < text.length; index += 1) {
    const character = text.charAt(index);
    if (character === "\\") {
      if (depth === 0) out += text.slice(index, index + 2);
      index += 1;
    } else if (quoted || (character === '"' && depth === 0)) {
      if (character === '"') quoted = !quoted;
      out += character;
    } else if (character === "(") depth += 1;
    else if (character === ")") depth = Math.max(0, depth - 1);
    else if (depth === 0) out += character;
  }
  return out;
}

/** Parts between semicolons that stand outside of quotation marks. */
function split(text: string): string[] {
  return text.match(/(?:"(?:\\.|[^"\\])*"|[^;"]|")+/g) ?? [];
}
