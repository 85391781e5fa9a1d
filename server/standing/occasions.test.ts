import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import { standingSchema } from "#core/forms/standing";
import { callBack } from "../answering/call-back";
import { saveDraft } from "../answering/draft";
import { readOpenCase } from "../answering/open";
import { send } from "../answering/send";
import { changeCase, undoChange } from "../cases/changes";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { CaseNotice } from "../db/entities/notices";
import { Person } from "../db/entities/people";
import { StandingAnswer, StandingDone } from "../db/entities/standing";
import { query } from "../db/sql";
import { houseRanker } from "../ranking/house-ranker";
import { testCase, testHouse, testVersion, type TestHouse } from "../testing";
import { withdrawSilences } from "./withdraw";
import { answerChange, changeJob, queueChanges } from "./occasions";
import { markMessage } from "./marks";
import { answerByRules } from "./on-arrival";
import { rehearseRule } from "./rehearse";
import { endPast, listRules, saveRule, switchRule } from "./rules";
import { answerSilences } from "./silences";

/** Rules that are asked when a case changes or nobody says anything, and what else they do to it. */

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
beforeEach(async () => {
  await house.em().nativeDelete(StandingAnswer, {});
  await query(house.em(), "delete from standing_occasions");
  // What earlier tests left waits for nobody.
  await query(house.em(), "update cases set status = 'set aside', waiting_since = null");
});
afterAll(() => house.close());

const em = () => house.em();
const lead = () => ({ ...house.maren, role: "lead" as const });
const early = new Date("2026-11-25T08:00:00Z");
const now = new Date("2026-11-25T09:00:05Z");
const hours = (count: number) => new Date(now.getTime() + count * 3_600_000);

const input = (given: object = {}) =>
  standingSchema.parse({
    ...{ name: "Still there?", reply: "fee", channels: ["email"], mailboxes: [], when: null },
    ...{ oncePerSenderHours: 24, perHour: 60, delayMinutes: 0, stop: true, effects: {} },
    ...{ trigger: { on: "silence", of: "customer", hours: 72 }, ...given },
  });

async function ruleOn(given: object = {}, to: "send" | "prepare" = "send"): Promise<number> {
  const id = await saveRule(em(), lead(), null, input(given));
  await rehearseRule(em(), id, 10, early, () => undefined);
  await switchRule(em(), lead(), id, to, early);
  return id;
}

const doneBy = async (rule: number) =>
  (await em().find(StandingDone, { rule }, { orderBy: { id: "asc" } })).map(({ does }) => does);
const automatic = (id: number) =>
  em().find(Message, { case: id, kind: "automatic" }, { orderBy: { id: "asc" } });
const caseOf = (id: number) => em().findOneOrFail(Case, { id }, { populate: ["assignee"] });

/** Bram answers a case by hand. @returns the letter's id */
async function answered(one: { number: number; message: number }, at: Date): Promise<number> {
  const slip = {
    ...{ uid: "a", versionId: await testVersion(em(), "fee"), language: "en", values: {} },
    document: readMarkdown("Which boat do you mean?").doc,
  };
  const draft = {
    version: 0,
    language: "en",
    subject: { from: "thread" as const },
    slips: [slip],
    offers: [],
  };
  const version = await saveDraft(em(), house.bram, one.number, draft, at);
  const sent = await send(em(), house.bram, one.number, { version, lastMessage: one.message }, at);
  if (!sent.ok) throw new Error(JSON.stringify(sent));
  return sent.message;
}

/** A case that its customer is silent on since a moment after `now`. */
async function silent() {
  const one = await testCase(em());
  await answered(one, now);
  return one;
}

