import { raw, type FilterQuery } from "@mikro-orm/core";
import { named } from "./sql";

/**
 * Who may see and use replies, said once. Shelves are `s` and replies `r` in these conditions; their values are
 * `AccessParameters`. Statements have them in their text, and the ORM as filters of its entities.
 *
 * Used in answers are the replies of shelves for everyone, for one's own teams, and of one's own. Read, for keeping
 * them, are also the shared shelves of other teams by curators. A personal shelf is its owner's alone.
 */
export const USABLE_SHELF = `(s.audience = 'everyone' or (s.audience = 'owner' and s.owner_id = :person)
  or (s.audience = 'teams' and exists (select 1 from shelf_teams st where st.shelf_id = s.id and st.team_id = any(:teams::int[]))))`;

export const READABLE_SHELF = `(${USABLE_SHELF} or (:curator and s.audience <> 'owner'))`;

/** Before a reply was ever published only its owner and curators see it. */
export const READABLE_REPLY = `(${READABLE_SHELF} and (r.state in ('shelved', 'retired') or r.owner_id = :person or :curator))`;

/** The values that the conditions ask for; teams as an array literal of PostgreSQL, for the ORM takes an array apart. */
// A type and no interface: it goes where values by name go.
// eslint-disable-next-line @typescript-eslint/consistent-type-definitions
export type AccessParameters = { person: number; teams: string; curator: boolean };

/** The filter `readableShelf` of shelves. */
export function readableShelf(given: AccessParameters): FilterQuery<object> {
  return filter(READABLE_SHELF, "s", given);
}

/** The filter `readableReply` of replies. */
export function readableReply(given: AccessParameters): FilterQuery<object> {
  return filter(`exists (select 1 from shelves s where s.id = r.shelf_id and ${READABLE_REPLY})`, "r", given);
}

/** A condition for the ORM, which has an alias of its own for what the condition calls by a letter. */
function filter(condition: string, letter: "s" | "r", given: AccessParameters): FilterQuery<object> {
  const [text, values] = named(condition, given);
  const rule = (alias: string) => text.replaceAll(new RegExp(`\\b${letter}\\.`, "g"), `${alias}.`);
  return { [raw(rule, values)]: [] };
}
