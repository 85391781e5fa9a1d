import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, screen, within } from "@testing-library/react";
import type { Proof, RecordedMessage } from "#server/record/letter";
import { show } from "../testing/show";
import { Beside } from "./beside";
import { RecordedLetter } from "./letter";
import { Timeline } from "./timeline";

afterEach(cleanup);

const at = "2026-11-25T10:00:00.000Z";

const proof: Proof = {
  guessed: false,
  runs: [
    { text: "A change costs ", from: "reply", slip: "s1", passages: ["p1"] },
    { text: "€6.00", from: "token", slip: "s1", name: "house.fee" },
    { text: "\n\n", from: "around", slip: null },
    { text: "I waived it.", from: "hand", slip: "s1" },
    { text: "Maren", from: "token", slip: "signature", name: "agent.name" },
  ],
  trace: [
    { kind: "passage", slip: "s1", name: "p1", value: "in", why: "the booking has a vehicle" },
    { kind: "passage", slip: "s1", name: "p2", value: "out", why: "the booking has a dog" },
    { kind: "token", slip: "signature", name: "agent.name", value: "Maren", why: "from the agent" },
  ],
  replies: [
    {
      slip: "s1",
      key: "fee",
      title: "The fee",
      part: "answer",
      language: "en",
      version: { id: 7, number: 3, publishedAt: at, publishedBy: "Tadeo Rioja" },
      changed: true,
      letters: 212,
      rewritten: 0.25,
    },
  ],
  offers: [{ title: "The fee", fit: 0.9, taken: true, sent: true }],
  gap: false,
  checks: [{ severity: "look", code: "link-differs", message: "The link says something else.", at: null }],
};

const letter: RecordedMessage = {
  id: 5,
  direction: "out",
  channel: "email",
  kind: "message",
  state: "sent",
  by: "Bram Osei",
  fromName: "Bram Osei, Desk",
  fromAddress: "desk@example.com",
  toAddress: "ana@example.org",
  copies: null,
  subject: "Re: fee",
  text: "A change costs €6.00\n\nI waived it.Maren",
  at,
  sentAt: at,
  deliveredAt: null,
  readAt: null,
  refusal: null,
  hasRaw: true,
  hasHtml: false,
  files: [],
  proof,
};

describe("a letter on the record", () => {
  test("has a link on all its words but breaks, and says by whom its own words are", () => {
    show(<RecordedLetter message={letter} chosen={3} />);
    const paper = screen.getByRole("article", { name: "The letter" });
    expect(within(paper).getByRole("link", { name: "I waived it." }).getAttribute("aria-current")).toBe(
      "true",
    );
    expect(within(paper).getByRole("link", { name: "€6.00" }).getAttribute("href")).toContain("run=1");
    expect(paper.textContent).toContain("Dashed: Bram Osei’s own words");
    expect(within(paper).getByRole("link", { name: "source" }).getAttribute("href")).toBe("/messages/5/raw");
    expect(within(paper).queryByRole("link", { name: "as it was shown" })).toBeNull();
  });

  test("from before the source of words was kept leads nowhere and says so", () => {
    show(<RecordedLetter message={{ ...letter, proof: { ...proof, guessed: true } }} chosen={null} />);
    expect(screen.queryByRole("link", { name: "€6.00" })).toBeNull();
    expect(screen.getByText(/from before the source of each word was kept/)).toBeDefined();
  });

  test.each([
    [
      "refused",
      { state: "refused", refusal: "no such user" } as const,
      /refused by the server of ana@example.org: no such user/,
    ],
    ["called back", { state: "called back", sentAt: null } as const, /called back before it left/],
    ["not sent yet", { state: "due", sentAt: null } as const, /, to ana@example.org/],
  ])("that was %s says so", (_what, changes, words) => {
    show(<RecordedLetter message={{ ...letter, ...changes }} chosen={null} />);
    expect(screen.getByText(words)).toBeDefined();
  });
});

