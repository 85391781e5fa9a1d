import { expect, test } from "@jest/globals";
import { checkReply } from "../checks/writing";
import { tokensUsed } from "../checks/tokens-used";
import { re2Patterns } from "../conditions/re2";
import { readFolder } from "../formats/folder";
import { readLibraryFile } from "../formats/library";
import { readMarkdown } from "../formats/markdown";
import { catalogue } from "../tokens/catalogue";
import { toPlainText } from "./text";
import { allTexts, textFor } from "./texts";

const doc = (markdown: string) => readMarkdown(markdown).doc;
const both = { document: doc("All of it"), texts: { sms: doc("In short") } };

test("a channel reads its own text, else the common one", () => {
  expect(["email", "chat", "sms"].map((channel) => toPlainText(textFor(both, channel).content))).toEqual([
    "All of it",
    "All of it",
    "In short",
  ]);
  expect(textFor({ document: both.document }, "sms")).toBe(both.document);
  expect(allTexts(both)).toHaveLength(2);
});

test("a library has them in its front matter, and in library.json, for each language", () => {
  const matter =
    "---\nid: late\ntitle: Late\nchannels: [email, sms]\ntexts: { sms: 'Late: {$case.number}' }\n---\nYour ship is late.\n";
  const german =
    "---\nvariant_of: late\nlanguage: de\ntexts: { sms: Verspätet }\n---\nIhr Schiff ist verspätet.\n";
  const { library, problems } = readFolder([
    { path: "a/late.md", text: matter },
    { path: "a/late.de.md", text: german },
  ]);
  expect(problems).toEqual([]);
  const [en, de] = library.replies[0]?.variants ?? [];
  expect([en, de].map((one) => one && toPlainText(textFor(one, "sms").content))).toEqual([
    "Late: {$case.number}",
    "Verspätet",
  ]);
  const reply = {
    id: "late",
    title: "Late",
    body: "Your ship is late.",
    texts: { sms: "Late {$ }" },
  };
  const json = { format: "plain-shelf-library", version: 1, replies: [reply] };
  expect(readLibraryFile(json).problems).toMatchObject([{ where: "late (sms)" }]);
  const wrong = readFolder([{ path: "a/late.md", text: matter.replace("sms: '", "email: '") }]);
  expect(wrong.problems[0]?.message).toContain("texts");
});

test("they are checked as the common one is, each for itself", () => {
  const reply = {
    ...{ part: "answer" as const, channels: ["email", "sms"], about: { topics: [], withBooking: false } },
    ...{ blanks: {}, passages: {} },
    variants: [
      { language: "en", subject: null, document: doc("word ".repeat(90)), texts: { sms: doc("{$no.such}") } },
    ],
  };
  const input = {
    tokens: catalogue(),
    facts: [],
    patterns: re2Patterns,
    segments: (text: string) => Math.ceil(text.length / 160),
    now: null,
  };
  expect(tokensUsed(reply)).toEqual(new Set(["no.such"]));
  const found = checkReply(reply, input).map(({ code, channel }) => [code, channel]);
  expect(found).toContainEqual(["token-unknown", "sms"]);
  // What goes is counted, and the common text does not.
  expect(found.filter(([code]) => code === "sms-segments")).toEqual([]);
  const without = checkReply(
    { ...reply, variants: [{ language: "en", subject: null, document: doc("word ".repeat(90)) }] },
    input,
  );
  expect(without.map(({ code, channel }) => [code, channel])).toContainEqual(["sms-segments", null]);
});
