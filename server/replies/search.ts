import type { EntityManager } from "@mikro-orm/postgresql";
import { query } from "../db/sql";

/** The words of a search as PostgreSQL's prefix terms; empty when nothing is searched. */
export function searchTerms(q: string): string[] {
  return [...new Set(q.toLowerCase().match(/[\p{L}\p{M}\p{N}]+/gu) ?? [])]
    .slice(0, 12)
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

/** The same; but where nothing longer than two letters is asked, with which everything begins somewhere, in titles, tags and shelves only. */
export function inNames(terms: string[]): string {
  return terms.some((term) => term.length > 2)
    ? exactly(terms)
    : terms.map((term) => `${term}:*AB`).join(" & ");
}

/**
 * The search for words spelled like the terms, among the words that published replies have (pg_trgm finds
 * the candidates, Levenshtein distance tells them apart). A term that begins words stands for them.
 * @returns null where some term is like no word
 */
export async function spelledAlike(em: EntityManager, terms: string[]): Promise<string | null> {
  const found = await em.transactional(async (inner) => {
    await query(inner, "select set_config('pg_trgm.similarity_threshold', '0.2', true)");
    return query<{ term: string; begun: string[] | null; words: string[] | null }>(
      inner,
      `select asked.term, near.words,
              (select array_agg(word) from (
                 select w.word from search_words w where w.word like asked.term || '%' order by length(w.word), w.word limit 8) longer) as begun
         from unnest(?::text[]) with ordinality asked(term, nth),
              lateral (
                select array_agg(word order by distance, closeness desc) as words from (
                  select w.word, similarity(w.word, asked.term) as closeness, levenshtein_less_equal(w.word, asked.term, 3) as distance
                    from search_words w where w.word % asked.term
                   order by distance, closeness desc, w.word limit 6
                ) best where distance <= case when length(asked.term) < 5 then 1 when length(asked.term) < 9 then 2 else 3 end
              ) near
        order by asked.nth`,
      [terms],
    );
  });
  // A word's stem may be shorter than what was typed of it: words that a term begins are asked for in full too.
  const groups = found.map(({ term, begun, words }) =>
    begun ? `(${[`${term}:*`, ...begun].join(" | ")})` : words && `(${words.join(" | ")})`,
  );
  return groups.every((group) => group !== null) ? groups.join(" & ") : null;
}

/** A text query in every language that replies have, so that the index serves them all. */
export async function searchFor(em: EntityManager, asked: string): Promise<Search> {
  const languages = await query<{ language: string }>(
    em,
    `with recursive known as (
       (select language from reply_variants order by language limit 1)
       union all
       select (select t.language from reply_variants t where t.language > k.language order by t.language limit 1)
         from known k where k.language is not null
     ) select language from known where language is not null`,
  );
  const values: Record<string, unknown> = { asked };
  const tags = [...new Set(["en", ...languages.map((row) => row.language)])];
  const queries = tags.map((tag, index) => {
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
