import type { EntityManager } from "@mikro-orm/postgresql";
import { withTags, type Effects } from "#core/standing/effects";
import { assign, bringInto, setTopic } from "../cases/states";
import { setTags } from "../cases/tags";
import { Person, Team } from "../db/entities/people";
import type { Case } from "../db/entities/cases";
import { query } from "../db/sql";
import type { Viewer } from "../people/viewer";
import { t } from "../words";

/** Until the transaction ends, no rules are asked of what it changes. */
export async function withoutRules(em: EntityManager): Promise<void> {
  await query(em, "select set_config('plain_shelf.no_rules', 'on', true)", []);
}

/**
 * Does to a case what else a rule does, each as a change on the record that can be undone. What the case is already, and
 * what nobody is there for any more, is left as it is. In the caller's transaction.
 * @param viewer on whose behalf
 * @returns the change of its state; null for none
 */
export async function applyEffects(
  em: EntityManager,
  viewer: Viewer,
  subject: Case,
  { state, topic, owner, team, tags }: Effects,
  now: Date,
): Promise<number | null> {
  // A case that was joined to another stays as it is.
  if (subject.joinedTo != null) return null;
  const given = { em, viewer, number: subject.number, now };
  if (topic !== undefined && topic !== subject.topic) await setTopic(given, topic);
  const tagged = withTags(subject.tags, tags ?? []);
  if (tagged.length > subject.tags.length) await setTags(given, tagged);
  const isThere = owner !== undefined && (await em.count(Person, { id: owner, leftAt: null })) > 0;
  const to = isThere ? owner : (subject.assignee?.id ?? null);
  const isTeam = team !== undefined && (await em.count(Team, { id: team })) > 0 && team !== subject.team.id;
  if (to !== (subject.assignee?.id ?? null) || isTeam)
    await assign(given, { to, team: isTeam ? team : null, note: "" });
  if (state === undefined || state === subject.status) return null;
  const aside =
    state === "set aside" ? { asideAs: "nothing to answer" as const, reason: t("byARule") } : NO_REASON;
  const { change } = await bringInto(given, { state, ...aside });
  return change;
}

const NO_REASON = { asideAs: null, reason: "" };
