import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { readFolder } from "#core/formats/folder";
import { readMarkdown } from "#core/formats/markdown";
import { standingSchema } from "#core/forms/standing";
import { saveDraft } from "../answering/draft";
import { readOpenCase } from "../answering/open";
import { send } from "../answering/send";
import { callBack } from "../answering/call-back";
import { Case } from "../db/entities/cases";
import { Mailbox } from "../db/entities/mailboxes";
import { Message } from "../db/entities/messages";
import { Person, Team } from "../db/entities/people";
import { StandingAnswer, StandingDone } from "../db/entities/standing";
import { query } from "../db/sql";
import { importLibrary } from "../replies/import";
import { buildMime } from "../sending/mime";
import { testCase, testHouse, testVersion, type TestHouse } from "../testing";
import { answerByRules, askRules } from "./on-arrival";
import { rehearseRule } from "./rehearse";
import { listRules, orderRules, removeRule, rulesToLookAt, saveRule, switchRule, whatRuleDid } from "./rules";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
  const inner = house.em();
  const team = await inner.findOneOrFail(Team, { name: "Desk" });
  if ((await inner.count(Mailbox, { address: "desk@example.com" })) === 0)
    inner.create(Mailbox, { address: "desk@example.com", name: "Desk", team });
  await inner.flush();
});
beforeEach(async () => {
  await house.em().nativeDelete(StandingAnswer, {});
});
afterAll(() => house.close());

const em = () => house.em();
const lead = () => ({ ...house.maren, role: "lead" as const });
const early = new Date("2026-11-25T08:00:00Z");
const now = new Date("2026-11-25T09:00:05Z");
const minutes = (count: number) => new Date(now.getTime() + count * 60_000);
const none = () => undefined;

const input = (given: object = {}) =>
  standingSchema.parse({
    ...{ name: "What it costs", reply: "fee", channels: ["email"], mailboxes: [] },
    when: { value: "message.body", is: "contains", to: "cost", ignore_case: true },
    ...{ oncePerSenderHours: 24, perHour: 60, delayMinutes: 0, stop: true },
    ...{ trigger: { on: "arrival" }, effects: {}, ...given },
  });

/** A rule that was rehearsed, and is on since before the cases of these tests came. */
async function ruleOn(given: object = {}, to: "send" | "prepare" = "send"): Promise<number> {
  const id = await saveRule(em(), lead(), null, input(given));
  await rehearseRule(em(), id, 10, early, none);
  await switchRule(em(), lead(), id, to, early);
  return id;
}

const came = (words = "What does it cost?", given: Parameters<typeof testCase>[2] = {}) =>
  testCase(em(), words, given);
const doneBy = async (rule: number) =>
  (await em().find(StandingDone, { rule }, { orderBy: { id: "asc" } })).map(({ does, why }) => ({
    does,
    why,
  }));
const lettersOf = (id: number) => em().find(Message, { case: id, direction: "out" });

