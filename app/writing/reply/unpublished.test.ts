import { expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import type { Content } from "#server/replies/content";
import type { Filing } from "#server/writing/open";
import { reversedKeys } from "../../testing/reversed-keys";
import { filingChange, unpublished } from "./unpublished";

const content: Content = {
  title: "Dogs",
  useTemplateSubject: false,
  blanks: {},
  passages: {},
  variants: [
    { language: "en", title: null, subject: null, document: readMarkdown("Yes.").doc, original: null },
  ],
  files: [],
  pictures: [],
};
const [english] = content.variants;
if (!english) throw new Error("It is written in English");
const filing: Filing = {
  shelf: "all",
  note: null,
  part: "answer",
  tags: ["dog"],
  channels: ["email"],
  topics: [],
  withBooking: false,
  owner: 1,
  reviewBy: null,
  seasonFrom: null,
  seasonUntil: null,
};

test("what is not published is named, each once", () => {
  const named = (changes: Partial<Content>, filed: Partial<Filing> = {}) =>
    unpublished(content, { ...content, ...changes }, filing, { ...filing, ...filed });
  expect(named({})).toEqual([]);
  expect(named({ title: "Dogs aboard" }, { tags: ["dog", "pets"] })).toEqual(["title", "tags"]);
  expect(named({ variants: [{ ...english, document: readMarkdown("No.").doc }] })).toEqual(["words"]);
  expect(
    named({ variants: [english, { ...english, language: "de", document: readMarkdown("Ja.").doc }] }),
  ).toEqual(["words", "subject"]);
  expect(named({ useTemplateSubject: true })).toEqual(["subject"]);
  expect(
    named({}, { seasonFrom: "2027-01-01", seasonUntil: "2027-02-01", topics: ["dogs"], withBooking: true }),
  ).toEqual(["season", "what it is about"].sort((a, b) => b.localeCompare(a)));
});

test("words are the same in whatever order their keys were kept", () => {
  const kept = reversedKeys(english.document);
  expect(JSON.stringify(kept)).not.toBe(JSON.stringify(english.document));
  const again = { ...content, variants: [{ ...english, document: kept }] };
  expect(unpublished(content, again, filing, filing)).toEqual([]);
});

test("of a reply that never was on the shelf only its filing can be otherwise", () => {
  expect(unpublished(null, content, filing, { ...filing, owner: null })).toEqual(["owner"]);
});

test("a change of filing is what differs, and nothing where it is set back", () => {
  expect(filingChange(filing, { ...filing, tags: [], note: "ask" })).toEqual({ tags: [], note: "ask" });
  expect(filingChange(filing, { ...filing, tags: ["dog"] })).toEqual({});
});
