import { describe, expect, jest, test } from "@jest/globals";
import { getSchema } from "@tiptap/core";
import { Fragment } from "@tiptap/pm/model";
import type { Passages } from "#core/conditions/condition";
import { readMarkdown } from "#core/formats/markdown";
import type { Blanks } from "#core/tokens/blanks";
import { bodyExtensions } from "./body";
import { bringConditions, carrier, type Brought } from "./carry";
import type { Definitions } from "./definitions";

const usual = { required: true, printed: true };
const blanks: Blanks = {
  lane: { ...usual, kind: "number", label: "lane" },
  wish: { ...usual, kind: "choice", label: "wish", options: ["refund"], many: false },
  other: { ...usual, kind: "number", label: "other" },
};
const passages: Passages = {
  late: { when: { value: "blank.wish", is: "equals", to: "refund" } },
  unused: { when: { value: "booking.reference", is: "present" } },
};
const definitions: Definitions = { tokens: new Map(), blanks, passages, findings: [], sample: () => null };
const schema = getSchema(bodyExtensions({ definitions, onBrace: () => undefined }));

/** What goes to the clipboard for some words. */
function copied(markdown: string): string {
  const doc = schema.nodeFromJSON(readMarkdown(markdown).doc);
  const holder = document.createElement("div");
  holder.append(carrier(schema, () => definitions).serializeFragment(Fragment.from(doc.content)));
  return holder.innerHTML;
}

/** Pastes it where passages get the ids that are told. */
function pasted(html: string, ids: Record<string, string> = {}) {
  const brought = jest.fn<(what: Brought) => ReadonlyMap<string, string>>(() => new Map(Object.entries(ids)));
  return { html: bringConditions(html, brought), brought };
}

describe("words that are copied", () => {
  test("bring the conditions that they stand under, and the blanks of both, and nothing else", () => {
    const html = copied(":::passage{id=late}\nYour lane is {$blank.lane}.\n:::\n");
    const { brought } = pasted(html);
    expect(brought.mock.calls).toEqual([
      [{ passages: { late: passages.late }, blanks: { lane: blanks.lane, wish: blanks.wish } }],
    ]);
  });

  test("bring nothing where they need nothing", () => {
    const html = copied("Safe travels.");
    expect(html).not.toContain("data-carried");
    const { brought, html: same } = pasted(html);
    expect(brought).not.toHaveBeenCalled();
    expect(same).toBe(html);
  });

  test("stand under the ids that their conditions have where they are pasted", () => {
    const { html } = pasted(copied(":::passage{id=late}\nWe are late.\n:::\n"), { late: "late-2" });
    expect(html).not.toContain("data-carried");
    expect(html).toContain("late-2");
    expect(html).toContain("We are late.");
  });
});

describe("HTML of elsewhere that looks like ours", () => {
  test.each([
    ["is no JSON", "{"],
    ["is no object", "7"],
    ["holds conditions that are none", '{"passages":{"a":{"when":{"value":1}}},"blanks":{}}'],
    ["lacks its blanks", '{"passages":{}}'],
  ])("brings nothing where what it carries %s, and keeps its words", (_what, carried) => {
    const holder = document.createElement("p");
    holder.dataset.carried = carried;
    holder.textContent = "words";
    const { html, brought } = pasted(holder.outerHTML);
    expect(brought).not.toHaveBeenCalled();
    expect(html).toBe("<p>words</p>");
  });

  test.each(["{", "7", "null", '[{"id":7}]', '[{"id":"a","otherwise":"x"}]', '{"id":"a"}'])(
    "stands under no passage where it names them as %s, and keeps its words",
    (refs) => {
      const holder = document.createElement("p");
      holder.dataset.carried = JSON.stringify({ passages: {}, blanks: {} });
      holder.dataset.passages = refs;
      holder.textContent = "words";
      expect(pasted(holder.outerHTML).html).toBe("<p>words</p>");
    },
  );
});
