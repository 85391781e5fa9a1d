import type { EntityManager } from "@mikro-orm/postgresql";
import type { NumberInput } from "#core/forms/people";
import { readPhoneNumber, shownNumber } from "#core/sms/number";
import { PhoneNumber, Team } from "../db/entities/people";
import { query } from "../db/sql";
import { environment } from "../environment";
import { NotFound, Unusable } from "../errors";
import { findHouse } from "../house/house";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** A number of ours as the setup shows it. */
export interface NumberRow {
  id: number;
  /** With the country's code, grouped as its people read it. */
  shown: string;
  team: { id: number; name: string };
  /** Messages that came to it or went from it. */
  messages: number;
}

/** How short messages go and come, as the setup tells it. */
export interface ShortMessageWays {
  numbers: NumberRow[];
  /** Where they are handed over; null where no gateway is set. */
  gateway: { host: string; simulated: boolean } | null;
}

/** Numbers and gateway. @throws NotAllowed unless lead */
export async function shortMessageWays(em: EntityManager, viewer: Viewer): Promise<ShortMessageWays> {
  requireRole(viewer, "lead");
  const rows = await query<{ id: number; number: string; team: number; name: string; messages: number }>(
    em,
    `select n.id, n.number, t.id as team, t.name,
            (select count(*)::int from messages m where m.channel = 'sms' and n.number in (m.from_address, m.to_address)) as messages
       from phone_numbers n join teams t on t.id = n.team_id order by t.name, n.id`,
  );
  const { sms, standins } = environment();
  return {
    numbers: rows.map(({ id, number, team, name, messages }) => ({
      id,
      shown: shownNumber(number),
      team: { id: team, name },
      messages,
    })),
    gateway:
      sms === null
        ? null
        : { host: new URL(sms.url).host, simulated: standins.on && sms.url.startsWith(standins.url) },
  };
}

/**
 * Gives a team a number, or another number for one that it has.
 * @param id null for a new one
 * @throws NotAllowed unless lead; NotFound; Unusable with what is wrong with the number
 */
export async function saveNumber(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
  input: NumberInput,
): Promise<number> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    const number = await numberFrom(inner, input.number);
    const team = await inner.findOne(Team, { id: input.team });
    if (!team) throw new NotFound(t("thereIsNoSuchTeam"));
    const other = await inner.findOne(PhoneNumber, { number }, { populate: ["team"] });
    if (other && other.id !== id)
      throw new Unusable(t("thatIsANumberOfTeam", { team: other.team.name }), "number");
    if (id === null) {
      const made = inner.create(PhoneNumber, { number, team });
      await inner.flush();
      return made.id;
    }
    const known = await inner.findOne(PhoneNumber, { id });
    if (!known) throw new NotFound(t("thatNumberIsGone"));
    Object.assign(known, { number, team });
    return id;
  });
}

/** A number as somebody wrote it, in the form of ITU-T E.164. @throws Unusable with what is wrong with it */
export async function numberFrom(em: EntityManager, text: string): Promise<string> {
  const { region } = await findHouse(em);
  const read = readPhoneNumber(text, region ?? null);
  if (!read.ok) throw new Unusable(read.problem, "number");
  return read.e164;
}

/** Takes a number away: what comes to it is refused from then on. @throws NotAllowed unless lead; NotFound */
export async function removeNumber(em: EntityManager, viewer: Viewer, id: number): Promise<void> {
  requireRole(viewer, "lead");
  const gone = await em.nativeDelete(PhoneNumber, { id });
  if (gone === 0) throw new NotFound(t("thatNumberIsGone"));
}
