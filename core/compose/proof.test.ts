import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { readMarkdown } from "../formats/markdown";
import { writtenIn } from "../language/written";
import { compose } from "./compose";
import { proofOf, wordsOf, type ProofRun } from "./proof";
import { testInput, testSlip } from "./testing";

const shelf =
  "Hello {$customer.first_name},\n\nYou paid {$booking.fare}, so we can give you half of it as a voucher.\n\n- good for a year\n- on any ship";

/** What was sent of a reply, and where its words came from. */
function proof(sent: string, shelved: string | null = shelf, changes = {}, input = {}) {
  const letterOf = (markdown: string) => compose(testInput([testSlip(markdown, changes)], input));
  const letter = letterOf(sent);
  const slip = {
    id: "s1",
    document: testSlip(sent, changes).document,
    shelved: shelved === null ? null : wordsOf(letterOf(shelved), "s1"),
  };
  return { letter, runs: proofOf(letter, [slip]) };
}

const by = (runs: ProofRun[], from: ProofRun["from"]) =>
  runs.filter((run) => run.from === from).map((run) => run.text);

describe("where the words of a letter came from", () => {
  test("a reply that went as it is has no word of the agent’s, and its values name their tokens", () => {
    const { letter, runs } = proof(shelf);
    expect(runs.map((run) => run.text).join("")).toBe(letter.text);
    expect(by(runs, "hand")).toEqual([]);
    expect(runs.filter((run) => run.from === "token").map(({ name, text }) => [name, text])).toEqual([
      ["customer.first_name", "Ottoline"],
      ["booking.fare", "€118.00"],
    ]);
    expect(by(runs, "reply")).toContain("on any ship");
  });

  test("words that were put in are the agent’s, the others stay the reply’s", () => {
    const { runs } = proof(
      shelf.replace("half of it as a voucher.", "half of it as a voucher. The trailer is paid back in full."),
    );
    expect(by(runs, "hand").join("").trim()).toBe("The trailer is paid back in full.");
    expect(by(runs, "reply").join("|")).toContain("half of it as a voucher.");
  });

  test("a sentence written anew is the agent’s, though it has words that any sentence has", () => {
    const { runs } = proof(
      "Hello {$customer.first_name},\n\nI rang the quay and they will see to it that you get a place!\n\n- good for a year\n- on any ship",
    );
    expect(by(runs, "hand").join("")).toContain(
      "I rang the quay and they will see to it that you get a place!",
    );
  });

  test("own words without a reply are the agent’s throughout; what surrounds the slips is nobody’s", () => {
    const signature = writtenIn("en", readMarkdown("The {$agent.department}").doc);
    const { letter, runs } = proof("Yes, gladly.", null, {}, { signature });
    expect(runs.map((run) => run.text).join("")).toBe(letter.text);
    expect(by(runs, "hand")).toEqual(["Yes, gladly."]);
    expect(runs).toContainEqual({ text: "The ", from: "around", slip: "signature" });
  });

  test("words know the passages that they stand under", () => {
    const passages = { car: { when: { value: "booking.vehicle", is: "present" as const } } };
    const { runs } = proof(":::passage{#car}\nWith a car.\n:::\n\nComing.", null, { passages });
    expect(runs.map(({ text, passages: under }) => [text, under])).toEqual([
      ["With a car.", ["car"]],
      ["\n\n", undefined],
      ["Coming.", undefined],
    ]);
  });

  test("joined, the runs are the letter, however a reply was changed", () => {
    const words = fc.array(
      fc.constantFrom("the", "ship", "sails", "{$booking.fare}", "at", "noon", "\n\n", "- a"),
      {
        maxLength: 30,
      },
    );
    fc.assert(
      fc.property(words, words, (one, other) => {
        const { letter, runs } = proof(one.join(" "), other.join(" "));
        expect(runs.map((run) => run.text).join("")).toBe(letter.text);
        expect(by(proof(one.join(" "), one.join(" ")).runs, "hand")).toEqual([]);
      }),
    );
  });
});
