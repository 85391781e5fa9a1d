import type { EntityManager } from "@mikro-orm/postgresql";
import type { TrialCase } from "#core/compose/trials";
import { NOTHING_STANDS, STANDS, type Stands } from "../cases/stands";
import { contextFrom, inOurRegion } from "../answering/context";
import { Case, CaseLookup } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { query } from "../db/sql";
import { caseNumber } from "../house/house";
import { ownTokensOf, settingsOf } from "../house/settings";
import type { Viewer } from "../people/viewer";

/** How many cases of each kind are offered for trying a reply on. */
const EACH = 8;

/**
 * Cases to try replies on: the latest, and the awkward ones among the latest thousand (without a first name,
 * a booking or a booking's vehicle; with long names; of an organisation; in other languages).
 * @param pinned numbers of cases that the viewer chose
 */
export async function trialCases(
  em: EntityManager,
  viewer: Viewer,
  pinned: number[],
  now: Date,
): Promise<TrialCase[]> {
  const chosen = await query<{ id: number }>(
    em,
    `with recent as (
       select c.id, c.number, cu.first_name, cu.display_name, cu.organisation_id, c.details, coalesce(c.language, cu.language) as language,
              l.data as booking, row_number() over (order by c.opened_at desc) as at
         from cases c join customers cu on cu.id = c.customer_id
         left join case_lookups l on l.case_id = c.id and l.source = 'bookings' and l.data is not null
        order by c.opened_at desc limit 1000
     )
     select id from recent where number = any(?)
     union (select c.id from cases c where c.number = any(?))
     union (select id from recent order by at limit ${EACH})
     union (select id from recent where booking is not null order by at limit ${EACH})
     union (select id from recent where booking->>'vehicle' is not null order by at limit ${EACH})
     union (select id from recent where booking->>'new_sails_at' is not null order by at limit ${EACH})
     union (select id from recent where first_name is null order by at limit ${EACH})
     union (select id from recent where booking is null order by at limit ${EACH})
     union (select id from recent where organisation_id is not null order by at limit ${EACH})
     union (select id from recent where details <> '{}' order by at limit ${EACH})
     union (select id from recent order by length(display_name) desc limit ${EACH})
     union (select id from (select id, row_number() over (partition by left(language, 2) order by at) as nth from recent) spoken where nth <= 3)`,
    [pinned, pinned],
  );
  const ids = chosen.map((row) => row.id);
  const [settings, person, cases, lookups] = await Promise.all([
    settingsOf(em),
    em.findOneOrFail(Person, { id: viewer.id }),
    em.find(
      Case,
      { id: { $in: ids } },
      { populate: ["customer.organisation"], orderBy: { openedAt: "desc" } },
    ),
    em.find(CaseLookup, { case: { $in: ids }, source: "bookings" }),
  ]);
  const { house } = settings;
  const own = ownTokensOf(settings, now);
  const latestIds = await query<{ id: number; attached: boolean }>(
    em,
    `select distinct on (m.case_id) m.id, exists (select 1 from attachments a where a.message_id = m.id) as attached
       from messages m where m.case_id = any(?) and m.direction = 'in' order by m.case_id, m.at desc, m.id desc`,
    [ids],
  );
  const stands = await query<{ id: number; stands: Stands }>(
    em,
    `select c.id, ${STANDS} as stands from cases c where c.id = any(?)`,
    [ids],
  );
  const messages = await em.find(Message, { id: { $in: latestIds.map((row) => row.id) } });
  return cases.map((subject) => {
    const latest = messages.find((one) => one.case.id === subject.id) ?? null;
    const { customer } = subject;
    const language = inOurRegion(latest?.language ?? customer.language ?? house.language, house.language);
    return {
      number: subject.number,
      label: caseNumber(house, subject.number),
      customer: customer.displayName,
      channel: subject.channel,
      language,
      subject: subject.subject,
      context: contextFrom({
        settings,
        own,
        person,
        subject,
        stands: stands.find((one) => one.id === subject.id)?.stands ?? NOTHING_STANDS,
        booking: lookups.find((one) => one.case.id === subject.id) ?? null,
        latest,
        recipient: latest?.fromAddress ?? null,
        language,
        attached: latestIds.find((one) => one.id === latest?.id)?.attached ?? false,
        answers: {},
        now,
      }),
    };
  });
}
