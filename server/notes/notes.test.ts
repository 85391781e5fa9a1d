import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import { arrive } from "../answering/presence";
import { changeCase, changeSchema, undoChange, type Change } from "../cases/changes";
import { findTopics } from "../cases/topics";
import { AnswerTime } from "../db/entities/calendars";
import { Case } from "../db/entities/cases";
import { Person, Team } from "../db/entities/people";
import { closeHub, onEvent, openHub } from "../events/hub";
import type { LiveEvent } from "../events/notify";
import { NotFound, Unusable } from "../errors";
import { findTeams } from "../people/colleagues";
import { caseRecord } from "../record/timeline";
import { eventually, testCase, testHouse, type TestHouse } from "../testing";
import { noteSchema, notesFor, notesOf, writeNote } from "./notes";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
  await openHub(house.database.url);
});
afterAll(async () => {
  await closeHub();
  await house.close();
});

let one: Awaited<ReturnType<typeof testCase>>;
beforeEach(async () => {
  one = await testCase(house.em());
});

const now = new Date("2026-11-25T10:00:00Z");
const note = (text: string, mentions: number[] = []) =>
  writeNote(house.em(), house.bram, one.number, noteSchema.parse({ text, mentions }), now);
const change = (asked: Change) =>
  changeCase(house.em(), house.bram, one.number, changeSchema.parse(asked), now);
const caseNow = () => house.em().findOneOrFail(Case, { number: one.number }, { populate: ["team"] });

test("a note reaches whom it names at once, until they open its case, and stands in the history", async () => {
  const heard: LiveEvent[] = [];
  const stop = onEvent((event) => heard.push(event));
  await note("@Maren Test: is lane 4 long enough?", [house.maren.id, house.maren.id, house.bram.id]);
  await eventually(
    () => Promise.resolve(heard),
    (events) => events.some(({ kind, person }) => kind === "note" && person === house.maren.id),
  );
  stop();
  const { id } = await caseNow();
  expect(await notesOf(house.em(), id, house.bram)).toMatchObject([
    { by: "Bram Test", mine: true, mentions: ["Maren Test"] },
  ]);
  expect(await notesFor(house.em(), house.bram)).toEqual([]);
  const mine = async () =>
    (await notesFor(house.em(), house.maren)).filter((known) => known.case === one.number);
  expect(await mine()).toMatchObject([{ by: "Bram Test", label: `SF-${one.number}` }]);
  await arrive(house.em(), id, one.number, house.bram.id);
  expect(await mine()).toHaveLength(1);
  await arrive(house.em(), id, one.number, house.maren.id);
  expect(await mine()).toEqual([]);
  const { entries } = await caseRecord(house.em(), house.maren, one.number);
  expect(entries).toContainEqual(expect.objectContaining({ note: true, by: "Bram Test" }));
});

test("a note without words, for nobody who is here, or on no case is refused, and nothing of it is kept", async () => {
  expect(noteSchema.safeParse({ text: "  " }).success).toBe(false);
  await expect(note("hello", [999_999])).rejects.toThrow(NotFound);
  await expect(writeNote(house.em(), house.bram, 1, { text: "x", mentions: [] }, now)).rejects.toThrow(
    NotFound,
  );
  expect(await notesOf(house.em(), (await caseNow()).id, house.bram)).toEqual([]);
});

test("a case is handed over with a note, which is the colleague’s; undone, it is whose it was", async () => {
  const { change: id } = await change({ what: "assign", to: house.maren.id, note: "They called twice." });
  expect((await caseNow()).assignee?.id).toBe(house.maren.id);
  expect((await notesFor(house.em(), house.maren)).map((known) => known.text)).toContain(
    "They called twice.",
  );
  await undoChange(house.em(), house.bram, id, now);
  expect((await caseNow()).assignee).toBeNull();
});

test("a case goes to another team, nobody’s there, with that team’s time; undone, it comes back", async () => {
  const em = house.em();
  const freight = em.create(Team, { name: "Freight", mailbox: "freight@example.com", answerWithin: 60 });
  await em.flush();
  await change({ what: "assign", to: house.bram.id });
  const before = await caseNow();
  const done = await change({ what: "assign", to: null, team: freight.id });
  expect(done.words).toBe(`gave SF-${one.number} to Freight`);
  const there = await caseNow();
  expect([there.team.name, there.assignee]).toEqual(["Freight", null]);
  expect(there.answerBy?.getTime()).toBe((there.waitingSince?.getTime() ?? 0) + 60 * 60_000);
  await expect(change({ what: "assign", to: null, team: freight.id })).rejects.toThrow(Unusable);
  await expect(change({ what: "assign", to: null, team: 999_999 })).rejects.toThrow(NotFound);
  await undoChange(house.em(), house.bram, done.change, now);
  const back = await caseNow();
  expect([back.team.name, back.assignee?.id, back.answerBy]).toEqual([
    "Desk",
    house.bram.id,
    before.answerBy,
  ]);
  expect(await findTeams(house.em(), "freig")).toMatchObject([{ name: "Freight", cases: 0 }]);
});

test("a topic is set by hand and its answer time holds at once; topics are found by what is typed", async () => {
  const em = house.em();
  em.create(AnswerTime, {
    ...{ position: 0, channels: [], mailboxes: [], topics: ["sheepdogs"], standings: [] },
    ...{ firstWithin: 15, nextWithin: 15, calendar: null },
  });
  await em.flush();
  const before = await caseNow();
  const { change: id, words } = await change({ what: "topic", topic: "sheepdogs" });
  expect(words).toBe(`set the topic of SF-${one.number} to “sheepdogs”`);
  const set = await caseNow();
  expect(set.answerBy?.getTime()).toBe((set.waitingSince?.getTime() ?? 0) + 15 * 60_000);
  await expect(change({ what: "topic", topic: "sheepdogs" })).rejects.toThrow(Unusable);
  expect(await findTopics(house.em(), "DOG")).toEqual(["sheepdogs"]);
  await undoChange(house.em(), house.bram, id, now);
  expect([(await caseNow()).topic, (await caseNow()).answerBy]).toEqual([null, before.answerBy]);
});

test("who has left is told of nothing any more", async () => {
  const em = house.em();
  const gone = em.create(Person, {
    ...{
      email: "gone@example.com",
      passwordHash: "x",
      name: "Gone Test",
      firstName: "Gone",
      role: "agent" as const,
    },
    ...{ title: null, department: null, phone: null, timeZone: "UTC", leftAt: now },
    team: em.getReference(Team, house.bram.teamId),
  });
  await em.flush();
  await expect(note("bye", [gone.id])).rejects.toThrow(NotFound);
});
