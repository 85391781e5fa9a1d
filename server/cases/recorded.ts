import { LockMode, type EntityManager, type FilterQuery } from "@mikro-orm/postgresql";
import { Case, CaseEvent } from "../db/entities/cases";
import { CaseChange, type CaseStanding } from "../db/entities/changes";
import { Person } from "../db/entities/people";
import { Conflict, NotFound } from "../errors";
import { notifyCase } from "../events/notify";
import { caseNumber } from "../house/house";
import { settingsOf } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { t } from "../words";

/** Changes of cases as they are kept: what stood before and after, and who did it. */

/** What a change came to. */
export interface Changed {
  /** For undoing it. */
  change: number;
  /** The case to look at now. */
  number: number;
  /** What was done, in words. */
  words: string;
}

/** By whom, when and from which case something is changed. */
export interface Given {
  em: EntityManager;
  viewer: Viewer;
  number: number;
  now: Date;
}

/** Cases with their customers, each locked until the transaction ends; in one order, whoever asks: two never wait for each other. */
export async function lockedCases(em: EntityManager, which: FilterQuery<Case>): Promise<Case[]> {
  const found = await em.find(Case, which, {
    orderBy: { id: "asc" },
    lockMode: LockMode.PESSIMISTIC_WRITE,
  });
  await em.populate(found, ["customer"]);
  return found;
}

/** Cases by their numbers, in that order, each locked. @throws NotFound; Conflict for one that was joined to another */
export async function locked<Numbers extends number[]>(
  em: EntityManager,
  numbers: [...Numbers],
): Promise<{ [At in keyof Numbers]: Case }> {
  const found = await lockedCases(em, { number: { $in: numbers } });
  return numbers.map((number) => {
    const one = found.find((known) => known.number === number);
    if (!one) throw new NotFound(t("thereIsNoCaseNumber", { number }));
    if (one.joinedTo != null) throw new Conflict(t("caseWasJoinedToAnother", { number }));
    return one;
  }) as { [At in keyof Numbers]: Case };
}

/** How a case stands, as changes keep it. */
export function standing(subject: Case): CaseStanding {
  return {
    case: subject.id,
    status: subject.status,
    waitingSince: subject.waitingSince?.toISOString() ?? null,
    answerBy: subject.answerBy?.toISOString() ?? null,
    asideAs: subject.asideAs ?? null,
    stateReason: subject.stateReason ?? null,
    assignee: subject.assignee?.id ?? null,
    team: subject.team.id,
    topic: subject.topic ?? null,
    tags: [...subject.tags],
    customer: subject.customer.id,
    joinedTo: subject.joinedTo?.id ?? null,
  };
}

interface Done {
  kind: CaseChange["kind"];
  from: Case;
  /** The case that is looked at now. */
  to: Case;
  /** Those that went over. */
  messages: number[];
  before: CaseStanding[];
}

/** Keeps what was done, on the record of each case, and tells whoever looks on. @param say what was done, in words, with the cases by their numbers */
export async function record(
  { em, viewer, now }: Given,
  { kind, from, to, messages, before }: Done,
  say: (labels: { other: string; label: string }) => string,
): Promise<Changed> {
  const { house } = await settingsOf(em);
  const words = say({ other: caseNumber(house, from.number), label: caseNumber(house, to.number) });
  const cases = [...new Set([from, to])];
  const person = em.getReference(Person, viewer.id);
  const change = em.create(CaseChange, {
    kind,
    person,
    case: to,
    data: { messages, from: from.id, to: to.id, before, after: cases.map(standing) },
    at: now,
  });
  await em.flush();
  for (const one of cases)
    em.create(CaseEvent, { case: one, person, kind, data: { words, change: change.id }, at: now });
  await em.flush();
  for (const one of cases) await notifyCase(em, one.number, "message");
  return { change: change.id, number: to.number, words };
}
