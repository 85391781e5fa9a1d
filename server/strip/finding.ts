import type { EntityManager } from "@mikro-orm/postgresql";
import type { Asked, Groups } from "#core/search/inverted-index";
import { query } from "../db/sql";
import { NAMING } from "../ranking/read-terms";
import { KNOWN_LANGUAGES, wordsAlike } from "../replies/search";

/** With one or two letters everything begins somewhere: replies are looked for by what names them first. */
const TELLS_LITTLE = 2;

/**
 * What to look for, one after the other until something is found: replies in which each term begins a word, in the forms of
 * the languages that replies are written in; then those that have words spelled like the terms.
 */
export async function* waysToFind(em: EntityManager, terms: string[]): AsyncGenerator<Omit<Asked, "most">> {
  const begun = await inForms(
    em,
    terms.map((term) => [{ term, begins: true }]),
  );
  if (terms.every((term) => term.length <= TELLS_LITTLE)) yield { ways: begun, least: NAMING };
  yield { ways: begun, least: 0 };
  const alike = await wordsAlike(em, terms);
  if (alike) yield { ways: await inForms(em, alike), least: 0 };
}

/** Groups of words in the forms that each dictionary of the database makes of them. What a language has too often to tell anything is not asked of it. */
async function inForms(em: EntityManager, groups: Groups): Promise<Groups[]> {
  const words = groups.flatMap((group, at) => group.map((sought) => ({ ...sought, at })));
  const forms = await query<{ nth: number; dictionary: string; terms: string[] }>(
    em,
    `${KNOWN_LANGUAGES}, dictionaries as (select distinct language_dictionary(language) as dictionary from known)
     select asked.nth::int, d.dictionary::text, tsvector_to_array(to_tsvector(d.dictionary, asked.word)) as terms
       from dictionaries d, unnest(?::text[]) with ordinality asked(word, nth) order by d.dictionary, asked.nth`,
    [words.map(({ term }) => term)],
  );
  const ways = new Map<string, Groups>();
  for (const { nth, dictionary, terms } of forms) {
    const sought = words[nth - 1];
    if (!sought) continue;
    const way = ways.get(dictionary) ?? groups.map(() => []);
    way[sought.at]?.push(...terms.map((term) => ({ term, begins: sought.begins })));
    ways.set(dictionary, way);
  }
  // Most words have the same form in many dictionaries.
  const different = new Map([...ways.values()].map((way) => [JSON.stringify(way), way]));
  return [...different.values()].map((way) => way.filter((group) => group.length > 0));
}
