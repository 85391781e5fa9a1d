import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, screen, waitFor, within } from "@testing-library/react";
import type { PastShown, Rehearsal } from "#server/standing/rehearse";
import type { RuleDid, StandingAnswers, StandingRow } from "#server/standing/rules";
import { showAtDesk } from "../testing/desk";
import { Rule } from "./rule";
import { untilOf } from "./until";

afterEach(cleanup);
beforeEach(() => {
  // What the rule would send is read by its address.
  globalThis.fetch = jest.fn(() =>
    Promise.resolve({
      ok: true,
      json: () => Promise.resolve({ text: "Hello Ana, four euros.", stops: null }),
    } as Response),
  );
});

const figures = {
  ...{ otherwise: 2, agreed: 5, unanswered: 0, missed: 1, held: 0, none: 92, wrong: 1 },
  ...{ messages: 100, milliseconds: 1240, at: "2026-11-25T10:00:00Z", rule: "r" },
};
const rule: StandingRow = {
  ...{ id: 4, name: "Bicycles", reply: "bicycles", title: "Bicycles aboard", idle: null, mode: "prepare" },
  ...{
    channels: ["email"],
    mailboxes: [],
    oncePerSenderHours: 24,
    perHour: 60,
    delayMinutes: 10,
    stop: true,
  },
  ...{ trigger: { on: "arrival" }, effects: {}, until: null },
  when: { value: "message.body", is: "contains", to: "bike" },
  ...{ switchedOnAt: null, switchedOnBy: null, offWhy: null, isOver: false, lately: 0 },
  rehearsed: { ...figures, isOfThis: true },
};
const answers: StandingAnswers = {
  rules: [rule],
  mailboxes: [{ id: 1, address: "desk@example.com" }],
  people: [{ id: 7, name: "Nele Vogt" }],
  teams: [{ id: 2, name: "Freight desk" }],
  ...{ topics: ["refunds", "storm"], tags: ["late"], titles: { bicycles: "Bicycles aboard" } },
  own: { fields: [], facts: [], details: [], questions: [] } as unknown as StandingAnswers["own"],
};
const past = (message: number, words: string): PastShown => ({
  ...{
    message,
    case: message,
    label: `SF-${message}`,
    customer: "Ana Quill",
    at: "2026-11-24T10:00:00Z",
    words,
  },
  ...{
    why: "it is for this",
    answer: { by: "Idris Vance", titles: ["Luggage"], words: "It is luggage." },
    should: null,
  },
});
const rehearsal: Rehearsal = {
  figures,
  shown: {
    otherwise: [past(1, "a folded bike"), past(2, "two motorbikes")],
    agreed: [past(3, "my bike")],
    missed: [past(5, "cycling")],
  },
  suggestion: { test: { value: "message.body", is: "lacks", to: "folded" }, otherwise: 1, agreed: 0 },
  clashes: [{ name: "All of it", count: 3 }],
};
const shown = (given: Partial<StandingRow> = {}, did: RuleDid[] = [], saved: object = {}) =>
  showAtDesk(
    <Rule answers={answers} rule={{ ...rule, ...given }} rehearsal={{ kind: "done", rehearsal }} did={did} />,
    { "/standing/save": () => saved },
  );
const button = (name: string | RegExp) => screen.getByRole("button", { name });

describe("the sentence", () => {
  test("reads as one, and each part opens where it stands", async () => {
    const { hand, asked } = shown();
    const sentence = screen.getByRole("form", { name: "The rule, as a sentence" });
    expect(sentence).toHaveTextContent(
      /When a message comes in at any mailbox by email, and the message’s text contains “bike”, it is answered with Bicycles aboard in the customer’s language, after 10 minutes; nothing else happens\./,
    );
    expect(screen.queryByRole("button", { name: "Save the rule" })).toBeNull();
    await hand.click(button("Mailbox: any mailbox"));
    await hand.click(screen.getByRole("checkbox", { name: "desk@example.com" }));
    await hand.keyboard("{Escape}");
    await hand.click(button("Hours before the same sender hears it again: 24 hours"));
    const hours = screen.getByRole("spinbutton");
    await hand.clear(hours);
    await hand.type(hours, "1");
    await hand.keyboard("{Escape}");
    await hand.click(button("no other rule is asked"));
    expect(sentence).toHaveTextContent("comes in at desk@example.com by email");
    expect(sentence).toHaveTextContent("the same sender twice in 1 hour");
    await hand.click(button("Save the rule"));
    await waitFor(() =>
      expect(asked).toMatchObject([
        {
          to: "/standing/save",
          body: { id: 4, rule: { mailboxes: [1], oncePerSenderHours: 1, stop: false } },
        },
      ]),
    );
  });

  test("without a name it is not saved, and says so", async () => {
    const { hand, asked } = shown();
    await hand.clear(screen.getByRole("textbox", { name: "Its name" }));
    await hand.click(button("Save the rule"));
    expect(await screen.findByText("Give it a name")).toBeVisible();
    expect(asked).toEqual([]);
  });

  test("what it asks for can be taken away: then it is for all", async () => {
    const { hand } = shown();
    await hand.click(button(/^Its condition/));
    await hand.click(button("whatever it says"));
    expect(screen.getByRole("form", { name: "The rule, as a sentence" })).toHaveTextContent(
      "by email, whatever it says, it is",
    );
  });
});

