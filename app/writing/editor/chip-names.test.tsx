import { afterEach, expect, test } from "@jest/globals";
import { cleanup, screen } from "@testing-library/react";
import { compareDocuments } from "#core/document/compare";
import { readMarkdown } from "#core/formats/markdown";
import type { Blanks } from "#core/tokens/blanks";
import { catalogue } from "#core/tokens/catalogue";
import { show } from "../../testing/show";
import { ComparedLines } from "../../ui/compared";
import { LetterBlocks } from "../../ui/letter-blocks";
import { ChipNames, inLabels } from "./chip-names";

afterEach(cleanup);

const tokens = catalogue({
  houseFacts: [{ key: "bicycle_fee", label: "bicycle fee", type: "money", example: 5 }],
});
const blanks: Blanks = { deck: { kind: "text", label: "which deck", required: true, printed: true } };
const doc = (words: string) => readMarkdown(words).doc;

test("a comparison and an original show chips by their labels, not how they are typed", () => {
  const before = doc("It costs {$house.bicycle_fee} on {$blank.deck}.");
  const after = doc("It costs {$house.bicycle_fee :currency currency=EUR} on {$blank.deck} now.");
  show(
    <ChipNames tokens={tokens} blanks={blanks}>
      <ComparedLines lines={compareDocuments(before, after)} />
      <LetterBlocks blocks={before.content} />
    </ChipNames>,
  );
  expect(screen.getAllByText("bicycle fee").length).toBeGreaterThan(1);
  expect(screen.getAllByText("which deck").length).toBeGreaterThan(0);
  // The same value, written otherwise, is told apart.
  expect(screen.getByText("currency, EUR")).toBeVisible();
  expect(document.body.textContent).not.toContain("{$");
});

test("a subject reads with labels, and what is unknown with its name", () => {
  expect(inLabels("Your {$house.bicycle_fee} for {$blank.deck}, {$x.y}", { tokens, blanks })).toBe(
    "Your ‹bicycle fee› for ‹which deck›, ‹x.y›",
  );
});
