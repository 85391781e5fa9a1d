import { describe, expect, test } from "@jest/globals";
import { ferryDetails } from "../../demo/details";
import { passagesSchema } from "../conditions/condition";
import { blanksSchema } from "../tokens/blanks";
import { catalogue } from "../tokens/catalogue";
import { testContext } from "./testing";
import { chooseTrials, type TrialCase, type TriedReply } from "./trials";

const trialCase = (
  number: number,
  changes: Partial<TrialCase> & { context?: TrialCase["context"] } = {},
): TrialCase => ({
  number,
  label: `SF-${number}`,
  customer: "Ottoline",
  channel: "email",
  language: "en",
  subject: "",
  context: testContext(),
  ...changes,
});
const pool = [
  trialCase(1, { context: testContext({ customer: {} }) }),
  trialCase(2, { context: testContext({ booking: {} }), language: "de" }),
  trialCase(3),
  trialCase(4, { context: testContext({ customer: { first_name: "Wolfeschlegelsteinhausenbergerdorff" } }) }),
];
const reply = (changes: Partial<TriedReply> = {}): TriedReply => ({
  tokens: new Set(["customer.first_name", "booking.ship"]),
  blanks: {},
  passages: {},
  languages: ["en"],
  ...changes,
});
const choose = (one: TriedReply, pinned: number[] = []) =>
  chooseTrials(one, pool, pinned, catalogue({ details: ferryDetails })).map(({ case: { number }, why }) => [
    number,
    why,
  ]);

describe("cases to try a reply on", () => {
  test("show each missing value, the longest and the other languages", () => {
    const trials = choose(reply({ tokens: new Set(["customer.first_name", "booking.reference"]) }));
    expect(trials).toEqual([
      [3, ["has what the reply uses"]],
      [1, ["no first name"]],
      [2, ["no booking reference", "writes German"]],
      [4, ["longest values"]],
    ]);
  });

  test("begin with those that the writer chose, also when there are many", () => {
    expect(choose(reply({ tokens: new Set() }), [4, 99])[0]).toEqual([4, ["chosen by you"]]);
  });

  test("show every choice of every blank that steers a passage", () => {
    const blanks = blanksSchema.parse({
      way: { kind: "choice", options: ["a", "b", "c", "d", "e"] },
      car: { kind: "yes_no" },
      spare: { kind: "choice", options: ["x", "y"] },
    });
    const passages = passagesSchema.parse({
      p: { when: { value: "blank.way", is: "equals", to: "a" } },
      q: { when: { value: "blank.car", is: "equals", to: true } },
    });
    const trials = chooseTrials(
      reply({ tokens: new Set(), blanks, passages }),
      pool,
      [],
      catalogue({ details: ferryDetails }),
    );
    expect(trials.map((trial) => trial.values.way)).toEqual(["a", "b", "c", "d", "e"]);
    expect(new Set(trials.map((trial) => trial.values.car))).toEqual(new Set([true, false]));
    expect(trials[1]?.why).toEqual(expect.arrayContaining(["way: b", "car: no"]));
    expect(trials.every((trial) => trial.values.spare === "x")).toBe(true);
  });

  test("are none where there are no cases", () => {
    expect(chooseTrials(reply(), [], [1], catalogue({ details: ferryDetails }))).toEqual([]);
  });
});
