import LinkifyIt from "linkify-it";
import { safeHref } from "./links";
import type { AnyNode, Block, Inline, TextNode } from "./types";

/** Finds web and mail addresses in words. What might be a sentence without a space (`time.It`) is left alone. */
const finder = new LinkifyIt();

/** An address in words: where it stands (UTF-16 units), and where it leads. */
interface Address {
  from: number;
  to: number;
  href: string;
}

/** The addresses in words that a letter may link: `https://…`, `www.…` and mail addresses. */
export function addressesIn(text: string): Address[] {
  return (finder.match(text) ?? []).flatMap(({ index, lastIndex, schema, raw, url }) => {
    const isBare = schema === "";
    if (isBare && !/^www\./i.test(raw)) return [];
    const href = safeHref(isBare ? `https://${raw}` : url);
    return href === null ? [] : [{ from: index, to: lastIndex, href }];
  });
}

/** Everything in words that somebody may take for an address, as `example.com` too. UTF-16 offsets. */
export function everyAddressIn(text: string): { from: number; words: string; isMail: boolean }[] {
  return (finder.match(text) ?? []).map(({ index, raw, schema }) => ({
    from: index,
    words: raw,
    isMail: schema === "mailto:",
  }));
}

/** Whether words may hold an address: told by a glance. */
export function mayHoldAddress(text: string): boolean {
  return /:\/\/|www\.|@/i.test(text);
}

/**
 * A filled block with its bare addresses as links; what is a link already stays as it is. An address is ours to link where
 * its writer, the agent or a house fact says where it leads: what a customer calls themselves never becomes a link.
 */
export function linkAddresses(block: Block): Block {
  return linkedIn(block);
}

function linkedIn<Node extends AnyNode>(node: Node): Node {
  if (!("content" in node)) return node;
  if (node.type === "paragraph" || node.type === "heading")
    return { ...node, content: linkedLine(node.content) };
  return { ...node, content: (node.content as AnyNode[]).map(linkedIn) };
}

function isPlain(node: Inline): node is TextNode {
  return node.type === "text" && !node.marks?.some((mark) => mark.type === "link");
}

function linkedLine(line: Inline[]): Inline[] {
  const made: Inline[] = [];
  let run: TextNode[] = [];
  const close = () => {
    made.push(...linkedRun(run));
    run = [];
  };
  for (const node of line) {
    if (isPlain(node)) run.push(node);
    else {
      close();
      made.push(node);
    }
  }
  close();
  return made;
}

/** Words that follow one another: an address may go on from one to the next. */
function linkedRun(run: TextNode[]): TextNode[] {
  const text = run.map((node) => node.text).join("");
  if (!mayHoldAddress(text)) return run;
  const found = addressesIn(text).filter((address) => saysWhere(run, text, address));
  if (found.length === 0) return run;
  const made: TextNode[] = [];
  let at = 0;
  for (const { from, to, href } of found) {
    made.push(...cut(run, at, from));
    const [first] = cut(run, from, to);
    // It is one link, in the marks that it begins with.
    if (first)
      made.push({
        ...first,
        text: text.slice(from, to),
        marks: [{ type: "link", attrs: { href } }, ...(first.marks ?? [])],
      });
    at = to;
  }
  return [...made, ...cut(run, at, text.length)];
}

/** Whether the part of an address that tells whose it is was written by us: the host, or all of a mail address. */
function saysWhere(run: TextNode[], text: string, { from, to, href }: Address): boolean {
  const words = text.slice(from, to);
  const host = href.startsWith("mailto:") ? words : (/^(?:\w+:\/\/)?[^/?#]*/.exec(words)?.[0] ?? words);
  const end = from + host.length;
  return cut(run, from, end).every(
    ({ source }) => source?.kind !== "token" || (source.name?.startsWith("house.") ?? false),
  );
}

/** What of a run stands between two offsets of its words. */
function cut(run: TextNode[], from: number, to: number): TextNode[] {
  const made: TextNode[] = [];
  let at = 0;
  for (const node of run) {
    const [start, end] = [Math.max(from - at, 0), Math.min(to - at, node.text.length)];
    if (start < end) made.push({ ...node, text: node.text.slice(start, end) });
    at += node.text.length;
  }
  return made;
}
