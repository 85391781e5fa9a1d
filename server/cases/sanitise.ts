import sanitizeHtml from "sanitize-html";

/** Addresses of pictures inside a message, by Content-ID. */
export type InlinePictures = ReadonlyMap<string, string>;

const BLOCKED = "data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7";

/**
 * Inbound HTML made safe to show: no scripts, forms, frames or styles that reach outside. Links open apart
 * and tell nobody where from; pictures of the message itself are shown, remote ones only when asked for.
 * @returns the HTML and how many remote pictures were held back
 */
export function sanitiseMessage(
  html: string,
  pictures: InlinePictures,
  remote: boolean,
): { html: string; blocked: number } {
  let blocked = 0;
  const cleaned = sanitizeHtml(html, {
    allowedTags: [
      ...sanitizeHtml.defaults.allowedTags,
      "img",
      "center",
      "font",
      "s",
      "u",
      "del",
      "ins",
      "details",
      "summary",
    ],
    allowedAttributes: {
      "*": ["dir", "lang", "title", "align", "valign", "width", "height", "bgcolor", "style"],
      a: ["href", "target", "rel"],
      img: ["src", "alt"],
      font: ["color", "face", "size"],
      table: ["border", "cellpadding", "cellspacing"],
      td: ["colspan", "rowspan"],
      th: ["colspan", "rowspan"],
      ol: ["start", "type"],
    },
    allowedStyles: {
      "*": {
        color: [/^[#\w(),.%\s-]+$/],
        "background-color": [/^[#\w(),.%\s-]+$/],
        "text-align": [/^\w+$/],
        "font-weight": [/^\w+$/],
        "font-style": [/^\w+$/],
        "text-decoration": [/^[\w\s]+$/],
        "font-size": [/^[\d.]+(?:px|pt|em|rem|%)$/],
        "font-family": [/^[\w\s,'"-]+$/],
        margin: [/^[\d.\s]+(?:px|pt|em|%)?[\w\s.]*$/],
        padding: [/^[\d.\s]+(?:px|pt|em|%)?[\w\s.]*$/],
        border: [/^[#\w\s.]+$/],
        width: [/^[\d.]+(?:px|em|%)$/],
      },
    },
    allowedSchemes: ["http", "https", "mailto", "tel"],
    allowedSchemesByTag: { img: ["http", "https", "cid", "data"] },
    allowProtocolRelative: false,
    transformTags: {
      a: (tagName, attribs) => ({
        tagName,
        attribs: { ...attribs, target: "_blank", rel: "noopener noreferrer nofollow" },
      }),
      img: (tagName, attribs) => {
        const source = attribs.src ?? "";
        const own = source.startsWith("cid:") ? pictures.get(source.slice(4)) : undefined;
        if (own) return { tagName, attribs: { ...attribs, src: own } };
        if (source.startsWith("data:image/")) return { tagName, attribs };
        if (remote && /^https?:/.test(source)) return { tagName, attribs };
        blocked += 1;
        return { tagName, attribs: { ...attribs, src: BLOCKED, title: attribs.alt ?? "picture held back" } };
      },
    },
  });
  return { html: cleaned, blocked };
}
