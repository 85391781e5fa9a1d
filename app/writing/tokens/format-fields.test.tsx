import { afterEach, expect, jest, test } from "@jest/globals";
import { cleanup, screen } from "@testing-library/react";
import type { ComponentProps } from "react";
import { formatValue } from "#core/tokens/format";
import { choose, show } from "../../testing/show";
import { FormatFields } from "./format-fields";

afterEach(cleanup);

type Props = ComponentProps<typeof FormatFields>;

function begin(props: Omit<Props, "onChange">) {
  const changed = jest.fn<Props["onChange"]>();
  return { changed, user: show(<FormatFields {...props} onChange={changed} />) };
}

const list = (name: string) => screen.getByRole("combobox", { name });

test("a way of writing keeps what was said for a missing value", async () => {
  const { changed, user } = begin({
    type: "date",
    fn: null,
    options: { fallback: "soon" },
    isToken: true,
  });
  await choose(user, list("Format"), "date with weekday");
  expect(changed.mock.calls).toEqual([
    ["date", { length: "long", fields: "month-day-weekday", fallback: "soon" }],
  ]);
});

test("going back to the usual one leaves a function for what else is said, and none without", async () => {
  const { changed, user } = begin({
    type: "money",
    fn: "currency",
    options: { fractionDigits: "0", fallback: "nothing yet" },
    isToken: true,
  });
  await choose(user, list("Format"), "as usual");
  expect(changed.mock.calls).toEqual([["currency", { fallback: "nothing yet" }]]);
  cleanup();
  const bare = begin({ type: "money", fn: "currency", options: { fractionDigits: "0" }, isToken: true });
  await choose(bare.user, list("Format"), "as usual");
  expect(bare.changed.mock.calls).toEqual([[null, {}]]);
});

test("a format that none of the ways is stays its own", () => {
  begin({ type: "number", fn: "number", options: { minimumFractionDigits: "5" }, isToken: true });
  expect(screen.getByRole("combobox", { name: "Format" })).toHaveTextContent("its own format");
});

test("words take capitals, and a fallback stands in for them", async () => {
  const { changed, user } = begin({ type: "text", fn: null, options: {}, isToken: true });
  expect(screen.queryByRole("combobox", { name: "Format" })).toBeNull();
  await choose(user, list("Capitals"), "ALL CAPITALS");
  expect(changed.mock.calls).toEqual([["text", { case: "upper" }]]);
  await user.type(screen.getByRole("textbox", { name: "If missing" }), "x");
  expect(changed.mock.calls.at(-1)).toEqual(["text", { fallback: "x" }]);
});

test("an instant may be told in the customer's zone", async () => {
  const { changed, user } = begin({ type: "datetime", fn: null, options: {}, isToken: true });
  await user.click(screen.getByRole("checkbox", { name: "in the customer’s zone" }));
  expect(changed.mock.calls).toEqual([["datetime", { timeZone: "customer" }]]);
});

test("a blank has no fallback: it is filled, or the letter waits", () => {
  begin({ type: "text", fn: null, options: {}, isToken: false });
  expect(screen.queryByRole("textbox", { name: "If missing" })).toBeNull();
});

test.each([
  ["date in words", "28 November 2026"],
  ["date with weekday", "Saturday 28 November"],
  ["short date", "28/11/2026"],
])("%s is written %s", async (way, written) => {
  const { changed, user } = begin({ type: "date", fn: null, options: {}, isToken: true });
  await choose(user, list("Format"), way);
  const [fn = null, options = {}] = changed.mock.calls[0] ?? [];
  const value = { kind: "value", value: "2026-11-28", type: "date" } as const;
  expect(
    formatValue(value, { name: "booking.day", fn, options }, { language: "en-GB", timeZone: "UTC" }),
  ).toMatchObject({ kind: "text", text: written });
});