describe("what a rule does with a message", () => {
  test("it answers it by a letter that says that a program wrote it, and the case goes on waiting for us", async () => {
    const rule = await ruleOn();
    const one = await came();
    await answerByRules(em(), one.message, now);
    const [letter] = await lettersOf(one.id);
    expect(letter).toMatchObject({ kind: "automatic", state: "due", toAddress: one.address, dueAt: now });
    expect(letter?.text).toContain("A change costs");
    if (!letter) throw new Error("There is a letter");
    const mime = (await buildMime(em(), letter)).toString();
    expect(mime).toMatch(/^Auto-Submitted: auto-replied\r$/m);
    expect(mime).toMatch(/^In-Reply-To: <in-\d+@example\.org>\r$/m);
    const subject = await em().findOneOrFail(Case, { id: one.id });
    expect(subject).toMatchObject({ status: "new", answerBy: new Date("2026-11-25T13:00:00Z") });
    expect(await doneBy(rule)).toEqual([
      { does: "send", why: expect.stringContaining("What does it cost?") },
    ]);
    // Whoever has it answers it all the same, without being told of a colleague who did.
    const slip = {
      ...{ uid: "a", versionId: await testVersion(em(), "fee"), language: "en", values: {} },
      document: readMarkdown("It is free today.").doc,
    };
    const draft = {
      version: 0,
      language: "en",
      subject: { from: "thread" as const },
      slips: [slip],
      offers: [],
    };
    const version = await saveDraft(em(), house.bram, one.number, draft, now);
    const sent = await send(em(), house.bram, one.number, { version, lastMessage: one.message }, now);
    expect(sent.ok).toBe(true);
  });

  test("asked again, by however many processes at once, it says nothing twice", async () => {
    const rule = await ruleOn();
    const one = await came();
    await Promise.all([1, 2, 3, 4].map(() => answerByRules(em(), one.message, now)));
    await answerByRules(em(), one.message, minutes(5));
    expect(await lettersOf(one.id)).toHaveLength(1);
    expect(await doneBy(rule)).toHaveLength(1);
  });

  test("asked of many at once, it knows of each what it did about those before", async () => {
    const rule = await ruleOn({ perHour: 2, oncePerSenderHours: 24 });
    const [one, other, third] = [await came(), await came("Where is my hat?"), await came()];
    const again = await came("And what does it cost on Sundays?", { fromAddress: one.address });
    const fourth = await came();
    const all = [one, other, third, again, fourth].map(({ message }) => message);
    await answerByRules(em(), [...all, ...all, 999_999], now);
    await answerByRules(em(), all, now);
    const letters = await Promise.all([one, other, third, fourth].map(({ id }) => lettersOf(id)));
    expect(letters.map((found) => found.length)).toEqual([1, 0, 1, 0]);
    expect((await doneBy(rule)).map(({ does }) => does)).toEqual(["send", "send", "held", "instead"]);
  });

  test("what cannot be kept of one of many is kept of none, and each is answered by itself then", async () => {
    const rule = await ruleOn();
    const [one, other] = [await came(), await came()];
    // What is written of the second fails, when the first is done.
    await query(em(), `alter table case_notices add constraint no_other check (case_id <> ${other.id})`);
    const all = [one.message, other.message];
    try {
      await expect(answerByRules(em(), all, now)).rejects.toThrow("no_other");
      expect(await doneBy(rule)).toEqual([]);
      expect(await lettersOf(one.id)).toEqual([]);
      await answerByRules(em(), one.message, now);
    } finally {
      await query(em(), "alter table case_notices drop constraint no_other");
    }
    await answerByRules(em(), all, now);
    expect((await lettersOf(one.id)).length + (await lettersOf(other.id)).length).toBe(2);
    expect((await doneBy(rule)).map(({ does }) => does)).toEqual(["send", "send"]);
  });

  test("it answers in the language in which its reply is written for the customer", async () => {
    const file = (path: string, text: string) => ({ path, text });
    const { library } = readFolder([
      file("library.yaml", "shelves:\n  - { id: desk, name: Desk, mark: D }\n"),
      file("desk/pay.md", "---\nid: pay\ntitle: Paying\n---\nYou pay on board.\n"),
      file(
        "desk/pay.de.md",
        "---\nvariant_of: pay\nlanguage: de\ntitle: Bezahlen\n---\nBezahlt wird an Bord.\n",
      ),
    ]);
    await importLibrary(em(), library, () => Promise.reject(new Error("no files")), early);
    await ruleOn({ reply: "pay" });
    const [one, other] = [
      await came(),
      await came("Was kostet es? (What does it cost?)", { language: "de" }),
    ];
    await answerByRules(em(), [one.message, other.message], now);
    expect((await lettersOf(one.id))[0]?.text).toContain("You pay on board.");
    const [german] = await lettersOf(other.id);
    expect(german?.text).toContain("Bezahlt wird an Bord.");
    expect(german?.language).toBe("de");
  });

  test("prepared, it waits on the case for somebody to take or to leave", async () => {
    await ruleOn({}, "prepare");
    const one = await came();
    await answerByRules(em(), one.message, now);
    expect(await lettersOf(one.id)).toEqual([]);
    const { notices, noticeReplies } = await readOpenCase(em(), house.bram, one.number, 0, now);
    expect(notices).toMatchObject([{ on: "arrival", rule: "What it costs", state: "offered", reply: "fee" }]);
    expect(noticeReplies.map((reply) => reply.key)).toContain("fee");
  });

  test("what it is not for, and what came before it was switched on, it leaves alone", async () => {
    const rule = await ruleOn();
    const other = await came("Where is my hat?");
    await answerByRules(em(), other.message, now);
    await switchRule(em(), lead(), rule, "off", now);
    await switchRule(em(), lead(), rule, "send", minutes(1));
    const before = await came();
    await answerByRules(em(), before.message, minutes(2));
    expect(await doneBy(rule)).toEqual([]);
  });

  test.each<["automatic" | "message", Parameters<typeof testCase>[2], string]>([
    ["automatic", {}, "a program sent it"],
    ["message", { envelope: { returnPath: "", headers: {} } }, "return path is empty"],
    [
      "message",
      { envelope: { returnPath: "a@example.org", headers: { "list-id": ["<a.b>"] } } },
      "by a list",
    ],
    ["message", { fromAddress: "no-reply@example.net" }, "reads no answers"],
    ["message", { fromAddress: "desk@example.com" }, "an address of ours"],
  ])("a %s with %j is never answered", async (kind, given, why) => {
    const rule = await ruleOn();
    const one = await came(undefined, { kind, ...given });
    await answerByRules(em(), one.message, now);
    expect(await lettersOf(one.id)).toEqual([]);
    expect(await doneBy(rule)).toEqual([{ does: "held", why: expect.stringContaining(why) }]);
  });

  test("what the second look stops is prepared, with the reason", async () => {
    const rule = await ruleOn({ reply: "late" }, "prepare");
    // As it may come to be: the reply got its blank after the rule was switched on.
    await em().nativeUpdate(StandingAnswer, { id: rule }, { mode: "send" });
    const one = await came();
    await answerByRules(em(), one.message, now);
    expect(await lettersOf(one.id)).toEqual([]);
    expect(await doneBy(rule)).toEqual([{ does: "prepare", why: expect.stringContaining("Hours is empty") }]);
    const { notices } = await readOpenCase(em(), house.bram, one.number, 0, now);
    expect(notices).toMatchObject([{ state: "held", rule: "What it costs" }]);
  });

  test("on behalf of who has left us nobody is answered, and it says so", async () => {
    const rule = await ruleOn();
    const left = async (at: Date | null) => em().nativeUpdate(Person, { id: house.maren.id }, { leftAt: at });
    const one = await came();
    await left(now);
    try {
      await answerByRules(em(), one.message, now);
    } finally {
      await left(null);
    }
    expect(await lettersOf(one.id)).toEqual([]);
    expect(await doneBy(rule)).toEqual([{ does: "held", why: "who switched it on is not with us any more" }]);
  });

  test("called back before it leaves, it is offered", async () => {
    const rule = await ruleOn({ delayMinutes: 10 });
    const one = await came();
    await answerByRules(em(), one.message, now);
    const [letter] = await lettersOf(one.id);
    expect(letter?.dueAt).toEqual(minutes(10));
    expect(await whatRuleDid(em(), lead(), rule)).toMatchObject([{ does: "send", letter: letter?.id }]);
    await callBack(em(), house.bram, letter?.id ?? 0, minutes(1));
    expect(await lettersOf(one.id)).toMatchObject([{ state: "called back" }]);
    const { notices } = await readOpenCase(em(), house.bram, one.number, 0, minutes(1));
    expect(notices).toMatchObject([{ state: "offered", reply: "fee" }]);
    expect(await whatRuleDid(em(), lead(), rule)).toMatchObject([{ letter: null }]);
  });
});

