import type { EntityManager } from "@mikro-orm/postgresql";
import type { Groups, Sought } from "#core/search/inverted-index";
import { spelledLike } from "#core/search/spelling";
import { query } from "../db/sql";

/** The words of a search as PostgreSQL's prefix terms; empty when nothing is searched. */
export function searchTerms(q: string, most = 12): string[] {
  return [...new Set(q.toLowerCase().match(/[\p{L}\p{M}\p{N}]+/gu) ?? [])]
    .slice(0, most)
    .map((term) => term.slice(0, LONGEST));
}

/** Words longer than this are not told apart by their ends. */
const LONGEST = 40;

/** A search as parts of a statement on replies `r`: `hits` has the versions found, each with its rank. */
export interface Search {
  with: string;
  join: string;
  values: Record<string, unknown>;
}

/** The search in which every term begins a word. */
export function exactly(terms: string[]): string {
  return terms.map((term) => `${term}:*`).join(" & ");
}

/** For a misspelled word so many others are tried. */
const MEANT = 6;

/**
 * Words spelled like the terms, for each of them several, among the words that published replies have. A term that begins
 * words stands for them.
 * @returns the words as they are written, not yet in any dictionary's form; null where some term is like no word
 */
export async function wordsAlike(em: EntityManager, terms: string[]): Promise<Groups | null> {
  const found = await em.transactional(async (inner) => {
    // Of “wind” little is left in “wnid”. Read from one end to the other, words are compared ten times as long.
    await query(
      inner,
      "select set_config('pg_trgm.similarity_threshold', '0.1', true), set_config('enable_seqscan', 'off', true)",
    );
    // A swap of neighbours counts two here: what is farther than twice the most mistakes cannot be meant.
    return query<{ term: string; begun: string[]; near: string[] }>(
      inner,
      `select asked.term,
              array(select w.word from search_words w where w.word like asked.term || '%' order by length(w.word), w.word limit 8) as begun,
              array(select w.word from search_words w cross join lateral levenshtein_less_equal(left(w.word, length(asked.term) + 2), asked.term, 6) as distance
                     where w.word % asked.term and distance <= 6 order by distance, w.word limit 200) as near
         from unnest(?::text[]) with ordinality asked(term, nth) order by asked.nth`,
      [terms],
    );
  });
  // A word's stem may be shorter than what was typed of it: words that a term begins are asked for in full too.
  const groups = found.map(({ term, begun, near }) =>
    begun.length > 0
      ? [{ term, begins: true }, ...begun.map(whole)]
      : spelledLike(term, near, MEANT).map(whole),
  );
  return groups.every((group) => group.length > 0) ? groups : null;
}

function whole(term: string): Sought {
  return { term, begins: false };
}

/** The search for words spelled like the terms. @returns null where some term is like no word */
export async function spelledAlike(em: EntityManager, terms: string[]): Promise<string | null> {
  const groups = await wordsAlike(em, terms);
  return groups?.map((group) => `(${group.map(asTerm).join(" | ")})`).join(" & ") ?? null;
}

function asTerm({ term, begins }: Sought): string {
  return begins ? `${term}:*` : term;
}

/** The languages that replies have, and English, as `known`, told by the index that has them in order. */
export const KNOWN_LANGUAGES = `with recursive written as (
       (select language from reply_variants order by language limit 1)
       union all
       select (select t.language from reply_variants t where t.language > w.language order by t.language limit 1)
         from written w where w.language is not null
     ), known as (select 'en' as language union select language from written where language is not null)`;

/** A text query in every language that replies have, so that the index serves them all. */
export async function searchFor(em: EntityManager, asked: string): Promise<Search> {
  const languages = await query<{ language: string }>(em, `${KNOWN_LANGUAGES} select language from known`);
  const values: Record<string, unknown> = { asked };
  const queries = languages.map(({ language: tag }, index) => {
    const name = `lang${"abcdefghijklmnopqrstuvwxyz".charAt(index % 26)}${"x".repeat(Math.floor(index / 26))}`;
    values[name] = tag;
    return `to_tsquery(language_dictionary(:${name}), :asked)`;
  });
  return {
    with: `with asked as (select ${queries.join(" || ")} as terms),
      hits as (
        select t.version_id, max(ts_rank('{0.1, 0.4, 0.8, 1}', t.terms, asked.terms, 1)) as rank
          from reply_variants t, asked where t.terms @@ asked.terms group by t.version_id
      )`,
    join: "join hits on hits.version_id = r.current_version_id",
    values,
  };
}
