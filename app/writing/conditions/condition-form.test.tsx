import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, screen, within } from "@testing-library/react";
import { useState } from "react";
import type { Condition } from "#core/conditions/condition";
import { conditionSchema } from "#core/conditions/condition";
import type { Blanks } from "#core/tokens/blanks";
import { catalogue } from "#core/tokens/catalogue";
import { choose, show } from "../../testing/show";
import { ferryDetails } from "../../../demo/details";
import { ConditionForm } from "./condition-form";
import { firstTest } from "./new-passage";

const field = { type: "text" as const, example: null, topics: [], required: false };
const tokens = catalogue({
  details: ferryDetails,
  fields: [
    { ...field, of: "case", key: "berth", label: "berth", retired: false },
    { ...field, of: "case", key: "pier", label: "pier of old", retired: true },
    { ...field, of: "case", key: "jetty", label: "jetty of old", retired: true },
  ],
});

afterEach(cleanup);

const usual = { required: true, printed: true };
const blanks: Blanks = {
  lane: { ...usual, kind: "number", label: "lane" },
  wish: { ...usual, kind: "choice", label: "wish", options: ["refund", "change"], many: false },
};

let latest: Condition;

function Form({ first }: { first: Condition }) {
  const [condition, setCondition] = useState(first);
  return (
    <ConditionForm
      condition={condition}
      onChange={(next) => {
        latest = next;
        setCondition(next);
      }}
      onRemove={null}
      tokens={tokens}
      blanks={blanks}
    />
  );
}

function begin(first: Condition) {
  latest = first;
  return show(<Form first={first} />);
}

describe("a single test", () => {
  test("offers of what is retired only what it asks for already", async () => {
    const user = begin({ value: "case.pier", is: "present" });
    await user.click(screen.getByRole("combobox", { name: "What is asked for" }));
    expect(screen.getByRole("option", { name: "berth" })).toBeTruthy();
    expect(screen.getByRole("option", { name: "pier of old" })).toBeTruthy();
    expect(screen.queryByRole("option", { name: "jetty of old" })).toBeNull();
  });

  test("keeps what it asks for, and changes how", async () => {
    const user = begin({ value: "blank.wish", is: "equals", to: "refund" });
    await choose(user, screen.getByRole("combobox", { name: "How it is compared" }), "is not");
    expect(latest).toEqual({ value: "blank.wish", is: "differs", to: "refund" });
  });

  test("of a choice compares with its own options only", async () => {
    const user = begin({ value: "blank.wish", is: "one_of", to: ["refund"] });
    await user.click(screen.getByRole("checkbox", { name: "change" }));
    expect(latest).toEqual({ value: "blank.wish", is: "one_of", to: ["refund", "change"] });
    await user.click(screen.getByRole("checkbox", { name: "refund" }));
    expect(latest).toEqual({ value: "blank.wish", is: "one_of", to: ["change"] });
    // One of nothing is no test.
    await user.click(screen.getByRole("checkbox", { name: "change" }));
    expect(latest).toEqual({ value: "blank.wish", is: "one_of", to: ["change"] });
  });

  test("says of a pattern that it cannot be used", async () => {
    const user = begin({ value: "message.body", is: "matches", to: "refund" });
    const pattern = screen.getByRole("textbox", { name: "Pattern" });
    await user.clear(pattern);
    await user.type(pattern, "(refund");
    expect(await screen.findByText(/^This pattern cannot be read: /)).toBeVisible();
    expect(pattern).toBeInvalid();
    await user.type(pattern, ")");
    expect(screen.queryByText(/^This pattern cannot be read/)).toBeNull();
    expect(latest).toMatchObject({ is: "matches", to: "(refund)" });
  });
});

describe("a group", () => {
  const group: Condition = {
    all: [
      { value: "booking.reference", is: "present" },
      { value: "blank.wish", is: "equals", to: "refund" },
    ],
  };

  test("of all becomes one of any, or of none", async () => {
    const user = begin(group);
    const kind = screen.getByRole("combobox", { name: "How many must hold" });
    await choose(user, kind, "any of these");
    expect(latest).toEqual({ any: group.all });
    await choose(user, kind, "none of these");
    expect(latest).toEqual({ not: { any: group.all } });
  });

  test("takes a test more, and a group within it, of the reply's own blanks", async () => {
    const user = begin(group);
    await user.click(screen.getByRole("button", { name: "and a test" }));
    await user.click(screen.getByRole("button", { name: "and a group" }));
    const asked = { value: "blank.wish", is: "equals", to: "refund" };
    expect(latest).toEqual({ all: [...group.all, asked, { any: [asked] }] });
    expect(conditionSchema.safeParse(latest).success).toBe(true);
  });

  test("loses a test, and its last one cannot go where the whole cannot", async () => {
    const user = begin(group);
    const [first] = screen.getAllByRole("button", { name: "remove" });
    if (!first) throw new Error("Nothing can be dropped");
    await user.click(first);
    expect(latest).toEqual({ all: [group.all[1]] });
    expect(screen.queryByRole("button", { name: "remove" })).toBeNull();
  });

  test("within a group goes with its last test", async () => {
    const user = begin({
      all: [{ value: "booking.reference", is: "present" }, { any: [firstTest(blanks, tokens)] }],
    });
    const inner = screen.getAllByRole("group").at(-1);
    if (!inner) throw new Error("There is no group within");
    const drops = within(inner).getAllByRole("button", { name: "remove" });
    const last = drops.at(-1);
    if (!last) throw new Error("Nothing can be dropped");
    await user.click(last);
    expect(latest).toEqual({ all: [{ value: "booking.reference", is: "present" }] });
  });
});

test("a new condition asks for the first choice of a blank, else for the booking", () => {
  expect(firstTest(blanks, tokens)).toEqual({ value: "blank.wish", is: "equals", to: "refund" });
  expect(firstTest({ sure: { ...usual, kind: "yes_no", label: "sure" } }, tokens)).toEqual({
    value: "blank.sure",
    is: "equals",
    to: true,
  });
  expect(firstTest({ lane: { ...usual, kind: "number", label: "lane" } }, tokens)).toEqual({
    value: "booking.reference",
    is: "present",
  });
});

test("a house that asks no outside system is asked about first names", () => {
  expect(firstTest({}, catalogue())).toEqual({ value: "customer.first_name", is: "present" });
});
