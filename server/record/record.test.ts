import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import { saveDraft } from "../answering/draft";
import { send } from "../answering/send";
import { SentLetter } from "../db/entities/answering";
import { Case } from "../db/entities/cases";
import { Customer, CustomerAddress, Organisation } from "../db/entities/customers";
import { Message } from "../db/entities/messages";
import { query } from "../db/sql";
import { NotFound } from "../errors";
import { setFact } from "../house/facts";
import { testCase, testHouse, testVersion, type TestHouse } from "../testing";
import { changeCase } from "../cases/changes";
import { customerPage, organisationPage } from "./customers";
import { factProof, recordedMessage } from "./letter";
import { searchRecord, type RecordFilter } from "./search";
import { caseRecord } from "./timeline";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");

/** Answers a case with the reply about the fee, changed by hand, and delivers it. @returns the message's id */
async function answer(number: number, markdown: string, at = now): Promise<number> {
  const em = house.em();
  const slip = {
    uid: "s1",
    versionId: await testVersion(em, "fee"),
    language: "en",
    document: readMarkdown(markdown).doc,
    values: {},
  };
  const version = await saveDraft(
    em,
    house.bram,
    number,
    { version: 0, language: "en", subject: { from: "thread" }, slips: [slip] },
    at,
  );
  const last = await em.findOneOrFail(Message, { case: { number } }, { orderBy: { id: "desc" } });
  const sent = await send(house.em(), house.bram, number, { version, lastMessage: last.id }, at);
  if (!sent.ok) throw new Error(JSON.stringify(sent.checks));
  await query(em, "update messages set state = 'sent', sent_at = ? where id = ?", [at, sent.message]);
  return sent.message;
}

const nothing: RecordFilter = {
  words: "",
  customer: "",
  organisation: "",
  agent: null,
  version: null,
  reply: null,
  topic: null,
  channel: null,
  direction: null,
  from: null,
  until: null,
  before: null,
};
const found = async (filter: Partial<RecordFilter>) =>
  (await searchRecord(house.em(), { ...nothing, ...filter })).found;

describe("the proof of a letter", () => {
  test("says of each word whether it is the reply’s, a value or the agent’s, and what the shelf knew", async () => {
    const one = await testCase(house.em());
    const id = await answer(one.number, "A change costs {$house.fee}. I have waived it for you.");
    const { proof, text } = await recordedMessage(house.em(), house.bram, one.number, id);
    expect(proof?.guessed).toBe(false);
    expect(proof?.runs?.map((run) => run.text).join("")).toBe(text);
    expect(proof?.runs).toEqual([
      { text: "A change costs ", from: "reply", slip: "s1" },
      { text: "€6.00", from: "token", slip: "s1", name: "house.fee" },
      { text: ".", from: "reply", slip: "s1" },
      { text: " I have waived it for you.", from: "hand", slip: "s1" },
    ]);
    expect(proof?.replies).toMatchObject([
      { key: "fee", title: "The fee for changing", slip: "s1", version: { number: 1 }, changed: false },
    ]);
    expect(proof?.replies[0]?.rewritten).toBeGreaterThan(0);
  });

  test("tells who set a house fact, what it was before, and what others were told instead", async () => {
    const [early, late] = [await testCase(house.em()), await testCase(house.em())];
    const told = await answer(early.number, "A change costs {$house.fee}.");
    await setFact(
      house.em(),
      house.maren,
      "fee",
      { value: { amount: 9, currency: "EUR" }, texts: {} },
      null,
      new Date("2026-11-25T11:00:00Z"),
    );
    const since = await answer(late.number, "A change costs {$house.fee}.", new Date("2026-11-25T12:00:00Z"));
    const proof = await factProof(house.em(), since, { name: "house.fee", value: "€9.00" });
    expect(proof.then).toMatchObject({
      label: "fee",
      by: "Maren Test",
      before: { value: { amount: 6, currency: "EUR" } },
    });
    expect(
      proof.otherwise.map(({ case: number, message, value }) => [number, message, value]),
    ).toContainEqual([early.number, told, "€6.00"]);
    expect(
      (await factProof(house.em(), told, { name: "house.fee", value: "€6.00" })).then?.before,
    ).toBeNull();
  });

  test("of a letter from before words were proven is found by comparing, and says so", async () => {
    const one = await testCase(house.em());
    const id = await answer(one.number, "A change costs {$house.fee}.");
    // As one that was kept before there was such proof.
    await query(house.em(), "alter table sent_letters disable trigger keep_letter");
    await query(house.em(), "update sent_letters set proof = null where message_id = ?", [id]);
    await query(house.em(), "alter table sent_letters enable trigger keep_letter");
    const { proof } = await recordedMessage(house.em(), house.bram, one.number, id);
    expect(proof?.guessed).toBe(true);
    expect(proof?.runs).toContainEqual({ text: "A change costs ", from: "reply", slip: null });
    expect(proof?.runs?.some((run) => run.from === "hand" && /\d/.test(run.text))).toBe(true);
  });

  test("is not shown on another case", async () => {
    const [one, other] = [await testCase(house.em()), await testCase(house.em())];
    await expect(recordedMessage(house.em(), house.bram, other.number, one.message)).rejects.toThrow(
      NotFound,
    );
  });
});

