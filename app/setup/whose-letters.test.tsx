import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, screen } from "@testing-library/react";
import { readMarkdown } from "#core/formats/markdown";
import type { Writer } from "#server/house/writers";
import { showAtDesk } from "../testing/desk";
import { printedBy, WhoseLetters } from "./whose-letters";

afterEach(cleanup);

const writer = (id: number, changes: Partial<Writer> = {}): Writer => ({
  id,
  name: `Person ${id}`,
  teams: [1],
  lacks: [],
  signs: false,
  ...changes,
});
const agent = { id: 99, role: "agent" as const };
const note = () => screen.getByRole("note", { name: "Whose letters change" });

describe("whose letters change", () => {
  test("is said by name as far as names can be taken in, then by number", () => {
    showAtDesk(<WhoseLetters writers={[1, 2, 3, 4, 5].map((id) => writer(id))} prints={[]} viewer={agent} />);
    expect(note()).toHaveTextContent(
      "Letters of 5 people change from now on: Person 1, Person 2, Person 3 and 2 more.",
    );
    cleanup();
    showAtDesk(<WhoseLetters writers={[writer(1)]} prints={[]} viewer={agent} />);
    expect(note()).toHaveTextContent(/^Letters of Person 1 change from now on\.$/);
    cleanup();
    showAtDesk(<WhoseLetters writers={[]} prints={[]} viewer={agent} />);
    expect(note()).toHaveTextContent("nobody is of this team yet");
  });

  test("goes with who lacks what is printed, and the way to fill it that is open", () => {
    const lacking = [writer(1, { lacks: ["title", "phone"] }), writer(2, { lacks: ["department"] })];
    showAtDesk(<WhoseLetters writers={lacking} prints={["title", "phone"]} viewer={agent} />);
    expect(note()).toHaveTextContent(
      "Person 1 has no title and phone number; they fill it in under their name, or a lead does.",
    );
    expect(note()).not.toHaveTextContent("Person 2 has no");
    expect(screen.queryByRole("link")).not.toBeInTheDocument();
    cleanup();
    showAtDesk(<WhoseLetters writers={lacking} prints={["title"]} viewer={{ id: 99, role: "lead" }} />);
    expect(screen.getByRole("link", { name: "Fill in theirs" })).toHaveAttribute("href", "/setup/people/1");
  });

  test("names those whose own signature an imposed one replaces", () => {
    const writers = [writer(1, { signs: true }), writer(2)];
    showAtDesk(<WhoseLetters imposed writers={writers} prints={[]} viewer={agent} />);
    expect(note()).toHaveTextContent("Person 1 has a signature of their own; it will not stand");
    cleanup();
    showAtDesk(<WhoseLetters writers={writers} prints={[]} viewer={agent} />);
    expect(note()).not.toHaveTextContent("signature of their own");
  });
});

test("what documents print of their writer is found wherever it stands", () => {
  const doc = readMarkdown("**{$agent.phone}**\n\n- {$agent.title :text fallback=|x|}\n- {$agent.name}").doc;
  expect(printedBy([null, doc])).toEqual(["title", "phone"]);
  expect(printedBy([readMarkdown("{$agent.name}").doc])).toEqual([]);
});