describe("when it is asked, and what else happens", () => {
  test.each<[StandingRow["trigger"], StandingRow["effects"], RegExp]>([
    [
      { on: "silence", of: "customer", hours: 72 },
      { state: "settled", tags: ["late"] },
      /When the customer has been silent for 3 days, on a case that came to any mailbox .*; the case is settled and it is tagged late\./,
    ],
    [
      { on: "silence", of: "us", hours: 7 },
      { owner: 7, team: 2 },
      /When we have been silent for 7 hours, .*; it is Nele Vogt’s and it goes to Freight desk\./,
    ],
    [
      { on: "state", into: ["settled", "set aside"] },
      { topic: "storm", owner: 99 },
      /When a case becomes settled and set aside, .*; its topic is storm and it is somebody who is gone’s\./,
    ],
    [
      { on: "topic", into: ["refunds"] },
      {},
      /When the topic of a case becomes refunds, .*; nothing else happens\./,
    ],
    [{ on: "topic", into: [] }, {}, /When a case changes its topic,/],
    [{ on: "owner" }, {}, /When a case becomes somebody’s,/],
  ])("%j with %j reads as a sentence", (trigger, effects, words) => {
    shown({ trigger, effects });
    expect(screen.getByRole("form", { name: "The rule, as a sentence" })).toHaveTextContent(words);
  });

  test("both are chosen where they stand, by keyboard, and saved", async () => {
    const { hand, asked } = shown({}, [], { id: 4, clashes: [{ name: "Greeting", isOn: false, count: 2 }] });
    button("When it is asked: a message comes in").focus();
    await hand.keyboard("{Enter}");
    await hand.click(screen.getByRole("combobox", { name: "When it is asked" }));
    await hand.click(screen.getByRole("option", { name: "the customer is silent" }));
    const hours = screen.getByRole("spinbutton", { name: /For so many hours/ });
    await hand.clear(hours);
    expect(await screen.findByText("From 1 hour to 8,784.")).toBeVisible();
    await hand.type(hours, "144");
    await hand.keyboard("{Escape}");
    expect(button("When it is asked: the customer has been silent for 6 days")).toHaveFocus();
    await hand.click(button("What else happens: nothing else happens"));
    await hand.click(screen.getByRole("combobox", { name: "State" }));
    await hand.click(screen.getByRole("option", { name: "settled" }));
    await hand.keyboard("{Escape}");
    await hand.click(button("Save the rule"));
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]).toMatchObject({
      to: "/standing/save",
      body: {
        rule: { trigger: { on: "silence", of: "customer", hours: 144 }, effects: { state: "settled" } },
      },
    });
    // Rules that are for the same are named at once.
    expect(
      await screen.findByText(/“Greeting”, which is off, is for 2 of the same latest messages/),
    ).toBeVisible();
  });

  test("a test of the reply that fits best is told by its title, and of how it fits in words", () => {
    const when = {
      all: [
        { value: "message.best_reply", is: "equals" as const, to: "bicycles" },
        { value: "message.best_fit", is: "equals" as const, to: "close" },
        { value: "case.state", is: "differs" as const, to: "waiting on the customer" },
      ],
    };
    shown({ when });
    expect(
      button(
        /the reply that fits best is “Bicycles aboard”.*how the best one fits is “closely”.*Its state is not “waiting on the customer”/,
      ),
    ).toBeVisible();
  });
});