describe("limits", () => {
  test("over so many in an hour it prepares; the third time within a day it switches itself off, and says why", async () => {
    const rule = await ruleOn({ perHour: 1 });
    const toldAt: number[] = [];
    for (const hour of [0, 1.5, 3]) {
      for (const after of [0, 1, 2]) {
        const one = await came(undefined, { at: minutes(hour * 60 + after) });
        await answerByRules(em(), one.message, minutes(hour * 60 + after));
        // Leads are told while it lasts.
        toldAt.push(await rulesToLookAt(em(), lead(), minutes(hour * 60 + after)));
      }
    }
    const does = (await doneBy(rule)).map((one) => one.does);
    expect(toldAt).toEqual([0, 1, 1, 0, 1, 1, 0, 1, 1]);
    expect(await rulesToLookAt(em(), house.maren, minutes(182))).toBe(0);
    expect(does).toEqual(["send", "instead", "instead", "send", "instead", "instead", "send", "instead"]);
    const [row] = (await listRules(em(), lead(), now)).rules;
    expect(row).toMatchObject({
      switchedOnAt: null,
      offWhy: expect.stringContaining("3 times within a day"),
    });
  });

  test("the same sender hears it once", async () => {
    const rule = await ruleOn();
    const one = await came();
    const other = await came(undefined, { fromAddress: one.address });
    await answerByRules(em(), one.message, now);
    await answerByRules(em(), other.message, minutes(1));
    expect((await doneBy(rule)).map((one) => one.does)).toEqual(["send", "held"]);
  });
});

