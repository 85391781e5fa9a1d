import type pg from "pg";

/** So many replies' words are asked for at once. */
const AT_ONCE = 1000;
/** What a word weighs in blank names, in the text, in tags and the shelf's name, and in the title. */
export const WEIGHTS = [0.1, 0.4, 0.8, 1] as const;
/** The least that a word weighs in what names a reply. */
export const NAMING = WEIGHTS[2];

/** The words of a reply, of all its languages, each with the weight of its best place. */
export interface ReplyTerms {
  id: string;
  terms: Map<string, number>;
}

interface TermsRow {
  id: string;
  /** As many lists as there are weights, in their order. */
  terms: string[][];
}

/**
 * Reads the words of the replies on the shelves, in the forms in which the database keeps them for searching.
 * @param known states of replies as they were read before, by id; brought up to date
 * @returns the words of those that are new or changed, batch by batch, each read as it is asked for; and those that are gone
 */
export async function readTerms(
  client: pg.Client,
  known: Map<string, string>,
): Promise<{ changed: AsyncGenerator<ReplyTerms[]>; gone: string[] }> {
  // Every write of a variant gives it another xmin: tags and shelves' names are among its terms, and are no change of a version.
  const { rows } = await client.query<{ id: string; state: string }>(
    `select r.key as id, concat_ws(' ', t.version_id, string_agg(concat(t.id, '.', t.xmin), ' ' order by t.id)) as state
       from replies r join reply_variants t on t.version_id = r.current_version_id where r.state = 'shelved' group by r.id, t.version_id`,
  );
  const states = new Map(rows.map(({ id, state }) => [id, state]));
  const gone = [...known.keys()].filter((id) => !states.has(id));
  for (const id of gone) known.delete(id);
  const changed = [...states].filter(([id, state]) => known.get(id) !== state);
  return { changed: inBatches(client, changed, known), gone };
}

async function* inBatches(
  client: pg.Client,
  changed: [id: string, state: string][],
  known: Map<string, string>,
): AsyncGenerator<ReplyTerms[]> {
  for (let at = 0; at < changed.length; at += AT_ONCE) {
    const batch = changed.slice(at, at + AT_ONCE);
    const { rows } = await client.query<TermsRow>(
      `select r.key as id, json_build_array(${["d", "c", "b", "a"].map((weight) => `tsvector_to_array(ts_filter(t.terms, '{${weight}}'))`).join(", ")}) as terms
         from replies r join reply_variants t on t.version_id = r.current_version_id where r.key = any($1) order by r.id`,
      [batch.map(([id]) => id)],
    );
    const read = new Map<string, Map<string, number>>(batch.map(([id]) => [id, new Map()]));
    for (const { id, terms } of rows) add(read.get(id), terms);
    yield [...read].map(([id, terms]) => ({ id, terms }));
    for (const [id, state] of batch) known.set(id, state);
  }
}

function add(known: Map<string, number> | undefined, lists: string[][]): void {
  for (const [place, weight] of WEIGHTS.entries())
    for (const term of lists[place] ?? []) known?.set(term, Math.max(known.get(term) ?? 0, weight));
}
