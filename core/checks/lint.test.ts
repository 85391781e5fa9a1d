import { expect, test } from "@jest/globals";
import { ferryDetails } from "../../demo/details";
import { readFolder } from "../formats/folder";
import { lint } from "./lint";

const findings = (matter: string, body: string, extra: { path: string; text: string }[] = []) => {
  const { library, problems } = readFolder([
    { path: "weather/a.md", text: `---\nid: a\ntitle: A\n${matter}---\n${body}\n` },
    ...extra,
  ]);
  return lint(library, problems, ferryDetails).map(({ code, message }) => `${code}: ${message}`);
};

test("a sound reply has no findings", () => {
  const matter =
    "blanks:\n  hours: { kind: number, default: '{$booking.passengers}' }\npassages:\n  car: { when: { value: booking.vehicle, is: present } }\n";
  expect(
    findings(
      matter,
      "{$blank.hours :integer} hours :passage[with a car]{#car}, {$customer.first_name :text fallback=|you|}.",
    ),
  ).toEqual([]);
});

test("unknown names, wherever they stand", () => {
  const matter =
    "subject: 'For {$customer.nickname}'\npassages:\n  p: { when: { value: blank.mood, is: present } }\n";
  expect(
    findings(matter, "{$booking.moon :shout} [x](https://example.org/{$case.nummer}) :passage[a]{#q}"),
  ).toEqual([
    "blank-unknown: There is no blank “mood”",
    "passage-unused: The passage that stands when mood is known is used nowhere",
    "token-unknown: There is no token “customer.nickname”",
    "function-unknown: There is no format “:shout”",
    "token-unknown: There is no token “booking.moon”",
    "token-unknown: There is no token “case.nummer”",
    "passage-unknown: These words stand under a condition that is gone: remove it, or choose another",
  ]);
});

test("text that cannot be read, with its place", () => {
  const { library, problems } = readFolder([
    {
      path: "weather/a.md",
      text: "---\nid: a\ntitle: A\n---\nfine\n\nat {$case.number :date length=$x} ok\n",
    },
  ]);
  expect(lint(library, problems, ferryDetails)[0]).toMatchObject({
    code: "unreadable",
    where: "weather/a.md",
    line: 7,
    column: 4,
  });
  expect(findings("", "Left {$case.number over")).toEqual([
    "text-unreadable: “{$case.number over” is not a token that can be read",
  ]);
});

test("passages that can never stand and blanks never used", () => {
  const matter = [
    "blanks:",
    "  harbour: { kind: choice, options: [Tarn Head, Pellick] }",
    "  spare: { kind: text }",
    "passages:",
    "  a: { when: { value: blank.harbour, is: equals, to: Atlantis } }",
    "  b: { when: { all: [ { value: booking.to, is: equals, to: Pellick }, { value: booking.to, is: equals, to: Tarn Head } ] } }",
    "  c: { when: { any: [ { value: blank.harbour, is: equals, to: Pellick }, { value: blank.harbour, is: equals, to: Atlantis } ] } }",
    "  d: { when: { value: message.body, is: matches, to: '(' } }",
    "",
  ].join("\n");
  expect(findings(matter, ":passage[a]{#a} :passage[b]{#b} :passage[c]{#c} :passage[d]{#d}")).toEqual([
    "passage-never: The passage “a” (when harbour is “Atlantis”) can never stand",
    "passage-never: The passage “b” (when to harbour is “Pellick” and to harbour is “Tarn Head”) can never stand",
    "condition-unusable: The pattern “(” of the passage “d” (when the message’s text matches /(/) cannot be read: it lacks a closing ) at its end",
    "choice-uncovered: Where harbour is “Tarn Head”, none of its passages stands",
    "blank-unused: The blank “spare” is used nowhere",
  ]);
});

test("house facts that no reply uses", () => {
  const facts = {
    path: "library.yaml",
    text: "house_facts:\n  fee: { label: Fee, type: money, value: { amount: 6, currency: EUR } }\n  old: { label: Old, value: x }\n",
  };
  expect(findings("", "{$house.fee}", [facts])).toEqual(["fact-unused: No reply uses the house fact “old”"]);
});