describe("setting rules", () => {
  test("one that was never rehearsed, or not as it is now, is not switched on", async () => {
    const id = await saveRule(em(), lead(), null, input());
    await expect(switchRule(em(), lead(), id, "prepare", now)).rejects.toThrow("Rehearse it first");
    await rehearseRule(em(), id, 10, now, none);
    await switchRule(em(), lead(), id, "prepare", now);
    // A new name changes nothing; another condition does.
    await saveRule(em(), lead(), id, input({ name: "Prices" }));
    const rows = async () => (await listRules(em(), lead(), now)).rules;
    expect(await rows()).toMatchObject([
      { name: "Prices", switchedOnAt: now.toISOString(), rehearsed: { isOfThis: true } },
    ]);
    await saveRule(em(), lead(), id, input({ when: null }));
    expect(await rows()).toMatchObject([{ switchedOnAt: null, rehearsed: { isOfThis: false } }]);
    await expect(switchRule(em(), lead(), id, "send", now)).rejects.toThrow("Rehearse it first");
  });

  test("a reply that asks for what only a person knows can be prepared, and not sent", async () => {
    const id = await saveRule(em(), lead(), null, input({ reply: "late" }));
    await rehearseRule(em(), id, 10, now, none);
    await switchRule(em(), lead(), id, "prepare", now);
    await expect(switchRule(em(), lead(), id, "send", now)).rejects.toThrow("hours");
  });

  test("wrong ones are refused where they are wrong, and nobody but a lead sets any", async () => {
    await expect(saveRule(em(), lead(), null, input({ reply: "hello" }))).rejects.toThrow(
      "an answer that is on the shelf",
    );
    await expect(saveRule(em(), lead(), null, input({ mailboxes: [99999] }))).rejects.toThrow(
      "no such mailbox",
    );
    await expect(saveRule(em(), lead(), 99999, input())).rejects.toThrow("no such rule");
    for (const act of [
      () => saveRule(em(), house.maren, null, input()),
      () => listRules(em(), house.maren, now),
      () => switchRule(em(), house.maren, 1, "off", now),
      () => removeRule(em(), house.maren, 1),
      () => orderRules(em(), house.maren, [1]),
      () => whatRuleDid(em(), house.maren, 1),
    ])
      await expect(act()).rejects.toThrow("lead");
  });

  test("they are asked in their order; the first ends it", async () => {
    const first = await ruleOn({ name: "First" });
    const second = await ruleOn({ name: "Second" });
    await orderRules(em(), lead(), [second, first]);
    const one = await came();
    await answerByRules(em(), one.message, now);
    expect(await doneBy(first)).toEqual([]);
    expect(await doneBy(second)).toHaveLength(1);
    await removeRule(em(), lead(), second);
    expect((await listRules(em(), lead(), now)).rules.map((rule) => rule.name)).toEqual(["First"]);
  });

  test("while no rule is on, nothing is queued for what comes", async () => {
    const queued = async () =>
      (
        await query<{ count: number }>(
          em(),
          "select count(*)::int as count from pgboss.job where name = 'standing'",
        )
      )[0]?.count;
    const before = await queued();
    const ask = async () => {
      const one = await came();
      await em().transactional(async (inner) =>
        askRules(inner, await inner.findOneOrFail(Message, { id: one.message }), now),
      );
    };
    await ask();
    expect(await queued()).toBe(before);
    await ruleOn();
    await ask();
    expect(await queued()).toBe((before ?? 0) + 1);
  });
});