describe("a customer who is silent", () => {
  test("hears of us once after the time that is set, however often and by whomever it is looked at", async () => {
    const rule = await ruleOn();
    const one = await silent();
    expect(await answerSilences(em(), hours(71))).toBe(0);
    await Promise.all([answerSilences(em(), hours(72)), answerSilences(em(), hours(72))]);
    await answerSilences(em(), hours(200));
    expect(await doneBy(rule)).toEqual(["send"]);
    const [letter] = await automatic(one.id);
    expect(letter).toMatchObject({ toAddress: one.address, dueAt: hours(72) });
    // It is still the customer's turn.
    expect(await caseOf(one.id)).toMatchObject({ status: "waiting on the customer" });
  });

  test("hears two reminders and a last word as far apart as they were set, though all were late", async () => {
    const first = await ruleOn({ name: "First" });
    const last = await ruleOn({
      ...{ name: "Last", trigger: { on: "silence", of: "customer", hours: 144 } },
      effects: { state: "settled", tags: ["closed by itself"] },
    });
    const one = await silent();
    await answerSilences(em(), hours(500));
    await answerSilences(em(), hours(500));
    await answerSilences(em(), hours(571));
    expect(await doneBy(last)).toEqual([]);
    await answerSilences(em(), hours(572));
    expect([await doneBy(first), await doneBy(last)]).toEqual([["send"], ["send"]]);
    expect(await automatic(one.id)).toHaveLength(2);
    expect(await caseOf(one.id)).toMatchObject({ status: "settled", tags: ["closed by itself"] });
    await answerSilences(em(), hours(1000));
    expect(await automatic(one.id)).toHaveLength(2);
  });

  test("a rule that ends the asking ends it for those that are asked as early", async () => {
    const first = await ruleOn({ name: "First" });
    const other = await ruleOn({ name: "Other" });
    await silent();
    await answerSilences(em(), hours(72));
    await answerSilences(em(), hours(73));
    expect([await doneBy(first), await doneBy(other)]).toEqual([["send"], ["passes"]]);
  });

  test("one whose silence began before the rule was switched on hears nothing", async () => {
    const one = await silent();
    const rule = await ruleOn();
    await em().nativeUpdate(StandingAnswer, { id: rule }, { switchedOnAt: hours(1) });
    expect(await answerSilences(em(), hours(300))).toBe(0);
    expect(await automatic(one.id)).toEqual([]);
  });

  test("one for whom the rule is not is not asked about again and again", async () => {
    const rule = await ruleOn({ when: { value: "message.body", is: "contains", to: "zither" } });
    await silent();
    expect(await answerSilences(em(), hours(72))).toBe(1);
    expect(await answerSilences(em(), hours(73))).toBe(0);
    expect(await doneBy(rule)).toEqual(["passes"]);
    expect((await listRules(em(), lead(), hours(73))).rules[0]?.lately).toBe(0);
  });

  test("who writes before it has left hears nothing of it, and the case is not closed either", async () => {
    const rule = await ruleOn({ delayMinutes: 30 });
    const one = await silent();
    await answerSilences(em(), hours(72));
    await withdrawSilences(em(), one.id, hours(72.1));
    expect(await automatic(one.id)).toMatchObject([{ state: "called back" }]);
    expect(await em().find(CaseNotice, { case: one.id })).toMatchObject([
      { on: "silence", state: "called back" },
    ]);
    expect(await doneBy(rule)).toEqual(["send"]);
  });

  test("called back by somebody, the case is as it was", async () => {
    await ruleOn({ delayMinutes: 30, effects: { state: "settled" } });
    const one = await silent();
    await answerSilences(em(), hours(72));
    expect(await caseOf(one.id)).toMatchObject({ status: "settled" });
    const [letter] = await automatic(one.id);
    await callBack(em(), house.bram, letter?.id ?? 0, hours(72.1));
    expect(await caseOf(one.id)).toMatchObject({ status: "waiting on the customer" });
  });
});

test("we who are silent for too long say so, once, and the case goes on waiting for us", async () => {
  const rule = await ruleOn({ trigger: { on: "silence", of: "us", hours: 8 } });
  const one = await testCase(em());
  const quick = await testCase(em());
  await answered(quick, now);
  await answerSilences(em(), hours(7.9));
  expect(await doneBy(rule)).toEqual([]);
  await answerSilences(em(), hours(8));
  await answerSilences(em(), hours(9));
  expect(await doneBy(rule)).toEqual(["send"]);
  expect(await automatic(one.id)).toHaveLength(1);
  expect(await caseOf(one.id)).toMatchObject({ status: "new" });
});

