const SAFE_SCHEMES = new Set(["http:", "https:", "mailto:", "tel:"]);

/**
 * The address of a link, if a letter may carry it: http, https, mailto or tel.
 * @returns the address as given, trimmed; null for any other scheme or for what is no address.
 */
export function safeHref(href: string): string | null {
  const trimmed = href.trim();
  // Browsers ignore tabs and line ends inside a scheme; we refuse them instead of guessing.
  if (/[\u0000-\u001f\u007f]/.test(trimmed)) return null;
  let url: URL;
  try {
    url = new URL(trimmed);
  } catch {
    return null;
  }
  return SAFE_SCHEMES.has(url.protocol) ? trimmed : null;
}

/** An address as people write it: without scheme, `www.`, or a closing slash; for comparing with a link's words. */
export function bareAddress(address: string): string {
  return address
    .trim()
    .toLowerCase()
    .replace(/^(?:https?:\/\/|mailto:|tel:)/, "")
    .replace(/^www\./, "")
    .replace(/\/$/, "");
}