describe("a rehearsal", () => {
  test("counts what it would have done beside what people did, and keeps that with the rule", async () => {
    const id = await saveRule(
      em(),
      lead(),
      null,
      input({ when: { value: "message.body", is: "contains", to: "zither" } }),
    );
    const answeredBy = async (words: string, key: string | null) => {
      const one = await came(words, { at: minutes(600) });
      if (key === null) return one;
      await query(
        em(),
        `with m as (insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, kind, at, "references")
            values (?, 'out', 'email', 'sent', 'desk@example.com', 'a@example.org', 's', 'So it is.', 'message', ?, '{}') returning id, case_id),
           l as (insert into sent_letters (message_id, case_id, language, subject, slips, trace, checks) select id, case_id, 'en', '{"from":"thread"}', '[]', '[]', '[]' from m returning id)
         insert into letter_replies (letter_id, reply_id, position, at) select l.id, r.id, 0, ? from l, replies r where r.key = ?`,
        [one.id, minutes(601), minutes(601), key],
      );
      return one;
    };
    await answeredBy("a zither, one", "fee");
    await answeredBy("a zither, two", "fee");
    const wrong = await answeredBy("a zither, and a storm", "late");
    await answeredBy("a zither, three", null);
    await answeredBy("what does it cost", "fee");
    const told: [number, number][] = [];
    const found = await rehearseRule(em(), id, 5, now, (...how) => told.push(how));
    expect(found.figures).toMatchObject({
      messages: 5,
      agreed: 2,
      otherwise: 1,
      unanswered: 1,
      missed: 1,
      held: 0,
      none: 0,
    });
    expect(found.shown.otherwise).toMatchObject([
      {
        message: wrong.message,
        case: wrong.number,
        words: "a zither, and a storm",
        answer: { titles: ["Running late"] },
      },
    ]);
    expect(found.suggestion).toMatchObject({ test: { is: "lacks", to: "storm" }, otherwise: 1, agreed: 0 });
    expect(told).toEqual([
      [0, 5],
      [5, 5],
    ]);
    const [row] = (await listRules(em(), lead(), now)).rules;
    expect(row?.rehearsed).toMatchObject({ agreed: 2, otherwise: 1, isOfThis: true });
    // What somebody marked is tried each time, wherever it lies.
    await query(
      em(),
      "insert into standing_marks (rule_id, message_id, should, person_id, at) values (?, ?, false, ?, now())",
      [id, wrong.message, house.maren.id],
    );
    expect((await rehearseRule(em(), id, 0, now, none)).figures).toMatchObject({ messages: 0, wrong: 1 });
  });

  test("names the rules that are on and answer the same", async () => {
    await ruleOn({ name: "Whatever comes", when: null });
    await came("a sextant", { at: minutes(700) });
    const id = await saveRule(
      em(),
      lead(),
      null,
      input({ when: { value: "message.body", is: "contains", to: "sextant" } }),
    );
    const { clashes } = await rehearseRule(em(), id, 3, now, none);
    expect(clashes).toEqual([{ name: "Whatever comes", count: 1 }]);
  });
});