describe("a case that changes", () => {
  const jobs = async () =>
    (
      await query<{ data: unknown }>(
        em(),
        "select data from pgboss.job where name = 'standing' and jsonb_exists(data, 'on') order by data->>'at'",
      )
    ).map(({ data }) => changeJob.parse(data));
  beforeEach(async () => {
    await query(house.em(), "delete from pgboss.job where name = 'standing'");
  });
  /** What the database kept since, done as the jobs' process does it. */
  async function doJobs(at = now): Promise<number> {
    await queueChanges(em());
    const found = await jobs();
    for (const job of found) await answerChange(em(), job, at);
    return found.length;
  }

  test("into a state is answered, whoever brought it there; what is switched off is not asked", async () => {
    const rule = await ruleOn({ trigger: { on: "state", into: ["settled"] } });
    const one = await testCase(em());
    await changeCase(
      em(),
      house.bram,
      one.number,
      { what: "state", state: "settled", asideAs: null, reason: "" },
      now,
    );
    await changeCase(em(), house.bram, one.number, { what: "topic", topic: "boats" }, now);
    expect(await doJobs()).toBe(1);
    await doJobs();
    expect(await doneBy(rule)).toEqual(["send"]);
    expect(await automatic(one.id)).toHaveLength(1);
    await switchRule(em(), lead(), rule, "off", now);
    const other = await testCase(em());
    await changeCase(
      em(),
      house.bram,
      other.number,
      { what: "state", state: "settled", asideAs: null, reason: "" },
      now,
    );
    expect(await queueChanges(em())).toBe(0);
  });

  test("into a topic, or to somebody, is answered by the rules for that", async () => {
    const topic = await ruleOn({ trigger: { on: "topic", into: ["boats"] } });
    const owner = await ruleOn({ trigger: { on: "owner" } }, "prepare");
    const one = await testCase(em());
    await changeCase(em(), house.bram, one.number, { what: "topic", topic: "dogs" }, now);
    await changeCase(em(), house.bram, one.number, { what: "topic", topic: "boats" }, now);
    await changeCase(
      em(),
      house.bram,
      one.number,
      { what: "assign", to: house.bram.id, team: null, note: "" },
      now,
    );
    await doJobs();
    expect([await doneBy(topic), await doneBy(owner)]).toEqual([["send"], ["prepare"]]);
    const notices = await em().find(CaseNotice, { case: one.id }, { orderBy: { id: "asc" } });
    expect(notices.map(({ on, state }) => [on, state])).toEqual([
      ["topic", "queued"],
      ["owner", "offered"],
    ]);
  });

  test("what was changed again meanwhile is not answered, and what is undone takes back what has not left", async () => {
    const rule = await ruleOn({ trigger: { on: "state", into: ["settled"] }, delayMinutes: 30 });
    const settle = (number: number) =>
      changeCase(
        em(),
        house.bram,
        number,
        { what: "state", state: "settled", asideAs: null, reason: "" },
        now,
      );
    const gone = await testCase(em());
    await settle(gone.number);
    await changeCase(
      em(),
      house.bram,
      gone.number,
      { what: "state", state: "open", asideAs: null, reason: "" },
      now,
    );
    await doJobs();
    expect(await doneBy(rule)).toEqual([]);
    const one = await testCase(em());
    const { change } = await settle(one.number);
    await doJobs();
    expect(await automatic(one.id)).toMatchObject([{ state: "due" }]);
    await undoChange(em(), house.bram, change, now);
    expect(await automatic(one.id)).toMatchObject([{ state: "called back" }]);
    // To undo is no change that rules are asked of.
    await ruleOn({ name: "Open", trigger: { on: "state", into: [] } });
    const other = await testCase(em());
    const again = await settle(other.number);
    await queueChanges(em());
    await undoChange(em(), house.bram, again.change, now);
    expect(await queueChanges(em())).toBe(0);
  });

  test("what a rule does to a case asks no other rule, nor itself", async () => {
    const dogs = await ruleOn({ trigger: { on: "topic", into: ["boats"] }, effects: { topic: "dogs" } });
    const boats = await ruleOn({ trigger: { on: "topic", into: ["dogs"] }, effects: { topic: "boats" } });
    const one = await testCase(em());
    await changeCase(em(), house.bram, one.number, { what: "topic", topic: "boats" }, now);
    await doJobs();
    expect(await doJobs()).toBeLessThanOrEqual(1);
    expect([await doneBy(dogs), await doneBy(boats)]).toEqual([["send"], []]);
    expect(await caseOf(one.id)).toMatchObject({ topic: "dogs" });
  });
});

