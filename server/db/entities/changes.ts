import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import { Case } from "./cases";
import { Question } from "./mailboxes";
import { Message } from "./messages";
import { Person } from "./people";

/** A change that somebody made to which case is whose, and what is on it: kept so that it can be undone. */
export const CaseChange = defineEntity({
  name: "CaseChange",
  tableName: "case_changes",
  indexes: [{ properties: ["kind", "at"] }],
  properties: {
    id: p.integer().primary(),
    kind: p.enum(["joined", "split", "moved", "message moved", "state", "assigned", "topic", "tags"]),
    person: () => p.manyToOne(Person).deleteRule("cascade"),
    /** The case that was looked at when it was done. */
    case: () => p.manyToOne(Case).deleteRule("cascade").index(),
    data: p.json<CaseChangeData>(),
    at: p.datetime(),
    undoneAt: p.datetime().nullable(),
  },
});
export type CaseChange = InferEntity<typeof CaseChange>;

/** How a case stands, as far as changes of cases set it. Times are ISO 8601 instants. */
export interface CaseStanding {
  case: number;
  status: Case["status"];
  waitingSince: string | null;
  answerBy: string | null;
  asideAs: Case["asideAs"];
  stateReason: string | null;
  /** Changes of long ago did not keep it. */
  assignee?: number | null;
  team?: number;
  topic?: string | null;
  tags?: string[];
  customer: number;
  joinedTo: number | null;
}

/** What a change of cases set, for undoing it. */
export interface CaseChangeData {
  /** Messages that went from one case to another, by their ids; empty where the case itself moved. */
  messages: number[];
  from: number;
  to: number;
  /** How the cases stood before and after. */
  before: CaseStanding[];
  after: CaseStanding[];
}

/** A question that went to somebody, and what they pressed. */
export const AskedQuestion = defineEntity({
  name: "AskedQuestion",
  tableName: "asked_questions",
  properties: {
    id: p.integer().primary(),
    question: () => p.manyToOne(Question).deleteRule("cascade"),
    case: () => p.manyToOne(Case).deleteRule("cascade").index(),
    /** The letter or piece that asks it; null until that is kept. */
    message: () => p.manyToOne(Message).nullable().deleteRule("cascade"),
    /** SHA-256 of what its link has; the token itself is in the letter alone. */
    tokenHash: p.string().length(64).unique(),
    expiresAt: p.datetime(),
    answeredAt: p.datetime().nullable(),
    answer: p.json<string | number | boolean>().nullable(),
    remark: p.text().nullable(),
  },
});
export type AskedQuestion = InferEntity<typeof AskedQuestion>;
