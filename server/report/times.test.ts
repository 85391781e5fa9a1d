import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import { callBack } from "../answering/call-back";
import { saveDraft } from "../answering/draft";
import { send } from "../answering/send";
import { changeCase, changeSchema, undoChange, type Change } from "../cases/changes";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import type { Viewer } from "../people/viewer";
import { testCase, testHouse, type TestHouse } from "../testing";
import { timesReport } from "./times";

let house: TestHouse;
let lead: Viewer;
beforeAll(async () => {
  house = await testHouse();
  lead = { ...house.maren, role: "lead" };
});
afterAll(() => house.close());

const at = (time: string) => new Date(`2026-11-25T${time}Z`);
const report = (viewer = lead, days = 30) => timesReport(house.em(), viewer, days, at("15:00:00"));

/** A case that somebody waits on since 09:00, due at a time. */
async function waiting(due: string): Promise<number> {
  const { number } = await testCase(house.em());
  const em = house.em();
  const subject = await em.findOneOrFail(Case, { number });
  Object.assign(subject, { waitingSince: at("09:00:00"), answerBy: at(due), updatedAt: at("09:00:00") });
  await em.flush();
  return number;
}

async function answer(number: number, when: Date): Promise<number> {
  const slip = { uid: "s1", versionId: null, language: "en", document: readMarkdown("Yes.").doc, values: {} };
  const draft = { version: 0, language: "en", subject: { from: "thread" as const }, slips: [slip] };
  const version = await saveDraft(house.em(), house.bram, number, draft, when);
  const last = await house.em().findOneOrFail(Message, { case: { number } }, { orderBy: { id: "desc" } });
  const sent = await send(house.em(), house.bram, number, { version, lastMessage: last.id }, when);
  if (!sent.ok) throw new Error(JSON.stringify(sent.checks));
  return sent.message;
}
const change = (number: number, asked: Change, when: Date) =>
  changeCase(house.em(), house.bram, number, changeSchema.parse(asked), when);

test("counts answers by whether they kept their time, and what is late now; what was called back counts not", async () => {
  await answer(await waiting("12:00:00"), at("11:00:00"));
  await answer(await waiting("12:00:00"), at("12:30:00"));
  const backAgain = await waiting("23:00:00");
  // It waits again, by the time of its team, which has passed.
  await callBack(house.em(), house.bram, await answer(backAgain, at("10:00:00")), at("10:00:05"));
  await waiting("14:59:00");
  await waiting("15:30:00");
  await waiting("16:30:00");
  const { teams, days } = await report();
  expect(teams).toEqual([{ team: "Desk", channel: "email", answered: 2, late: 1, over: 2, soon: 1 }]);
  expect(days).toEqual([{ day: "2026-11-25", inTime: 1, late: 1 }]);
});

test("who set aside or settled while time ran is told to leads, with how near to its time and what came of it", async () => {
  const aside = (reason = "advertising"): Change => ({
    ...{ what: "state", state: "set aside", asideAs: "nothing to answer", reason },
  });
  const [early, late, undone] = [
    await waiting("20:00:00"),
    await waiting("12:10:00"),
    await waiting("12:30:00"),
  ];
  await change(early, aside(), at("12:00:00"));
  await change(late, aside(), at("12:00:00"));
  await change(undone, { what: "state", state: "settled" }, at("12:40:00")).then((done) =>
    undoChange(house.em(), house.bram, done.change, at("12:41:00")),
  );
  // Nobody waited: no clock was stopped.
  const answered = await waiting("20:00:00");
  await answer(answered, at("12:00:00"));
  await change(answered, { what: "state", state: "settled" }, at("12:50:00"));
  const { stopped, teams } = await report();
  expect(stopped).toEqual([{ name: "Bram Test", aside: 2, settled: 1, close: 2, again: 1 }]);
  // Set aside, they are not late; what was taken up again is.
  expect(teams[0]?.over).toBe(3);
  expect((await report(house.bram)).stopped).toBeNull();
});

test("of days long gone nothing is told", async () => {
  const { teams, days } = await timesReport(house.em(), lead, 7, new Date("2027-06-01T00:00:00Z"));
  expect(days).toEqual([]);
  expect(teams.every(({ answered }) => answered === 0)).toBe(true);
});