describe("switching", () => {
  test("on until a time: the end of the day where the lead is, or one that is chosen", async () => {
    const { hand, asked } = shown();
    await hand.click(screen.getByRole("combobox", { name: "How long it is on" }));
    await hand.click(screen.getByRole("option", { name: "until …" }));
    // Until a day that is not chosen yet, nothing is switched on.
    expect(button("Switch on: prepare drafts")).toBeDisabled();
    await hand.type(await screen.findByRole("textbox", { name: "Day of its end" }), "24 December 2030");
    await hand.tab();
    await waitFor(() => expect(button("Switch on: prepare drafts")).toBeEnabled());
    await hand.click(button("Switch on: prepare drafts"));
    expect(asked).toEqual([
      { to: "/standing/4/switch", body: { to: "prepare", until: "2030-12-24T18:00:00.000Z" } },
    ]);
  });

  test("the ends of days are those of the clock on the wall, also when it changes", () => {
    const clock = { now: Date.parse("2026-10-24T10:00:00Z"), timeZone: "Europe/Berlin" };
    expect(untilOf({ kind: "ever" }, clock)).toBeNull();
    expect(untilOf({ kind: "two hours" }, clock)).toBe("2026-10-24T12:00:00.000Z");
    expect(untilOf({ kind: "today" }, clock)).toBe("2026-10-24T21:59:59.999Z");
    expect(untilOf({ kind: "tomorrow" }, clock)).toBe("2026-10-25T22:59:59.999Z");
    expect(untilOf({ kind: "then", day: "2026-10-26", time: "18:30" }, clock)).toBe(
      "2026-10-26T17:30:00.000Z",
    );
    expect(untilOf({ kind: "then", day: "", time: "18:30" }, clock)).toBeNull();
    expect(untilOf({ kind: "then", day: "2026-10-26", time: "" }, clock)).toBeNull();
  });

  test("to send by itself is asked with the figures said back, and can be left", async () => {
    const { hand, asked } = shown();
    await hand.click(button("let it send…"));
    const question = await screen.findByRole("alertdialog", { name: "Let “Bicycles” send by itself?" });
    expect(question).toHaveTextContent(
      "Of the last 100 messages it would have answered 7; 2 of them a person answered with something else, and 1 that people answered with its reply it would have missed.",
    );
    await hand.keyboard("{Escape}");
    expect(asked).toEqual([]);
    await hand.click(button("let it send…"));
    await hand.click(
      within(await screen.findByRole("alertdialog")).getByRole("button", { name: "Let it send" }),
    );
    expect(asked).toEqual([{ to: "/standing/4/switch", body: { to: "send", until: null } }]);
  });

  test("a rule that was not rehearsed as it is, or is changed, is not switched on", async () => {
    const { hand } = shown({ rehearsed: { ...figures, isOfThis: false } });
    expect(screen.getByText("Rehearse it, then it can be switched on.")).toBeVisible();
    expect(screen.getByText("These are of the rule as it was before: rehearse it as it is.")).toBeVisible();
    await hand.click(button("no other rule is asked"));
    expect(screen.getByText("Save it, then rehearse it.")).toBeVisible();
    expect(button("Rehearse")).toBeDisabled();
  });

  test("one that is on says who switched it on, and is switched off", async () => {
    const { hand, asked } = shown({
      switchedOnAt: "2026-11-25T10:00:00Z",
      switchedOnBy: "Sunniva Holt",
      mode: "send",
    });
    expect(screen.getByText("Sunniva Holt switched it on")).toBeVisible();
    await hand.click(button("only prepare drafts"));
    await waitFor(() => expect(button("Switch it off")).toBeEnabled());
    await hand.click(button("Switch it off"));
    expect(asked.map(({ body }) => body)).toEqual([
      { to: "prepare", until: null },
      { to: "off", until: null },
    ]);
  });
});

