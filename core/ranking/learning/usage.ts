import type { Outcome } from "../inquiry";
import { t } from "../../words/ranking";

/** What came of a reply when it was taken. */
interface ReplyUsage {
  sent: number;
  swapped: number;
  rewritten: number;
}

/** So many answers before anything counts in full: one swap is no verdict, one use no habit. */
const DOUBT = 6;
/** Habit may decide between two that fit alike, and no more. */
const HABIT_COUNTS = 0.3;
/** What is always swapped away or written anew keeps this much of its chance. */
const SUNK = 0.3;

/** How replies fared: who uses them, and whether they were kept as they are. */
export class Usage {
  readonly #byReply = new Map<string, ReplyUsage>();
  readonly #byPerson = new Map<string, number>();
  readonly #byTeam = new Map<string, number>();

  /** @param times 1, or -1 to take back what was learned */
  learn({ reply, person, team, swapped, rewritten }: Outcome, times: 1 | -1): void {
    for (const other of swapped ?? []) this.#of(other).swapped += times;
    if (reply === null) return;
    const usage = this.#of(reply);
    usage.sent += times;
    usage.rewritten += times * (rewritten ?? 0);
    if (person !== undefined) add(this.#byPerson, `${person} ${reply}`, times);
    if (team !== undefined) add(this.#byTeam, `${team} ${reply}`, times);
  }

  /** By how much a reply's chance grows because who asks uses it, and the words for that. */
  habit(
    reply: string,
    person: number | undefined,
    team: number | undefined,
  ): { factor: number; why: string | null } {
    const own = share(this.#byPerson.get(`${person} ${reply}`) ?? 0);
    const ours = share(this.#byTeam.get(`${team} ${reply}`) ?? 0);
    const factor = 1 + HABIT_COUNTS * Math.max(own, ours / 2);
    if (own > 0.5) return { factor, why: t("youUseItOften") };
    return { factor, why: ours > 0.6 ? t("yourTeamUsesItOften") : null };
  }

  /** By how much a reply's chance shrinks because colleagues do not keep it as it is, and the words for that. */
  sinking(reply: string): { factor: number; why: string | null } {
    const { sent, swapped, rewritten } = this.#byReply.get(reply) ?? { sent: 0, swapped: 0, rewritten: 0 };
    const away = swapped / (sent + swapped + DOUBT);
    const anew = rewritten / (sent + DOUBT);
    const factor = 1 - (1 - SUNK) * Math.min(1, away + anew);
    if (away > 0.3 && away >= anew) return { factor, why: t("oftenSwappedForAnother") };
    return { factor, why: anew > 0.3 ? t("oftenWrittenAnew") : null };
  }

  #of(reply: string): ReplyUsage {
    const usage = this.#byReply.get(reply) ?? { sent: 0, swapped: 0, rewritten: 0 };
    this.#byReply.set(reply, usage);
    return usage;
  }
}

function share(times: number): number {
  return times / (times + DOUBT);
}

function add(counts: Map<string, number>, key: string, times: number): void {
  counts.set(key, (counts.get(key) ?? 0) + times);
}