describe("what was sent", () => {
  test.each([
    ["update messages set text = 'other' where id = ?"],
    ["update messages set to_address = 'other@example.org' where id = ?"],
    ["update messages set state = 'called back' where id = ?"],
    ["delete from messages where id = ?"],
    ["update sent_letters set slips = '[]' where message_id = ?"],
    ["update sent_letters set proof = '[]' where message_id = ?"],
  ])("cannot be changed by whoever asks: %s", async (sql) => {
    const one = await testCase(house.em());
    const id = await answer(one.number, "A change costs {$house.fee}.");
    await expect(query(house.em(), sql, [id])).rejects.toThrow(/on the record/);
    expect(await house.em().count(SentLetter, { message: id })).toBe(1);
  });

  test("goes with its case, and is told of as arrived", async () => {
    const [one, other] = [await testCase(house.em()), await testCase(house.em())];
    const id = await answer(one.number, "A change costs {$house.fee}.");
    await query(house.em(), "update messages set delivered_at = now() where id = ?", [id]);
    await changeCase(house.em(), house.bram, other.number, { what: "join", other: one.number }, now);
    expect((await recordedMessage(house.em(), house.bram, other.number, id)).proof?.replies).toHaveLength(1);
  });
});

test("the history of a case tells of messages with their replies and versions, and of changes, the oldest first", async () => {
  const one = await testCase(house.em(), "first words");
  await answer(one.number, "A change costs {$house.fee}.");
  await changeCase(
    house.em(),
    house.maren,
    one.number,
    { what: "state", state: "settled", asideAs: null, reason: "" },
    new Date("2026-11-25T10:05:00Z"),
  );
  const { entries, label, customer } = await caseRecord(house.em(), house.bram, one.number);
  expect(entries).toMatchObject([
    { direction: "in", words: "first words" },
    {
      direction: "out",
      who: "Bram Test",
      replies: [{ title: "The fee for changing", version: 1 }],
      state: "sent",
    },
    { who: "Maren Test", what: `settled ${label}` },
  ]);
  expect(customer.name).toMatch(/^Ana Number/);
  await expect(caseRecord(house.em(), house.bram, 1)).rejects.toThrow(NotFound);
});

