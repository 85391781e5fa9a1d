import type { Block, Doc } from "./types";
import { passagesOf, walk, wordSet, documentText } from "./walk";

/** What a person wrote into a reply that they took. */
export interface OwnWords {
  /** Paragraphs and the like that are theirs alone: they make sense beside any other reply. */
  added: Block[];
  /** Words of paragraphs that were the reply's and that they changed: these make sense there only. */
  changed: string[];
}

/** Of a block's words, so many must be the reply's for it to be a changed one of the reply's. */
const SHARED = 0.5;

/**
 * Tells a person's own words in a document from those that it was taken with.
 * @param shelved the document as it stands on the shelf
 */
export function ownWordsIn(now: Doc, shelved: Doc): OwnWords {
  const before = shelved.content.map(textOf);
  const own: OwnWords = { added: [], changed: [] };
  for (const block of now.content) {
    const text = textOf(block);
    if (text === "" || before.includes(text)) continue;
    const words = wordSet(text);
    const changed = before.some((one) => shareOf(words, wordSet(one)) >= SHARED);
    if (changed || needsItsReply(block)) own.changed.push(text);
    else own.added.push(block);
  }
  return own;
}

/** Blanks and passages are defined by the reply that a block stands in. */
function needsItsReply(block: Block): boolean {
  let needs = false;
  walk({ type: "doc", content: [block] }, (node) => {
    if (node.type === "blank" || passagesOf(node).length > 0) needs = true;
  });
  return needs;
}

function textOf(block: Block): string {
  return documentText({ type: "doc", content: [block] });
}

function shareOf(words: Set<string>, others: Set<string>): number {
  if (words.size === 0) return 0;
  let shared = 0;
  for (const word of words) if (others.has(word)) shared += 1;
  return shared / words.size;
}
