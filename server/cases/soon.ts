import type { EntityManager } from "@mikro-orm/postgresql";
import { prepared } from "../db/sql";
import { caseNumber } from "../house/house";
import { settingsOf } from "../house/settings";
import { OURS } from "./ours";
import type { Viewer } from "../people/viewer";

/** A case of the viewer's that is to be answered soon. */
export interface DueSoon {
  number: number;
  label: string;
  /** ISO 8601 instant. */
  answerBy: string;
}

/** So far ahead is looked, and so many are told of. */
const AHEAD_HOURS = 12;
const MOST = 20;

/** Cases that are the viewer's and whose time passes within the next hours, the soonest first. */
export async function dueSoon(em: EntityManager, viewer: Viewer, now: Date): Promise<DueSoon[]> {
  const [rows, { house }] = await Promise.all([
    prepared<{ number: number; answerBy: string }>(
      em,
      `select number, answer_by as "answerBy" from cases
        where status in (${OURS}) and answer_by > ? and answer_by < ?::timestamptz + interval '${AHEAD_HOURS} hours' and assignee_id = ?
        order by answer_by limit ${MOST}`,
      [now, now, viewer.id],
    ),
    settingsOf(em),
  ]);
  return rows.map(({ number, answerBy }) => ({
    number,
    label: caseNumber(house, number),
    answerBy: new Date(answerBy).toISOString(),
  }));
}