describe("the rehearsal", () => {
  test("tells each side in words, what was marked and comes out otherwise, and other rules for the same", () => {
    shown();
    const region = screen.getByRole("region", { name: "Rehearsal" });
    for (const words of [
      "5 it would have answered as people did",
      "2 that a person answered otherwise",
      "92 none of its business",
    ])
      expect(region).toHaveTextContent(words);
    expect(region).toHaveTextContent("1 that was marked comes out otherwise");
    expect(region).toHaveTextContent("“All of it” is on and is for 3 of the same.");
    expect(region).toHaveTextContent("read in 1.2 s");
  });

  test("adds the test that it suggests to the sentence", async () => {
    const { hand } = shown();
    await hand.click(button("add it"));
    expect(screen.getByRole("form", { name: "The rule, as a sentence" })).toHaveTextContent(
      "contains “bike” and the message’s text does not contain “folded”",
    );
    expect(button("Save the rule")).toBeVisible();
  });

  test("is begun on as many messages as are chosen", async () => {
    const { hand, asked } = shown();
    await hand.click(button("Rehearse"));
    expect(asked).toEqual([{ to: "/standing/4/rehearse", body: { most: 5000 } }]);
  });

  test("is leafed through, those answered otherwise first, beside what the rule would send; and each can be marked", async () => {
    const { hand, asked } = shown();
    const leaves = screen.getByRole("region", { name: "Where people did otherwise" });
    expect(leaves).toHaveTextContent("1 of 2");
    const leaf = () => within(leaves).getByRole("article");
    expect(leaf()).toHaveTextContent("a folded bike");
    expect(leaf()).toHaveTextContent("It is luggage.");
    expect(await within(leaf()).findByText("Hello Ana, four euros.")).toBeVisible();
    await hand.click(button("Next"));
    expect(leaf()).toHaveTextContent("two motorbikes");
    expect(button("Next")).toBeDisabled();
    await hand.click(button("it should not answer this"));
    expect(asked).toEqual([{ to: "/standing/4/mark", body: { message: 2, should: false } }]);
    expect(await screen.findByText("You said: it is not to answer this.")).toBeVisible();
    await hand.click(button(/that people answered with its reply, and it misses/));
    expect(screen.getByRole("region", { name: "What it misses" })).toHaveTextContent("cycling");
  });
});

test("what it did is listed with why, and what has not left is called back", async () => {
  const one = {
    id: 1,
    message: 9,
    case: 20188,
    label: "SF-20188",
    customer: "Ana Quill",
    words: "my bike",
    at: "2026-11-25T10:00:00Z",
  };
  const { hand, asked } = shown({}, [
    { ...one, does: "send", why: "it is for this", letter: 77, dueAt: "2026-11-25T10:10:00Z" },
    { ...one, id: 2, does: "held", why: "it came by a list (List-Id)", letter: null, dueAt: null },
  ]);
  const did = screen.getByRole("region", { name: "What it did" });
  expect(within(did).getAllByRole("row")).toHaveLength(3);
  expect(did).toHaveTextContent("did not answer");
  expect(did).toHaveTextContent("it came by a list (List-Id)");
  await hand.click(button("call it back"));
  expect(asked).toEqual([{ to: "/messages/77/call-back", body: {} }]);
});

describe("what a rule let pass", () => {
  const asks = async (answer: object, ok = true) => {
    const letter = globalThis.fetch;
    globalThis.fetch = jest.fn((address: RequestInfo | URL, init?: RequestInit) =>
      typeof address === "string" && address.endsWith("/let-pass")
        ? Promise.resolve({ ok, status: ok ? 200 : 409, json: () => Promise.resolve(answer) } as Response)
        : letter(address, init),
    );
    const { hand } = shown({ switchedOnAt: "2026-11-25T10:00:00Z" });
    await hand.click(button("what it let pass, and why"));
    expect(globalThis.fetch).toHaveBeenCalledWith("/standing/4/let-pass", expect.anything());
    return screen.getByRole("region", { name: "What it did" });
  };

  test("is read when it is asked for, with why of each", async () => {
    const one = { message: 9, case: 12, label: "SF-12", customer: "Ana Quill", words: "Where is my hat?" };
    const did = await asks({ passed: [{ ...one, why: "it does not hold", at: "2026-11-25T11:00:00Z" }] });
    expect(await within(did).findByRole("heading", { name: "What it let pass" })).toBeInTheDocument();
    expect(within(did).getByRole("row", { name: /SF-12.*hat.*does not hold/ })).toBeInTheDocument();
  });

  test("says so where there is nothing, or why it could not be found out", async () => {
    await asks({ passed: [] });
    expect(await screen.findByText(/^Nothing has come since it was switched on/)).toBeInTheDocument();
    cleanup();
    await asks({ problem: "Ranking knows nothing yet", status: 409 }, false);
    expect(await screen.findByRole("alert")).toHaveTextContent("Ranking knows nothing yet");
  });

  test("is not there for a rule that is off, or is asked of a silence", () => {
    shown();
    expect(screen.queryByRole("button", { name: /let pass/ })).toBeNull();
    cleanup();
    shown({ switchedOnAt: "2026-11-25T10:00:00Z", trigger: { on: "silence", of: "us", hours: 24 } });
    expect(screen.queryByRole("button", { name: /let pass/ })).toBeNull();
  });
});
