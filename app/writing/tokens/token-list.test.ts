import { expect, test } from "@jest/globals";
import { ferryDetails } from "../../../demo/details";
import { blanksSchema } from "#core/tokens/blanks";
import { catalogue } from "#core/tokens/catalogue";
import { nearest, valueRows } from "./token-list";

const rows = valueRows(
  catalogue({
    details: ferryDetails,
    fields: [
      {
        ...{ of: "case", key: "goodwill", label: "goodwill given", type: "money", example: null },
        ...{ options: [], topics: [], required: false, retired: false },
      },
      {
        ...{ of: "case", key: "good_old_days", label: "good old days", type: "text", example: null },
        ...{ options: [], topics: [], required: false, retired: true },
      },
    ],
  }),
  blanksSchema.parse({ harbour: { kind: "choice", label: "Which harbour?", options: ["Pellick"] } }),
  { topics: [], withBooking: false },
  (name) => (name === "customer.first_name" ? "Ana" : null),
);
const first = (searched: string) => nearest(rows, searched)[0]?.name;

test("all groups are listed, with what may be missing and why", () => {
  expect(new Set(rows.map((row) => row.group))).toEqual(
    new Set(["Blanks of this reply", "Case", "Customer", "Organisation", "Booking", "Agent", "House facts"]),
  );
  expect(rows.find((row) => row.name === "customer.first_name")).toMatchObject({
    sample: "Ana",
    uncertain: "not every customer told us",
  });
  expect(rows.find((row) => row.name === "case.number")?.uncertain).toBeNull();
  expect(rows.map((row) => row.name)).not.toContain("case.good_old_days");
});

test.each([
  ["first", "customer.first_name"],
  ["book ref", "booking.reference"],
  ["good", "case.goodwill"],
  ["harb", "harbour"],
  ["agnt nme", "agent.name"],
  ["customer.email", "customer.email"],
])("“%s” finds %s first", (searched, name) => {
  expect(first(searched)).toBe(name);
});

test("nothing is found where nothing is like it", () => {
  expect(nearest(rows, "xyz")).toEqual([]);
});