describe("what else happens to a case", () => {
  const arrival = {
    trigger: { on: "arrival" },
    when: { value: "message.body", is: "contains", to: "money" },
  };
  test("it is given its state, topic, owner and tags, each on the record and to be undone", async () => {
    const effects = { state: "settled", topic: "refunds", owner: house.bram.id, tags: ["storm"] };
    await ruleOn({ ...arrival, effects });
    const one = await testCase(em());
    await answerByRules(em(), one.message, now);
    const after = { status: "settled", topic: "refunds", tags: ["storm"], assignee: { id: house.bram.id } };
    expect(await caseOf(one.id)).toMatchObject(after);
    const changes = await query<{ id: number; kind: string }>(
      em(),
      "select id, kind from case_changes where case_id = ? order by id",
      [one.id],
    );
    expect(changes.map(({ kind }) => kind)).toEqual(["topic", "tags", "assigned", "state"]);
    for (const { id } of [...changes].reverse()) await undoChange(em(), house.bram, id, now);
    expect(await caseOf(one.id)).toMatchObject({ status: "new", topic: null, tags: [], assignee: null });
  });

  test("prepared, the case stays with us; what is so already, and who has left, are left alone", async () => {
    const effects = { state: "settled", topic: "refunds", owner: house.bram.id };
    const rule = await ruleOn({ ...arrival, effects }, "prepare");
    const one = await testCase(em());
    await em().nativeUpdate(Case, { id: one.id }, { topic: "refunds" });
    const left = (at: Date | null) => em().nativeUpdate(Person, { id: house.bram.id }, { leftAt: at });
    await left(now);
    try {
      await answerByRules(em(), one.message, now);
    } finally {
      await left(null);
    }
    expect(await doneBy(rule)).toEqual(["prepare"]);
    expect(await caseOf(one.id)).toMatchObject({ status: "new", topic: "refunds", assignee: null });
    expect(await query(em(), "select 1 from case_changes where case_id = ?", [one.id])).toEqual([]);
  });

  test("somebody tags a case, and nothing twice", async () => {
    const one = await testCase(em());
    const tag = (tags: string[]) => changeCase(em(), house.bram, one.number, { what: "tags", tags }, now);
    const { words, change } = await tag(["storm", " Storm", "late"]);
    expect(words).toMatch(/^tagged .+: storm, late$/);
    await expect(tag(["storm", "late"])).rejects.toThrow("those tags already");
    expect((await tag([])).words).toContain("took the tags");
    await expect(undoChange(em(), house.bram, change, now)).resolves.toBeDefined();
  });
});

test("a letter that a rule sent names it where the case is read, with what was said of that", async () => {
  const rule = await ruleOn({ trigger: { on: "arrival" } });
  const one = await testCase(em());
  await answerByRules(em(), one.message, now);
  const byRule = async () => {
    const { messages } = await readOpenCase(em(), house.bram, one.number, 0, now);
    return messages.map((message) => message.byRule);
  };
  const sent = { id: rule, name: "Still there?", message: one.message };
  expect(await byRule()).toEqual([null, { ...sent, should: null }]);
  await markMessage(em(), house.bram, rule, one.message, false, now);
  expect(await byRule()).toEqual([null, { ...sent, should: false }]);
});

test("when somebody answers before it has left, what a rule was about to say is not said", async () => {
  const rule = await ruleOn({ trigger: { on: "arrival" }, delayMinutes: 10 });
  const one = await testCase(em());
  await answerByRules(em(), one.message, now);
  const letter = await answered(one, new Date(now.getTime() + 60_000));
  expect(await automatic(one.id)).toMatchObject([{ state: "called back" }]);
  expect(await doneBy(rule)).toEqual(["send"]);
  // Called back, that letter leaves what the rule had to say to be taken.
  await callBack(em(), house.bram, letter, new Date(now.getTime() + 65_000));
  expect(await em().find(CaseNotice, { case: one.id })).toMatchObject([{ state: "offered" }]);
});

test("one that is switched on until a time answers until then, and is off after it", async () => {
  const rule = await ruleOn({ trigger: { on: "arrival" } });
  await expect(switchRule(em(), lead(), rule, "send", now, early)).rejects.toThrow("time is over");
  await switchRule(em(), lead(), rule, "send", early, hours(1));
  const [in_time, late] = [await testCase(em()), await testCase(em(), "money?", { at: hours(2) })];
  await answerByRules(em(), in_time.message, now);
  await answerByRules(em(), late.message, hours(2));
  expect(await doneBy(rule)).toEqual(["send"]);
  const row = async () => (await listRules(em(), lead(), now)).rules[0];
  expect(await row()).toMatchObject({ until: hours(1).toISOString() });
  await endPast(em(), hours(2));
  expect(await row()).toMatchObject({ until: null, switchedOnAt: null, offWhy: null });
});