describe("beside a letter", () => {
  const beside = (run: number | null, fact: Parameters<typeof Beside>[0]["fact"] = null) => {
    show(
      <Beside
        message={letter}
        run={run === null ? null : (proof.runs?.[run] ?? null)}
        fact={fact}
        label="fee"
      />,
    );
    return screen.getByRole("complementary").textContent;
  };

  test("stands how it was made: its replies, what was left out, the second look and what the shelf offered", () => {
    const words = beside(null);
    expect(words).toContain("The fee, version 3");
    expect(words).toContain("published by Tadeo Rioja");
    expect(words).toContain("25% of its words written anew");
    expect(words).toContain("left out: the booking has a dog");
    expect(words).toContain("The link says something else.");
    expect(words).toContain("Bram Osei went on.");
    expect(words).toContain("The fee (close fit, sent)");
    expect(screen.getByRole("link", { name: "212 letters used this version" }).getAttribute("href")).toBe(
      "/record?reply=fee&version=7",
    );
    expect(screen.getByRole("link", { name: "compare with today’s" }).getAttribute("href")).toBe(
      "/replies/fee/history?before=7",
    );
  });

  test("stands of a reply’s words the passage that they are in, and why it stood", () => {
    expect(beside(0)).toContain("stood: the booking has a vehicle");
  });

  test("stands of a house fact who set it, what it was, and what others were told", () => {
    const words = beside(1, {
      then: {
        label: "fee",
        type: "money",
        by: "Tadeo Rioja",
        from: at,
        before: { value: { amount: 4, currency: "EUR" }, by: null, from: at },
      },
      otherwise: [{ case: 9, message: 8, who: "Idris Vance", customer: "Hotel Brandt", value: "€4.00", at }],
    });
    expect(words).toContain("“€6.00”, set by Tadeo Rioja");
    expect(words).toContain("before that €4.00");
    expect(words).toContain("Idris Vance told Hotel Brandt “€4.00”");
    expect(screen.getByRole("link", { name: "that letter" }).getAttribute("href")).toBe(
      "/cases/9/record?message=8",
    );
  });

  test("stands of own words whose they are and into which reply they were put", () => {
    const words = beside(3);
    expect(words).toContain("written by Bram Osei");
    expect(words).toContain("put into the words of “The fee”");
  });

  test("stands of a signature’s value where it came from", () => {
    expect(beside(4)).toContain("from the agent");
  });
});

test("the history tells messages and what was done, and which message is open", () => {
  show(
    <Timeline
      forwarder={null}
      chosen={2}
      entries={[
        {
          message: 1,
          at,
          direction: "in",
          channel: "email",
          kind: "message",
          state: "received",
          who: "Ana",
          words: "hello",
          replies: [],
        },
        {
          message: 2,
          at,
          direction: "out",
          channel: "email",
          kind: "message",
          state: "called back",
          who: "Bram Osei",
          words: "x",
          replies: [{ title: "The fee", version: 3 }],
        },
        {
          message: 3,
          at,
          direction: "out",
          channel: "email",
          kind: "message",
          state: "refused",
          who: "Bram Osei",
          words: "x",
          replies: [],
        },
        {
          message: 4,
          at,
          direction: "in",
          channel: "email",
          kind: "pressed",
          state: "received",
          who: "Ana",
          words: "yes",
          replies: [],
        },
        { id: 1, kind: "state", at, who: "Maren Oduya", what: "settled SF-1", undo: null },
      ]}
    />,
  );
  const rows = screen.getAllByRole("listitem").map((row) => row.textContent ?? "");
  expect(rows[0]).toContain("Ana wrote, email");
  expect(rows[1]).toContain("Bram Osei answered");
  expect(rows[1]).toContain("The fee, version 3");
  expect(rows[1]).toContain("called back, never sent");
  expect(rows[2]).toContain("answered in own words");
  expect(rows[3]).toContain("Ana pressed an answer");
  expect(rows[4]).toContain("Maren Oduya settled SF-1");
  expect(
    screen.getAllByRole("link").filter((link) => link.getAttribute("aria-current") === "true"),
  ).toHaveLength(1);
});

test("the history tells on whose behalf a notice went, and who brings the customer’s words", () => {
  const said = { at, channel: "email" as const, state: "sent" as const, words: "hello", replies: [] };
  show(
    <Timeline
      forwarder="Harbour Market"
      chosen={null}
      entries={[
        { ...said, message: 1, direction: "in", kind: "message", who: "Ana", state: "received" },
        { ...said, message: 2, direction: "out", kind: "notice", who: "Bram Osei" },
      ]}
    />,
  );
  const rows = screen.getAllByRole("listitem").map((row) => row.textContent);
  expect(rows[0]).toContain("Ana wrote, email, through Harbour Market");
  expect(rows[1]).toContain("A notice went by itself, on behalf of Bram Osei");
});
