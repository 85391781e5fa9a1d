import * as z from "zod/mini";
import { DOMSerializer, type Fragment, type Schema } from "@tiptap/pm/model";
import { passagesSchema, testsOf, type Passages } from "#core/conditions/condition";
import { blanksSchema, type Blanks } from "#core/tokens/blanks";
import { passageRef, type PassageRef } from "#core/document/definition";
import { refsOf } from "./brackets";
import type { Definitions } from "./definitions";

/** What passages that are copied bring along: their conditions, and the blanks of words and conditions. */
export interface Brought {
  passages: Passages;
  blanks: Blanks;
}

/** Copies words as HTML with the definitions that they refer to, so that a passage keeps its condition in another reply. */
export function carrier(schema: Schema, definitions: () => Definitions): DOMSerializer {
  const usual = DOMSerializer.fromSchema(schema);
  return new (class extends DOMSerializer {
    override serializeFragment(
      fragment: Fragment,
      options?: { document?: Document },
      target?: HTMLElement | DocumentFragment,
    ): HTMLElement | DocumentFragment {
      const made = super.serializeFragment(fragment, options, target);
      const carried = needed(fragment, definitions());
      const first = made.firstElementChild;
      if (
        first instanceof HTMLElement &&
        Object.keys(carried.passages).length + Object.keys(carried.blanks).length > 0
      )
        first.dataset.carried = JSON.stringify(carried);
      return made;
    }
  })(usual.nodes, usual.marks);
}

function needed(fragment: Fragment, { passages, blanks }: Definitions): Brought {
  const carried: Brought = { passages: {}, blanks: {} };
  const blank = (name: string) => {
    const definition = blanks[name];
    if (definition) carried.blanks[name] = definition;
  };
  fragment.descendants((node) => {
    if (node.type.name === "blank") blank(String(node.attrs.name));
    for (const { id } of refsOf(node)) {
      const passage = passages[id];
      if (!passage) continue;
      carried.passages[id] = passage;
      for (const { value } of testsOf(passage.when))
        if (value.startsWith("blank.")) blank(value.slice("blank.".length));
    }
    return true;
  });
  return carried;
}

/**
 * Takes the definitions out of pasted HTML and hands them over.
 * @param bring puts them beside the reply's own; returns what each id is here
 * @returns the HTML with those ids
 */
export function bringConditions(
  html: string,
  bring: (brought: Brought) => ReadonlyMap<string, string>,
): string {
  if (!html.includes("data-carried")) return html;
  const doc = new DOMParser().parseFromString(html, "text/html");
  const carrying = doc.querySelector<HTMLElement>("[data-carried]");
  const read = readCarried(carrying?.dataset.carried ?? "");
  carrying?.removeAttribute("data-carried");
  if (!read) return doc.body.innerHTML;
  const ids = bring(read);
  for (const element of doc.querySelectorAll<HTMLElement>("[data-passages]")) {
    const refs = readRefs(element.dataset.passages ?? "");
    if (refs)
      element.dataset.passages = JSON.stringify(
        refs.map((ref) => ({ ...ref, id: ids.get(ref.id) ?? ref.id })),
      );
    else delete element.dataset.passages;
  }
  return doc.body.innerHTML;
}

const refsSchema = z.array(passageRef);

/** Which passages an element stands under; null where that is not what we wrote. */
function readRefs(text: string): PassageRef[] | null {
  try {
    return refsSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

/** What was carried, if it is what we wrote: HTML may come from anywhere. */
function readCarried(text: string): Brought | null {
  try {
    const json = JSON.parse(text) as { passages?: unknown; blanks?: unknown };
    const passages = passagesSchema.safeParse(json.passages);
    const blanks = blanksSchema.safeParse(json.blanks);
    return passages.success && blanks.success ? { passages: passages.data, blanks: blanks.data } : null;
  } catch {
    return null;
  }
}
