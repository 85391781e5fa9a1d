import type { Letter, Place } from "../compose/letter";
import { bareAddress } from "../document/links";
import type { Block, Source, TextNode } from "../document/types";
import { walk } from "../document/walk";
import type { CheckInput, SendCheck } from "./check";
import { bodyPlace, look } from "./finding";
import { t } from "../words/second-look";

/** A link whose words are an address other than its target. */
export function linksThatDiffer({ letter }: CheckInput): SendCheck[] {
  const linked = letter.fragments.filter(({ fragment }) => fragment.words.hasLinks);
  return linked
    .flatMap(({ fragment }) => textsOf(fragment.block()))
    .flatMap((text) => {
      const link = text.marks?.find((mark) => mark.type === "link");
      const shown = text.text.trim().replace(/[.,;]$/, "");
      if (!link || !looksLikeAddress(shown) || sameAddress(shown, link.attrs.href)) return [];
      const at = text.source ? placeInLetter(letter, text.source) : null;
      return [
        look(
          "link-differs",
          t("theLinkSaysShownAndLeads", { shown, href: bareAddress(link.attrs.href) }),
          at,
        ),
      ];
    });
}

function placeInLetter(letter: Letter, source: Source): Place | null {
  let offset = 0;
  for (const piece of letter.pieces) {
    if (piece.source === source) return bodyPlace(letter, offset, offset + piece.text.length);
    offset += piece.text.length;
  }
  return null;
}

function textsOf(block: Block): TextNode[] {
  const found: TextNode[] = [];
  walk({ type: "doc", content: [block] }, (node) => {
    if (node.type === "text") found.push(node);
  });
  return found;
}

function looksLikeAddress(text: string): boolean {
  return (
    /^(?:https?:\/\/|www\.)\S+$/i.test(text) ||
    /^[\w.+-]+@[\w-]+(?:\.[\w-]+)+$/.test(text) ||
    /^[\w-]+(?:\.[\w-]+)*\.[a-z]{2,}(?:\/\S*)?$/i.test(text)
  );
}

/** The same host, and the same path where the words show one. */
function sameAddress(shown: string, target: string): boolean {
  const [shownHost, ...shownPath] = bareAddress(shown).split("/");
  const [targetHost, ...targetPath] = bareAddress(target).split(/[/?#]/);
  return (
    shownHost === targetHost &&
    (shownPath.length === 0 ||
      shownPath.join("/") === targetPath.join("/").slice(0, shownPath.join("/").length))
  );
}
