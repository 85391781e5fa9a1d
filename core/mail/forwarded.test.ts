import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { anchorsOf, readForwarded, type ForwarderMarks } from "./forwarded";
import { allCopies, answerAll, copiesSchema, isAlone, noCopies } from "./copies";

const example = `Hello seller,

a buyer has a question about your offer.

Buyer: Jo Lind (member since 2019)
Order no. QZ-1001
Please answer by 28 November 2026, 18:00

Message:
Does the crossing take
a folded bicycle?

----
Answer this mail to answer the buyer.
`;

const span = (words: string) => {
  const from = example.indexOf(words);
  return { from, to: from + words.length };
};
const marks: ForwarderMarks = {
  name: span("Jo Lind"),
  reference: span("QZ-1001"),
  deadline: span("28 November 2026, 18:00"),
  text: span("Does the crossing take\na folded bicycle?"),
};
const readDate = (words: string) => (words.includes("2026") ? "2026-11-28T18:00:00.000Z" : null);

function read(text: string, given: ForwarderMarks = marks) {
  const made = anchorsOf(example, given);
  if (!made.ok) throw new Error(made.problem);
  return readForwarded(text, made.anchors, readDate);
}

describe("a forwarded message", () => {
  test("is read by what stands around the marks of its example", () => {
    expect(read(example)).toEqual({
      ok: true,
      details: {
        name: "Jo Lind",
        reference: "QZ-1001",
        deadline: "28 November 2026, 18:00",
        dueAt: "2026-11-28T18:00:00.000Z",
        text: "Does the crossing take\na folded bicycle?",
      },
    });
    const other = example
      .replace("Jo Lind", "Ana-María d’Orsay")
      .replace("QZ-1001", "7")
      .replace("Does the crossing take\na folded bicycle?", "One line.\n\nAnd another: Order no. 9\n")
      .replaceAll("\n", "\r\n");
    expect(read(other)).toMatchObject({
      ok: true,
      details: { name: "Ana-María d’Orsay", reference: "7", text: "One line.\n\nAnd another: Order no. 9" },
    });
  });

  test.each([
    ["Buyer:", "Customer:", /“Buyer:”, which stands before the buyer’s name/],
    [" (member since 2019)", "", /“\(member since 2019\)”/],
    ["Order no. QZ-1001", "Order no. ", /order reference should stand there is nothing/],
    ["28 November 2026, 18:00", "soon", /deadline “soon” is no date/],
    ["Message:", "Nachricht:", /“Message:”, which stands before the text/],
    ["----", "====", /“----”/],
  ])("that has %j otherwise is told, not guessed", (from, to, problem) => {
    expect(read(example.replace(from, to))).toEqual({
      ok: false,
      problem: expect.stringMatching(problem) as unknown,
    });
  });

  test("needs a text that is marked, marks apart, and words before each", () => {
    const told = (given: Partial<ForwarderMarks>) => {
      const made = anchorsOf(example, { name: null, reference: null, deadline: null, text: null, ...given });
      return made.ok ? "fine" : made.problem;
    };
    expect(told({ text: marks.text })).toBe("fine");
    expect(told({ name: marks.name })).toBe("Nothing is marked as the text");
    expect(told({ text: marks.text, name: span("folded") })).toMatch(/overlaps/);
    expect(told({ text: { from: 0, to: 5 } })).toMatch(/Nothing stands before/);
    expect(told({ text: { from: 5, to: 100_000 } })).toBe("Nothing is marked as the text");
  });

  test("gives back whatever was written between its anchors, in time that grows with its length", () => {
    const word = fc
      .stringMatching(/^[A-Za-z0-9 ,.!?'’-]{1,40}$/)
      .filter((text) => text.trim() !== "" && !text.includes("--"));
    fc.assert(
      fc.property(word, word, fc.array(word, { minLength: 1, maxLength: 6 }), (name, reference, lines) => {
        const text = lines.join("\n");
        const mail = example
          .replace("Jo Lind", () => name)
          .replace("QZ-1001", () => reference)
          .replace("Does the crossing take\na folded bicycle?", () => text);
        expect(read(mail)).toMatchObject({
          details: { name: name.trim(), reference: reference.trim(), text: text.trim() },
        });
      }),
    );
  });
});

describe("whom a letter goes to besides", () => {
  const message = {
    from: "Ana@example.org",
    to: ["desk@example.com", "jo@example.org"],
    cc: ["otto@example.net", "JO@example.org"],
  };

  test("to all is everybody once, but neither us nor whom it goes to anyway", () => {
    const ours = new Set(["desk@example.com"]);
    expect(answerAll(message, "ana@example.org", ours)).toEqual({
      ...noCopies,
      to: ["jo@example.org"],
      cc: ["otto@example.net"],
    });
    expect(answerAll(message, "other@example.org", ours).to).toEqual(["ana@example.org", "jo@example.org"]);
    expect(isAlone(answerAll({ ...message, to: [], cc: [] }, "ana@example.org", ours))).toBe(true);
  });

  test("is read as addresses, in lower case, at most fifty of a kind", () => {
    expect(copiesSchema.parse({ cc: [" Ana@Example.org "] })).toEqual({
      ...noCopies,
      cc: ["ana@example.org"],
    });
    expect(copiesSchema.safeParse({ cc: ["ana"] }).success).toBe(false);
    expect(copiesSchema.safeParse({ bcc: Array(51).fill("a@example.org") }).success).toBe(false);
    expect(
      allCopies({ ...noCopies, cc: ["a@example.org"], bcc: ["a@example.org", "b@example.org"] }),
    ).toEqual(["a@example.org", "b@example.org"]);
  });
});
