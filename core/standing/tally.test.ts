import { describe, expect, test } from "@jest/globals";
import { evaluate } from "../conditions/evaluate";
import { re2Patterns } from "../conditions/re2";
import { valuesOfMessage } from "./decide";
import { incomingSchema } from "./message";
import { sideOf, Tally, type Side } from "./tally";

const values = (body: string, given: object = {}) =>
  valuesOfMessage(
    incomingSchema.parse({
      ...{
        id: 1,
        at: "2026-11-25T10:00:00Z",
        channel: "email",
        from: "ana@example.org",
        to: "desk@example.com",
      },
      ...{ body, ...given },
    }),
    re2Patterns,
  );
const by = (...replies: string[]) => ({ replies, byHand: false });

describe("what a rule would have been to a message", () => {
  test.each([
    ["send", by("got-it"), "agreed"],
    ["prepare", by("late", "got-it"), "agreed"],
    ["instead", by("late"), "otherwise"],
    ["send", { replies: [], byHand: true }, "otherwise"],
    ["send", by(), "unanswered"],
    ["passes", by("got-it"), "missed"],
    ["passes", by("late"), "none"],
    ["passes", by(), "none"],
    ["held", by("got-it"), "held"],
  ] as const)("%s, answered by %j: %s", (does, answered, side) => {
    expect(sideOf(does, answered, "got-it")).toBe(side);
  });
});

describe("a tally", () => {
  const tallied = (all: [Side, string, object?][]) => {
    const tally = new Tally<string>();
    for (const [side, body, given] of all) tally.add(side, values(body, given), () => body);
    return tally;
  };

  test("counts each side, and keeps the latest of all but the rest to be read", () => {
    const many = Array.from({ length: 500 }, (_, index): [Side, string] => ["agreed", `message ${index}`]);
    const tally = tallied([...many, ["none", "of no business"], ["otherwise", "the gate is shut"]]);
    expect(tally.counts).toEqual({ otherwise: 1, agreed: 500, unanswered: 0, missed: 0, held: 0, none: 1 });
    const latest = tally.latest("agreed");
    expect(latest).toHaveLength(60);
    expect(latest.slice(0, 2)).toEqual(["message 499", "message 498"]);
    expect(tally.latest("none")).toEqual([]);
  });

  test("suggests the value that tells disagreements apart", () => {
    const of = (side: Side, topic: string, count: number) =>
      Array.from({ length: count }, (): [Side, string, object] => [
        side,
        "when does it sail",
        { organisation: { kind: topic } },
      ]);
    const tally = tallied([
      ...of("agreed", "hotel", 30),
      ...of("otherwise", "agency", 9),
      ...of("otherwise", "hotel", 2),
    ]);
    const found = tally.suggestion();
    expect(found).toEqual({
      test: { value: "organisation.kind", is: "equals", to: "hotel" },
      otherwise: 9,
      agreed: 0,
    });
    // It says what it says: the test fails for those that it takes away, and holds for the others.
    const holds = (topic: string) =>
      found && evaluate(found.test, values("", { organisation: { kind: topic } })).holds;
    expect([holds("hotel"), holds("agency")]).toEqual([true, false]);
  });

  test("suggests a word where no value does", () => {
    const tally = tallied([
      ...Array.from({ length: 10 }, (): [Side, string] => ["agreed", "Where is my ticket"]),
      ...Array.from({ length: 4 }, (_, at): [Side, string] => [
        "otherwise",
        `I am in the Hospital, ticket ${at}`,
      ]),
    ]);
    expect(tally.suggestion()).toEqual({
      test: { value: "message.body", is: "lacks", to: "hospital", ignore_case: true },
      ...{ otherwise: 4, agreed: 0 },
    });
  });

  test("suggests nothing that costs more than it wins, and nothing where people agree", () => {
    const same: [Side, string][] = [
      ["agreed", "where is my ticket"],
      ["agreed", "where is my ticket"],
      ["otherwise", "where is my ticket"],
    ];
    expect(tallied(same).suggestion()).toBeNull();
    expect(tallied(same.slice(0, 2)).suggestion()).toBeNull();
    // What would leave nothing is no test, but the end of the rule.
    expect(tallied(same.slice(2)).suggestion()).toBeNull();
  });
});