test("a rule may ask for the reply that fits best, and how closely", async () => {
  await houseRanker(em()).ready();
  const when = { value: "message.best_reply", is: "equals", to: "fee" };
  const rule = await ruleOn({ trigger: { on: "arrival" }, when });
  const one = await testCase(em(), "What does a change of my booking cost? Is there a fee for the change?");
  const other = await testCase(em(), "The ferry is running late by hours, says my neighbour.");
  await answerByRules(em(), one.message, now);
  await answerByRules(em(), other.message, now);
  expect(await doneBy(rule)).toEqual(["send"]);
  expect(await automatic(one.id)).toHaveLength(1);
});

describe("a rehearsal of what is not an arrival", () => {
  test("of silence goes through the letters that nobody answered for so long", async () => {
    const before = hours(-2000);
    const quiet = await testCase(em(), "about a harp", { at: before });
    const loud = await testCase(em(), "about a harp", { at: before });
    const letter = async (id: number, at: Date) =>
      query(
        em(),
        `insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, kind, at, "references")
          values (?, 'out', 'email', 'sent', 'desk@example.com', 'a@example.org', 's', 'So it is.', 'message', ?, '{}')`,
        [id, at],
      );
    await letter(quiet.id, hours(-1999));
    await letter(loud.id, hours(-1999));
    // Somebody reminded the one by hand; the other wrote in time.
    await letter(quiet.id, hours(-1900));
    await testCase(em(), "x").then(({ message }) =>
      query(
        em(),
        `insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, kind, at, "references")
          select ?, direction, channel, state, from_address, to_address, subject, 'Yes!', kind, ?, '{}' from messages where id = ?`,
        [loud.id, hours(-1990), message],
      ),
    );
    const harp = { value: "message.body", is: "contains", to: "harp" };
    const id = await saveRule(em(), lead(), null, input({ when: harp }));
    const { figures, shown } = await rehearseRule(em(), id, 1000, now, () => undefined);
    expect(figures).toMatchObject({ agreed: 0, missed: 0, otherwise: 1, unanswered: 1 });
    expect(shown.otherwise).toMatchObject([
      { message: quiet.message, at: hours(-1927).toISOString(), answer: { words: "So it is." } },
    ]);
  });

  test("of our silence goes through what nobody answered for so long", async () => {
    const one = await testCase(em(), "about a lute", { at: hours(-900) });
    const lute = { value: "message.body", is: "contains", to: "lute" };
    const trigger = { on: "silence", of: "us", hours: 8 };
    const id = await saveRule(em(), lead(), null, input({ when: lute, trigger }));
    const { figures, shown } = await rehearseRule(em(), id, 1000, now, () => undefined);
    expect(figures).toMatchObject({ unanswered: 1, otherwise: 0 });
    expect(shown.unanswered).toMatchObject([{ message: one.message, at: hours(-892).toISOString() }]);
  });

  test("of a state or a topic goes through what cases came into", async () => {
    const one = await testCase(em(), "about a viol");
    await changeCase(em(), house.bram, one.number, { what: "topic", topic: "music" }, hours(1));
    await changeCase(
      em(),
      house.bram,
      one.number,
      { what: "assign", to: house.bram.id, team: null, note: "" },
      hours(2),
    );
    const viol = { value: "message.body", is: "contains", to: "viol" };
    const count = async (trigger: object) => {
      const id = await saveRule(em(), lead(), null, input({ when: viol, trigger }));
      return (await rehearseRule(em(), id, 1000, hours(5), () => undefined)).figures.unanswered;
    };
    expect(await count({ on: "topic", into: ["music"] })).toBe(1);
    expect(await count({ on: "topic", into: ["dogs"] })).toBe(0);
    expect(await count({ on: "owner" })).toBe(1);
    expect(await count({ on: "state", into: ["open"] })).toBe(1);
    expect(await count({ on: "state", into: ["settled"] })).toBe(0);
  });
});
