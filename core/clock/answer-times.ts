import { isAmong } from "../text/among";
import { t } from "../words/names";

/** How a customer stands with us: their organisation has a contract that runs, they are of one, or they are by themselves. */
export const standings = ["contract", "organisation", "private"] as const;
export type Standing = (typeof standings)[number];

/** A standing, as people say it. */
export function standingName(standing: Standing): string {
  return t(standing === "contract" ? "underContract" : standing);
}

/** How a customer stands at an instant. @param contractUntil the last local date of their organisation’s contract; null for none */
export function standingOf(organisation: { contractUntil: string | null } | null, today: string): Standing {
  if (organisation === null) return "private";
  return organisation.contractUntil !== null && organisation.contractUntil >= today
    ? "contract"
    : "organisation";
}

/** How soon cases are answered: which ones, and within what time. An empty list stands for all. */
export interface AnswerTime {
  id: number;
  channels: string[];
  mailboxes: number[];
  topics: string[];
  standings: string[];
  /** Minutes for the first answer, and for each later one. */
  firstWithin: number;
  nextWithin: number;
  /** The calendar by whose open hours they count; null for all hours of all days. */
  calendar: number | null;
}

/** What of a case decides how soon it is answered. */
export interface Matter {
  channel: string;
  mailbox: number | null;
  topic: string | null;
  standing: Standing;
}

/** The first answer time that a case fits, in the order of the list; null where it fits none. */
export function answerTimeFor(times: readonly AnswerTime[], matter: Matter): AnswerTime | null {
  return (
    times.find(
      (one) =>
        isAmong(one.channels, matter.channel) &&
        isAmong(one.mailboxes, matter.mailbox) &&
        isAmong(one.topics, matter.topic) &&
        isAmong(one.standings, matter.standing),
    ) ?? null
  );
}
