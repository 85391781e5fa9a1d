import type { EntityManager } from "@mikro-orm/postgresql";
import type { Case, CaseEvent } from "../db/entities/cases";
import { prepared } from "../db/sql";

/** One thing that happened on a case, in words. */
export interface HistoryEntry {
  id: number;
  kind: CaseEvent["kind"];
  at: string;
  who: string | null;
  what: string;
  /** The change of cases that it was, for undoing it; null for anything else, and for what was undone. */
  undo: number | null;
}

const words: Record<CaseEvent["kind"], string> = {
  opened: "wrote and opened the case",
  received: "wrote again",
  queued: "sent an answer",
  "called back": "called the answer back",
  sent: "The answer was delivered",
  refused: "The answer was refused",
  "tried again": "tried to deliver again",
  "set aside": "set the case aside",
  reopened: "took the case up again",
  "address kept": "kept an address as the customer’s",
  "handed over": "handed the case to a colleague",
  arrived: "The answer arrived",
  begun: "wrote to the customer",
  forwarded: "forwarded a message",
  joined: "",
  split: "",
  moved: "",
  "message moved": "",
  undone: "undid that",
  pressed: "pressed an answer",
  "chat ended": "The chat ended",
  state: "",
  assigned: "",
  topic: "",
  tags: "",
  field: "",
  promise: "",
  notice: "",
  time: "",
};

interface EventRow extends Pick<CaseEvent, "id" | "kind" | "data"> {
  at: string;
  person: string | null;
  undo: number | null;
}

/** What happened on a case, latest first. */
export async function history(em: EntityManager, subject: Case, customer: string): Promise<HistoryEntry[]> {
  const events = await prepared<EventRow>(
    em,
    `select e.id, e.at, e.kind, e.data, p.name as person, ch.id as undo from case_events e left join people p on p.id = e.person_id
       left join case_changes ch on e.kind <> 'undone' and ch.id = (e.data->>'change')::int and ch.undone_at is null
      where e.case_id = ? order by e.at desc, e.id desc limit 100`,
    [subject.id],
  );
  return events.map((event) => {
    const byCustomer = event.kind === "opened" || event.kind === "received";
    const said = words[event.kind];
    const detail =
      typeof event.data.words === "string"
        ? `${said === "" ? "" : ": "}${event.data.words}`
        : replies(event.data.replies);
    return {
      id: event.id,
      kind: event.kind,
      at: new Date(event.at).toISOString(),
      who: event.person ?? (byCustomer ? customer : null),
      what: said + detail,
      undo: event.undo,
    };
  });
}

function replies(titles: unknown): string {
  return Array.isArray(titles) && titles.length > 0
    ? ` with ${titles.map((title) => `“${String(title)}”`).join(", ")}`
    : "";
}