describe("searching all that was said", () => {
  test("finds words, their beginnings, phrases and what lacks a word, and shows them where they stand", async () => {
    const one = await testCase(house.em(), "My zephyrboat was delayed, and the hydrofoil crew laughed");
    const numbers = async (words: string) => (await found({ words })).map((hit) => hit.case);
    expect(await numbers("zephyrboat")).toEqual([one.number]);
    expect(await numbers("zephyr")).toEqual([one.number]);
    expect(await numbers('"hydrofoil crew"')).toEqual([one.number]);
    expect(await numbers('"crew hydrofoil"')).toEqual([]);
    expect(await numbers("zephyrboat -laughed")).toEqual([]);
    expect(await numbers("it's (zephyr | & ! ':*")).toEqual([]);
    const [hit] = await found({ words: "hydrofoil" });
    expect(hit?.words.filter((part) => part.found).map((part) => part.text)).toEqual(["hydrofoil"]);
    const about = await testCase(house.em(), "words without it");
    await query(
      house.em(),
      "insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, at, \"references\") select case_id, 'in', 'email', 'received', 'a@example.org', 'b@example.com', 'a quaysubject here', 'nothing', at, '{}' from messages where id = ?",
      [about.message],
    );
    const [bySubject] = await found({ words: "quaysubject" });
    expect(bySubject?.subject).toEqual([
      { text: "a ", found: false },
      { text: "quaysubject", found: true },
      { text: " here", found: false },
    ]);
  });

  test("narrows by customer, organisation, colleague, reply, version, topic, channel, direction and day", async () => {
    const em = house.em();
    const one = await testCase(em, "quillfish");
    const subject = await em.findOneOrFail(Case, { number: one.number }, { populate: ["customer"] });
    subject.topic = "bicycles";
    subject.customer.organisation = em.create(Organisation, {
      name: "Quay School",
      nameKey: "quay school",
      kind: "school",
      account: null,
      contractUntil: null,
    });
    await em.flush();
    const sent = await answer(one.number, "A change costs {$house.fee}. quillfish");
    const ids = async (filter: Partial<RecordFilter>) =>
      (await found({ words: "quillfish", ...filter })).map((hit) => hit.id);
    const both = [sent, one.message];
    expect(await ids({})).toEqual(both);
    expect(await ids({ customer: subject.customer.displayName })).toEqual(both);
    expect(await ids({ customer: one.address })).toEqual(both);
    expect(await ids({ customer: "nobody" })).toEqual([]);
    expect(await ids({ organisation: "quay s" })).toEqual(both);
    expect(await ids({ agent: house.bram.id })).toEqual([sent]);
    expect(await ids({ reply: "fee" })).toEqual([sent]);
    expect(await ids({ version: await testVersion(em, "fee") })).toEqual([sent]);
    expect(await ids({ reply: "late" })).toEqual([]);
    expect(await ids({ topic: "bicycles" })).toEqual(both);
    expect(await ids({ channel: "sms" })).toEqual([]);
    expect(await ids({ direction: "in" })).toEqual([one.message]);
    expect(await ids({ from: "2026-11-25", until: "2026-11-25" })).toEqual(both);
    expect(await ids({ from: "2026-11-26" })).toEqual([]);
    expect(await ids({ until: "2026-11-24" })).toEqual([]);
    expect(await ids({ before: { at: now.toISOString(), id: sent } })).toEqual([one.message]);
  });

  test("more than a page is found in pages, none twice", async () => {
    const one = await testCase(house.em());
    await query(
      house.em(),
      `insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, at, "references")
       select c.id, 'in', 'email', 'received', 'a@example.org', 'desk@example.com', 's', 'pagewords ' || n, timestamptz '2026-01-01' + n * interval '1 minute', '{}'
         from cases c, generate_series(1, 90) n where c.number = ?`,
      [one.number],
    );
    const seen: number[] = [];
    for (let before: RecordFilter["before"] = null; ;) {
      const page = await searchRecord(house.em(), { ...nothing, words: "pagewords", before });
      seen.push(...page.found.map((hit) => hit.id));
      const last = page.found.at(-1);
      if (!page.more || !last) break;
      before = { at: last.at, id: last.id };
    }
    expect(seen).toHaveLength(90);
    expect(new Set(seen).size).toBe(90);
  });
});

test("a customer’s page has all their cases, in pages, and an organisation’s those of its people", async () => {
  const em = house.em();
  const one = await testCase(em);
  const subject = await em.findOneOrFail(Case, { number: one.number }, { populate: ["customer"] });
  const organisation = em.create(Organisation, {
    name: "Long Haul",
    nameKey: "long haul",
    kind: "haulage",
    account: "LH-1",
    contractUntil: "2027-01-01",
  });
  subject.customer.organisation = organisation;
  const colleague = em.create(Customer, {
    firstName: null,
    lastName: null,
    displayName: "office@example.net",
    nameKey: null,
    language: null,
    timeZone: null,
    phone: null,
    since: null,
    organisation,
  });
  em.create(CustomerAddress, { channel: "email", address: "office@example.net", customer: colleague });
  await em.flush();
  await query(
    em,
    `insert into cases (number, channel, subject, status, customer_id, team_id, opened_at)
     select 50000 + n, 'email', 'old', 'settled', ?, (select min(id) from teams), timestamptz '2025-01-01' + n * interval '1 day' from generate_series(1, 70) n`,
    [subject.customer.id],
  );
  const first = await customerPage(house.em(), subject.customer.id, null);
  expect(first).toMatchObject({
    name: subject.customer.displayName,
    addresses: [{ channel: "email", address: one.address }],
    organisation: { name: "Long Haul" },
    total: 71,
    waiting: 1,
    more: true,
  });
  expect(first.cases[0]).toMatchObject({ number: one.number, messages: 1 });
  const rest = await customerPage(house.em(), subject.customer.id, first.cases.at(-1)?.number ?? null);
  expect([rest.cases.length, rest.more]).toEqual([21, false]);
  const page = await organisationPage(house.em(), organisation.id, null);
  expect(page).toMatchObject({ account: "LH-1", total: 71, countPeople: 2 });
  expect(page.people.map(({ name, cases }) => [name, cases])).toEqual([
    [subject.customer.displayName, 71],
    ["office@example.net", 0],
  ]);
  await expect(customerPage(house.em(), 999_999, null)).rejects.toThrow(NotFound);
  await expect(organisationPage(house.em(), 999_999, null)).rejects.toThrow(NotFound);
});
