import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import { writeMarkdown } from "#core/formats/markdown-write";
import { query } from "../db/sql";
import { Conflict, NotFound, Unusable } from "../errors";
import { openReply } from "../writing/open";
import { ensureOwnShelf } from "../replies/shelves";
import { uploadFile } from "../replies/uploads";
import { testCase, testHouse, testVersion, type TestHouse } from "../testing";
import { saveDraft } from "./draft";
import { keepAnswer, wordsToKeep } from "./keep";
import { send } from "./send";

let house: TestHouse;
let shelf: string;
beforeAll(async () => {
  house = await testHouse();
  await ensureOwnShelf(house.em(), house.bram);
  const [own] = await query<{ key: string }>(house.em(), "select key from shelves where owner_id = ?", [
    house.bram.id,
  ]);
  shelf = own?.key ?? "";
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");
const em = () => house.em();

async function written(markdown: string, files: number[] = []) {
  const one = await testCase(em());
  const opening = { uid: "o", versionId: await testVersion(house.em(), "hello"), language: "en", values: {} };
  const version = await saveDraft(
    em(),
    house.bram,
    one.number,
    {
      version: 0,
      language: "en",
      subject: { from: "thread" },
      files,
      slips: [
        { ...opening, document: readMarkdown("Hello {$customer.first_name},").doc },
        { uid: "a", versionId: null, language: "en", document: readMarkdown(markdown).doc, values: {} },
      ],
    },
    now,
  );
  return { ...one, version };
}

const reply = (title: string) => ({ shelf, title, part: "answer" as const });

test("an answer under way is kept without its greeting, its case's values as tokens; each can be refused", async () => {
  const { number } = await written(
    "Dear Ana, your case is SF-90001, and the fee is {$house.fee}. Ana is a name.",
  );
  const kept = await wordsToKeep(em(), house.bram, { case: number }, now);
  expect(JSON.stringify(kept.doc)).not.toContain("Hello");
  expect(kept.found.map((one) => [one.words, one.node.attrs.name])).toEqual([
    ["Ana", "customer.first_name"],
    ["SF-90001", "case.number"],
    ["€6.00", "house.fee"],
    ["Ana", "customer.first_name"],
  ]);
  const found = kept.found.map(({ from, words }, index) => ({ from, words, accepted: index !== 3 }));
  const key = await keepAnswer(
    em(),
    house.bram,
    { source: { case: number }, reply: reply("From an answer"), found },
    now,
  );
  const { content } = await openReply(em(), house.bram, key, now);
  expect(writeMarkdown(content.variants[0]?.document ?? { type: "doc", content: [] }).text.trim()).toBe(
    "Dear {$customer.first_name}, your case is {$case.number}, and the fee is {$house.fee}. Ana is a name.",
  );
});

test("what was changed since it was shown is looked at again", async () => {
  const { number, version } = await written("Dear Ana, yes.");
  const { found } = await wordsToKeep(em(), house.bram, { case: number }, now);
  await saveDraft(
    em(),
    house.bram,
    number,
    {
      version,
      language: "en",
      subject: { from: "thread" },
      slips: [
        { uid: "a", versionId: null, language: "en", document: readMarkdown("No, Ana.").doc, values: {} },
      ],
    },
    now,
  );
  await expect(
    keepAnswer(
      em(),
      house.bram,
      {
        source: { case: number },
        reply: reply("Too late"),
        found: found.map(({ from, words }) => ({ from, words, accepted: true })),
      },
      now,
    ),
  ).rejects.toThrow(Conflict);
});

test("what only looks like a value is a blank where that is wanted, and stays where not", async () => {
  const { number } = await written("Pay €40 by 3 March 2027, or €50.");
  const { found } = await wordsToKeep(em(), house.bram, { case: number }, now);
  expect(found.map(({ words, blank }) => [words, blank?.kind])).toEqual([
    ["€40", "money"],
    ["3 March 2027", "date"],
    ["€50", "money"],
  ]);
  const key = await keepAnswer(
    em(),
    house.bram,
    {
      source: { case: number },
      reply: reply("Pay by"),
      found: found.map(({ from, words }, index) => ({ from, words, accepted: index < 2 })),
    },
    now,
  );
  const { content } = await openReply(em(), house.bram, key, now);
  expect(writeMarkdown(content.variants[0]?.document ?? { type: "doc", content: [] }).text.trim()).toBe(
    "Pay {$blank.amount} by {$blank.day}, or €50.",
  );
  expect(content.blanks).toMatchObject({ amount: { kind: "money" }, day: { kind: "date", label: "day" } });
});

test("a message that was sent is kept with its attachments, by whoever may read it", async () => {
  const form = { name: "form.txt", type: "text/plain", content: Buffer.from("a form") };
  const { id } = await uploadFile(em(), house.bram, form, false);
  const one = await written("Dear Ana, the form is attached.", [Number(id)]);
  const [row] = await query<{ version: number }>(em(), "select version from drafts where case_id = ?", [
    one.id,
  ]);
  await send(em(), house.bram, one.number, { version: row?.version ?? 0, lastMessage: one.message }, now);
  const [sent] = await query<{ id: number }>(
    em(),
    "select id from messages where case_id = ? and direction = 'out'",
    [one.id],
  );
  await ensureOwnShelf(em(), house.maren);
  const [marens] = await query<{ key: string }>(em(), "select key from shelves where owner_id = ?", [
    house.maren.id,
  ]);
  const source = { message: sent?.id ?? 0 };
  const kept = await wordsToKeep(em(), house.maren, source, now);
  expect(kept.files.map((file) => file.name)).toEqual(["form.txt"]);
  const key = await keepAnswer(
    em(),
    house.maren,
    {
      source,
      reply: { ...reply("Sent once"), shelf: marens?.key ?? "" },
      found: kept.found.map(({ from, words }) => ({ from, words, accepted: true })),
    },
    now,
  );
  expect((await openReply(em(), house.maren, key, now)).content.files).toHaveLength(1);
});

test("nothing is kept of nothing", async () => {
  const { number } = await testCase(em());
  await expect(wordsToKeep(em(), house.bram, { case: number }, now)).rejects.toThrow(NotFound);
  const empty = await written("");
  await expect(wordsToKeep(em(), house.bram, { case: empty.number }, now)).rejects.toThrow(Unusable);
  await expect(wordsToKeep(em(), house.bram, { message: empty.message }, now)).rejects.toThrow(NotFound);
});
