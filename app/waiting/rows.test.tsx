import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, screen, within } from "@testing-library/react";
import type { WaitingRow } from "#server/cases/waiting";
import type { Best } from "#server/ranking/kept";
import { show } from "../testing/show";
import { Alike, PlainRows, Ruler } from "./rows";

afterEach(cleanup);

// Without the desk's data, the clock stands at the beginning of 1970 in UTC.
const HOUR = 3_600_000;
const at = (hours: number) => new Date(hours * HOUR).toISOString();

function row(number: number, more: Partial<WaitingRow> = {}): WaitingRow {
  return {
    number,
    label: `SF-${number}`,
    customer: `Customer ${number}`,
    organisation: null,
    subject: "Boat",
    words: "When does it sail?",
    channel: "email",
    topic: null,
    answerBy: at(2),
    waitingSince: at(-1),
    updatedAt: at(-1),
    status: "new",
    assignee: null,
    people: [],
    refused: false,
    ...more,
  };
}

const best = (title: string, fit: number): Best => ({
  reply: { key: title, title, mark: "T", fit, why: "“sail”", ready: true },
});

const listed = { best: {}, selected: null, onSelect: () => undefined, whole: true };
const names = (of: HTMLElement) =>
  within(of)
    .getAllByRole("link")
    .map((one) => one.querySelector("strong")?.textContent);

describe("the ruler", () => {
  const groups = [
    { band: "pastDue" as const, rows: [row(1, { answerBy: at(-2) })] },
    { band: "today" as const, rows: [row(2), row(3, { organisation: "Hotel Zur Mole" })] },
  ];

  test("has a part for each stretch of time, with how many there are and how long each has", () => {
    show(<Ruler groups={groups} {...listed} />);
    const due = screen.getByRole("region", { name: "Past due" });
    expect(within(due).getByRole("heading")).toHaveTextContent("Past due1");
    expect(within(due).getByText("2 h over")).toHaveAttribute("datetime", at(-2));
    expect(names(screen.getByRole("region", { name: "Today" }))).toEqual(["Customer 2", "Hotel Zur Mole"]);
  });

  test("says of each row where in its part it stands, however few are drawn", () => {
    show(<Ruler groups={groups} {...listed} />);
    const items = within(screen.getByRole("region", { name: "Today" })).getAllByRole("listitem");
    expect(items.map((one) => [one.getAttribute("aria-posinset"), one.getAttribute("aria-setsize")])).toEqual(
      [
        ["1", "2"],
        ["2", "2"],
      ],
    );
  });

  test("keeps room for a best reply that is not known yet, and says where nothing fits", () => {
    show(<Ruler groups={groups} {...listed} best={{ 2: best("Timetable", 0.95), 3: { reply: null } }} />);
    const [, fits, none] = screen.getAllByRole("link");
    expect(screen.getAllByRole("link")[0]?.textContent).toContain("\u00a0");
    expect(fits).toHaveTextContent("close fit timetable, “sail”");
    expect(none).toHaveTextContent("nothing on the shelf fits");
  });

  test("tells who is on a case, and that a letter of it was refused", () => {
    const rows = [
      row(4, {
        people: ["Bram", "Nele"],
        refused: true,
        topic: "refunds",
        channel: "sms",
        status: "waiting on a colleague",
      }),
    ];
    show(<Ruler groups={[{ band: "later", rows }]} {...listed} />);
    const link = screen.getByRole("link");
    expect(link).toHaveAccessibleName(/Customer 4 Boat When does it sail\?/);
    for (const words of ["on a colleague", "refused", "Bram, Nele", "refunds", "SMS"])
      expect(within(link).getByText(words)).toBeInTheDocument();
  });

  test("a case is chosen by pointing at it or coming to it by key", async () => {
    const chosen = jest.fn();
    const hand = show(<Ruler groups={groups} {...listed} onSelect={chosen} />);
    await hand.tab();
    await hand.hover(screen.getByRole("link", { name: /Hotel/ }));
    expect(chosen.mock.calls).toEqual([[1], [3]]);
    expect(screen.getAllByRole("link")[2]).toHaveAttribute("href", "/cases/3");
  });

  test("a case without a time to answer says so", () => {
    show(<Ruler groups={[{ band: "later", rows: [row(5, { answerBy: null })] }]} {...listed} />);
    expect(screen.getByText("no time set")).toBeInTheDocument();
  });
});

describe("a long list", () => {
  const rows = Array.from({ length: 120 }, (_, index) => row(index + 1));

  // Nothing is laid out here: rows are given their height.
  const usual = Object.getOwnPropertyDescriptor(HTMLElement.prototype, "offsetHeight");
  beforeEach(() => {
    Object.defineProperty(HTMLElement.prototype, "offsetHeight", { configurable: true, value: 55 });
  });
  afterEach(() => {
    if (usual) Object.defineProperty(HTMLElement.prototype, "offsetHeight", usual);
  });

  test("draws what is in sight and the chosen one with its neighbours", () => {
    show(<Ruler groups={[{ band: "later", rows }]} {...listed} whole={false} selected={100} />);
    const drawn = screen.getAllByRole("link").map((one) => Number(one.id.replace("case-", "")));
    expect(drawn).not.toContain(60);
    expect(drawn).toEqual(expect.arrayContaining([1, 2, 99, 100, 101]));
    expect(drawn).toEqual([...drawn].sort((a, b) => a - b));
  });

  test("is drawn to the last where there is no script to draw more", () => {
    show(<Ruler groups={[{ band: "later", rows }]} {...listed} />);
    expect(screen.getAllByRole("link")).toHaveLength(120);
  });
});

test("cases that one reply fits stand under it, which is not told again in each", () => {
  const { reply } = best("Dogs on board", 0.95);
  const groups = [
    { reply, rows: [row(1), row(2)] },
    { reply: null, rows: [row(3)] },
  ];
  show(<Alike groups={groups} {...listed} best={{ 1: { reply }, 2: { reply }, 3: { reply: null } }} />);
  const dogs = screen.getByRole("region", { name: "Dogs on board" });
  expect(within(dogs).getByRole("heading")).toHaveTextContent("TDogs on board2");
  expect(within(dogs).getAllByRole("link")[0]).toHaveTextContent("close fit “sail”");
  expect(names(screen.getByRole("region", { name: "No sure reply" }))).toEqual(["Customer 3"]);
});

test("cases that wait for the customer tell when they moved last, and no reply", () => {
  show(<PlainRows rows={[row(1, { updatedAt: at(-0.5) })]} {...listed} />);
  expect(screen.getByText("30 min ago")).toBeInTheDocument();
  expect(screen.getByRole("link")).not.toHaveTextContent("fits");
});
