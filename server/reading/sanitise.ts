import sanitizeHtml from "sanitize-html";

/** Addresses of pictures inside a message, by Content-ID. */
export type InlinePictures = ReadonlyMap<string, string>;

/** A style attribute that is longer is left out, in UTF-16 units. */
const LONGEST_STYLE = 2000;

const BLOCKED = "data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7";

/** How deep elements may stand in each other; deeper ones go, their words stay. */
const DEEPEST = 60;
const COLOUR = /^[#\w(),.%\s-]{1,100}$/;
const sizes = [/^[\w\s.%-]{1,100}$/];

/** More of a message's HTML is not shown, in UTF-16 units. */
const MOST_HTML = 500_000;
/** Elements that close themselves, or are closed by what follows them. */
const UNCLOSED = new Set(
  "area base br col embed hr img input link meta source track wbr p li dt dd tr td th tbody thead tfoot option".split(
    " ",
  ),
);

/**
 * HTML without the tags of elements that stand too deep in each other. A parser keeps all that are open, and so takes
 * longer with each of them; this takes time in proportion to the text.
 */
function shallow(html: string): string {
  const parts: string[] = [];
  let [at, depth, dropped] = [0, 0, 0];
  for (let open = html.indexOf("<"); open >= 0; open = html.indexOf("<", at)) {
    const close = html.indexOf(">", open);
    if (close < 0) break;
    const isEnd = html.charAt(open + 1) === "/";
    const name = /^[a-z][a-z0-9]*/i.exec(html.slice(open + (isEnd ? 2 : 1), open + 20))?.[0].toLowerCase();
    let keep = true;
    if (name !== undefined && !UNCLOSED.has(name)) {
      if (isEnd && dropped > 0) [dropped, keep] = [dropped - 1, false];
      else if (isEnd) depth = Math.max(0, depth - 1);
      else if (depth >= 2 * DEEPEST) [dropped, keep] = [dropped + 1, false];
      else depth += 1;
    }
    parts.push(html.slice(at, keep ? close + 1 : open));
    at = close + 1;
  }
  return parts.join("") + html.slice(at);
}

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
  const cleaned = sanitizeHtml(shallow(html.slice(0, MOST_HTML)), {
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
        // Each pattern is one class of characters, and short: matching takes time in proportion to the value.
        color: [COLOUR],
        "background-color": [COLOUR],
        "text-align": [/^\w{1,20}$/],
        "font-weight": [/^\w{1,20}$/],
        "font-style": [/^\w{1,20}$/],
        "text-decoration": [/^[\w\s]{1,60}$/],
        "font-size": [/^[\d.]{1,8}(?:px|pt|em|rem|%)$/],
        "font-family": [/^[\w\s,'"-]{1,200}$/],
        margin: sizes,
        padding: sizes,
        border: [/^[#\w\s.]{1,100}$/],
        width: [/^[\d.]{1,8}(?:px|em|%)$/],
      },
    },
    nestingLimit: DEEPEST,
    allowedSchemes: ["http", "https", "mailto", "tel"],
    allowedSchemesByTag: { img: ["http", "https", "cid", "data"] },
    allowProtocolRelative: false,
    transformTags: {
      "*": (tagName, attribs) => {
        const { style, ...others } = attribs;
        return { tagName, attribs: style === undefined || style.length > LONGEST_STYLE ? others : attribs };
      },
      a: (tagName, attribs) => {
        const { href, ...others } = attribs;
        // A link without a place of its own would lead into this program.
        const leads = href !== undefined && /^\s*(?:https?:\/\/|mailto:|tel:)/i.test(href);
        return {
          tagName,
          attribs: {
            ...others,
            ...(leads ? { href } : {}),
            target: "_blank",
            rel: "noopener noreferrer nofollow",
          },
        };
      },
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
