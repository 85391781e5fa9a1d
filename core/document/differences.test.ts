import { expect, test } from "@jest/globals";
import { readMarkdown } from "../formats/markdown";
import { differences, likeness } from "./differences";

const reply = (title: string, text: string) => ({ title, document: readMarkdown(text).doc });
const price = reply(
  "Fare difference",
  "You pay the fare difference when you change.\n\nIt is charged to your card.",
);
const asked = reply(
  "Price of a change",
  "You pay the change fee when you change.\n\nIt is charged to your card.",
);
const dogs = reply("Dogs aboard", "Dogs travel on deck three.");

test("replies are alike that say most of the same, near by a part or their titles, and others are neither", () => {
  expect(likeness(price, asked)).toBe("alike");
  expect(likeness(asked, price)).toBe("alike");
  expect(likeness(price, { ...dogs, title: "The fare difference" })).toBe("near");
  const more = reply(
    "All about changes",
    "You pay the fare difference when you change.\n\nBring your passport, arrive early, mind the steps, follow the crew, leave nothing behind, enjoy the crossing.",
  );
  expect([likeness(price, more), likeness(more, price)]).toEqual(["near", "near"]);
  expect(likeness(price, dogs)).toBeNull();
  expect(likeness(reply("", ""), reply("", ""))).toBeNull();
});

test("only the lines that differ are told, word by word, and how many more there are", () => {
  const { lines, more } = differences(asked.document, price.document, 4);
  expect(more).toBe(0);
  expect(lines).toHaveLength(1);
  const words = (kind: string) =>
    lines
      .flatMap((line) => line.pieces)
      .filter((piece) => piece.kind === kind)
      .map(({ inline }) => (inline.type === "text" ? inline.text : ""))
      .join("")
      .trim();
  expect(words("added")).toContain("difference");
  expect(words("removed")).toContain("fee");
  expect(differences(dogs.document, price.document, 1).more).toBeGreaterThan(0);
  expect(differences(price.document, price.document, 4)).toEqual({ lines: [], more: 0 });
});

test("a line that keeps little of its words is told whole, as it was and as it is", () => {
  const { lines } = differences(
    readMarkdown("A card costs nine and is good for twelve months on all lines.").doc,
    readMarkdown("Your card is renewed until then. Keep it: the gate knows.").doc,
    4,
  );
  expect(lines.map((line) => line.kind)).toEqual(["removed", "added"]);
  for (const line of lines)
    expect(new Set(line.pieces.map((piece) => piece.kind))).toEqual(new Set([line.kind]));
});
