import { safeHref } from "#core/document/links";

/** What stays of pasted HTML besides its words. */
const KEPT = new Set([
  "P",
  "BR",
  "H1",
  "H2",
  "H3",
  "H4",
  "H5",
  "H6",
  "UL",
  "OL",
  "LI",
  "TABLE",
  "TBODY",
  "THEAD",
  "TFOOT",
  "TR",
  "TD",
  "TH",
  "BLOCKQUOTE",
  "HR",
  "A",
  "B",
  "STRONG",
  "I",
  "EM",
  "U",
  "S",
  "STRIKE",
  "DEL",
  "MARK",
  "IMG",
  "SPAN",
  "DIV",
]);

/** Elements that go with all that they hold. */
const DROPPED =
  "script, style, meta, link, title, head, xml, object, iframe, svg, noscript, template, o\\:p, del[class*=mso]";

/**
 * HTML from office programs and web pages as plain structure: their styles, classes, comments, conditional parts and
 * fake lists go; bold, italic, underline and strike that stand in styles become marks.
 * What was copied from a reply of ours keeps its tokens, blanks and passages.
 */
export function cleanHtml(html: string): string {
  const doc = new DOMParser().parseFromString(html.slice(0, LONGEST_PASTE), "text/html");
  dropComments(doc);
  for (const element of doc.querySelectorAll(DROPPED)) element.remove();
  listsFromOffice(doc);
  for (const element of [...doc.body.querySelectorAll<HTMLElement>("*")]) {
    if (isOurs(element)) continue;
    marksFromStyle(element);
    const leads = element.tagName !== "A" || leadsSomewhere(element.getAttribute("href") ?? "");
    if (!KEPT.has(element.tagName) || !leads) unwrap(element);
    else keepOnly(element);
  }
  flatten(doc.body);
  return doc.body.innerHTML;
}

/** Comments, and the conditional parts of office programs that are read as such. */
function dropComments(doc: Document): void {
  const walker = doc.createTreeWalker(doc.body, NodeFilter.SHOW_COMMENT);
  const comments: Node[] = [];
  for (let node = walker.nextNode(); node; node = walker.nextNode()) comments.push(node);
  for (const comment of comments) comment.parentNode?.removeChild(comment);
}

/** What may stand in each other in a document, so often at most: what is nested deeper stands in the one around it. */
const NESTING = new Set(["BLOCKQUOTE", "UL", "OL", "TABLE"]);
const DEEPEST = 6;

function flatten(body: HTMLElement): void {
  const depths = new Map<Element, number>([[body, 0]]);
  for (const element of [...body.querySelectorAll<HTMLElement>("*")]) {
    const above = depths.get(element.parentElement ?? body) ?? 0;
    const depth = above + (NESTING.has(element.tagName) ? 1 : 0);
    depths.set(element, depth);
  }
  for (const [element, depth] of depths)
    if (depth > DEEPEST && element instanceof HTMLElement && NESTING.has(element.tagName)) unwrap(element);
}

/** The longest address that a link in a document has. */
const LONGEST_ADDRESS = 2000;

/** Whether a link's address can be kept, values in it aside. */
function leadsSomewhere(href: string): boolean {
  return href.length <= LONGEST_ADDRESS && safeHref(href.replace(/\{[^{}]*\}/g, "x")) !== null;
}

/** Chips and passages of our own, and the pictures of replies. */
function isOurs(element: HTMLElement): boolean {
  return ["token", "blank", "passages", "attachment"].some((name) => name in element.dataset);
}

function keepOnly(element: HTMLElement): void {
  for (const { name } of [...element.attributes]) {
    const spans = (element.tagName === "TD" || element.tagName === "TH") && /^(?:col|row)span$/.test(name);
    if (spans) element.dataset[name] = element.getAttribute(name) ?? "1";
    const kept =
      (element.tagName === "A" && name === "href") ||
      name.startsWith("data-") ||
      (element.tagName === "OL" && name === "start");
    if (!kept) element.removeAttribute(name);
  }
  // Pictures of elsewhere are not fetched: only those that are pasted as files become ours.
  if (element.tagName === "IMG" && !("attachment" in element.dataset)) element.remove();
  if (element.tagName === "DIV" && !element.querySelector("p, div, ul, ol, table, blockquote, h1, h2, h3")) {
    const paragraph = element.ownerDocument.createElement("p");
    paragraph.append(...element.childNodes);
    element.replaceWith(paragraph);
  }
}

/** The styles that stand in an element. Those of a parsed document are not applied under our pages' policy, so they are read apart. */
function styleOf(element: HTMLElement): CSSStyleDeclaration {
  const { style } = document.createElement("span");
  style.cssText = element.getAttribute("style") ?? "";
  return style;
}

function marksFromStyle(element: HTMLElement): void {
  const style = styleOf(element);
  const bold = /^(?:bold|bolder|[6-9]00)$/.test(style.fontWeight);
  const normal = /^(?:normal|[1-4]00)$/.test(style.fontWeight);
  if (normal && (element.tagName === "B" || element.tagName === "STRONG")) {
    unwrap(element);
    return;
  }
  const marks = [
    bold ? "strong" : null,
    style.fontStyle === "italic" ? "em" : null,
    style.textDecoration.includes("underline") && element.tagName !== "A" ? "u" : null,
    style.textDecoration.includes("line-through") ? "s" : null,
  ];
  if (element.tagName !== "SPAN") return;
  for (const mark of marks) {
    if (mark === null) continue;
    const inner = element.ownerDocument.createElement(mark);
    inner.append(...element.childNodes);
    element.append(inner);
  }
}

/** Word processors write lists as paragraphs with a bullet and a style; they become lists. */
function listsFromOffice(doc: Document): void {
  let list = null as HTMLElement | null;
  for (const paragraph of [...doc.body.querySelectorAll<HTMLElement>("p")]) {
    const office =
      /mso-list\s*:\s*(?!none)/i.test(paragraph.getAttribute("style") ?? "") ||
      paragraph.className.includes("MsoListParagraph");
    if (!office) {
      list = null;
      continue;
    }
    const text = paragraph.textContent;
    const marker = /^\s*(?:([·•▪◦o§-])|(\d+|[a-z])[.)])\s*/.exec(text);
    const tag = marker?.[2] ? "OL" : "UL";
    if (list?.tagName !== tag || list.nextElementSibling !== paragraph) {
      list = doc.createElement(tag);
      paragraph.before(list);
    }
    const item = doc.createElement("li");
    item.append(...paragraph.childNodes);
    if (marker) trimStart(item, marker[0].length);
    list.append(item);
    paragraph.remove();
  }
}

/** Takes so many characters off the start of an element's text. */
function trimStart(element: HTMLElement, length: number): void {
  const walker = element.ownerDocument.createTreeWalker(element, NodeFilter.SHOW_TEXT);
  let left = length;
  for (let node = walker.nextNode(); node && left > 0; node = walker.nextNode()) {
    const text = node.textContent ?? "";
    node.textContent = text.slice(left);
    left -= Math.min(left, text.length);
  }
}

function unwrap(element: HTMLElement): void {
  element.replaceWith(...element.childNodes);
}

/** More than this of a paste is not read, in UTF-16 units. */
const LONGEST_PASTE = 2_000_000;
