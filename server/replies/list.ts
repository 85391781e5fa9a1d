import type { EntityManager } from "@mikro-orm/postgresql";
import { named, query } from "../db/sql";
import type { Viewer } from "../people/viewer";
import { mayPublish } from "../access/replies";
import { filterConditions, type ReplyFilter } from "./filter";
import { exactly, searchFor, searchTerms, spelledAlike, type Search } from "./search";

/** How many replies a page of the list has. */
export const PAGE_SIZE = 100;

/** A stretch of a found text; `found` where it is what was searched. */
interface FoundPiece {
  text: string;
  found: boolean;
}

/** A reply as the list shows it. Dates are ISO 8601. */
export interface ReplyRow {
  key: string;
  title: string;
  part: "opening" | "answer" | "closing";
  state: "draft" | "ready to check" | "shelved" | "retired";
  shelf: { key: string; name: string; mark: string };
  tags: string[];
  channels: string[];
  topics: string[];
  withBooking: boolean;
  languages: string[];
  owner: string | null;
  reviewBy: string | null;
  reviewDue: boolean;
  season: { from: string | null; until: string | null; out: boolean };
  /** Letters with it in the last 90 days. */
  uses: number;
  lastUsed: string | null;
  changed: string;
  pinned: boolean;
  waiting: number;
  mayPublish: boolean;
  /** The title with what was found in it; null without a search. */
  titleFound: FoundPiece[] | null;
  /** Words of the text around what was found; null where nothing was found in it. */
  snippet: FoundPiece[] | null;
}

interface Row {
  key: string;
  title: string;
  part: ReplyRow["part"];
  state: ReplyRow["state"];
  shelf_key: string;
  shelf_name: string;
  mark: string;
  audience: string;
  shelf_owner: number | null;
  tags: string[];
  channels: string[];
  topics: string[];
  with_booking: boolean;
  languages: string[] | null;
  owner: string | null;
  review_by: string | null;
  review_due: boolean;
  season_from: string | null;
  season_until: string | null;
  out_of_season: boolean;
  uses: number;
  last_used: string | null;
  updated_at: string;
  pinned: boolean;
  waiting: number;
  title_found: string | null;
  snippet: string | null;
}

const order: Record<Exclude<NonNullable<ReplyFilter["sort"]>, "nearest">, string> = {
  title: "lower(r.title)",
  shelf: "s.position, lower(s.name)",
  part: "r.part",
  state: "r.state",
  owner: "(select lower(p.name) from people p where p.id = r.owner_id)",
  uses: "(select count(*) from letter_replies u where u.reply_id = r.id and u.at > now() - interval '90 days')",
  used: "(select max(u.at) from letter_replies u where u.reply_id = r.id)",
  review: "r.review_by",
  changed: "r.updated_at",
};

/** Marks around found words in a snippet: characters that no text has. */
const START = "\u0001";
const STOP = "\u0002";

/**
 * A page of the replies that a viewer may read, by a filter.
 * Searching, the words must all begin words of title, tags, shelf, text or blanks, in the forms of the reply's
 * language; where nothing has them, words spelled alike are found.
 * @returns the rows, how many there are in all, and whether they are spelled alike only
 */
export async function listReplies(
  em: EntityManager,
  viewer: Viewer,
  filter: ReplyFilter,
): Promise<{ rows: ReplyRow[]; total: number; alike: boolean }> {
  const terms = searchTerms(filter.q);
  if (terms.length === 0) return { ...(await page(em, viewer, filter, null)), alike: false };
  const exact = await page(em, viewer, filter, await searchFor(em, exactly(terms)));
  if (exact.total > 0) return { ...exact, alike: false };
  const spelled = await spelledAlike(em, terms);
  if (spelled === null) return { ...exact, alike: false };
  return { ...(await page(em, viewer, filter, await searchFor(em, spelled))), alike: true };
}

/** The keys of all that a filter finds, for changes in bulk. @param most refuses to read more than this */
export async function listKeys(
  em: EntityManager,
  viewer: Viewer,
  filter: ReplyFilter,
  most: number,
): Promise<string[]> {
  const terms = searchTerms(filter.q);
  const keys = async (by: Search | null) => {
    const { sql, values } = filterConditions(viewer, filter);
    const rows = await query<{ key: string }>(
      em,
      ...named(
        `${by?.with ?? ""} select r.key from replies r join shelves s on s.id = r.shelf_id ${by?.join ?? ""} where ${sql} order by r.id limit :most`,
        { ...values, ...by?.values, most },
      ),
    );
    return rows.map((row) => row.key);
  };
  if (terms.length === 0) return keys(null);
  const exact = await keys(await searchFor(em, exactly(terms)));
  if (exact.length > 0) return exact;
  const spelled = await spelledAlike(em, terms);
  return spelled === null ? [] : keys(await searchFor(em, spelled));
}

async function page(
  em: EntityManager,
  viewer: Viewer,
  filter: ReplyFilter,
  search: Search | null,
): Promise<{ rows: ReplyRow[]; total: number }> {
  const { sql, values } = filterConditions(viewer, filter);
  const bySort = filter.sort ?? (search ? "nearest" : "title");
  const direction = filter.down ? "desc" : "asc";
  const by =
    bySort === "nearest"
      ? search
        ? "hits.rank desc, lower(r.title)"
        : "lower(r.title)"
      : `${order[bySort]
          .split(", ")
          .map((one) => (bySort === "shelf" ? `${one} ${direction}` : one))
          .join(", ")}${bySort === "shelf" ? "" : ` ${direction} nulls last`}, lower(r.title)`;
  const from = `from replies r join shelves s on s.id = r.shelf_id ${search?.join ?? ""} where ${sql}`;
  const all = { ...values, ...search?.values };
  const [counted] = await query<{ total: number }>(
    em,
    ...named(`${search?.with ?? ""} select count(*)::int as total ${from}`, all),
  );
  const rows = await query<Row>(
    em,
    ...named(
      `${search?.with ?? ""}${search ? "," : "with"} paged as (
         select r.id, row_number() over (order by ${by}, r.id) as at ${from} order by ${by}, r.id limit :size offset :skipped
       )
       select r.key, r.title, r.part, r.state, s.key as shelf_key, s.name as shelf_name, s.mark, s.audience, s.owner_id as shelf_owner,
              r.tags, r.channels, r.topics, r.with_booking, r.updated_at, r.review_by::text, coalesce(r.review_by <= current_date, false) as review_due,
              r.season_from::text, r.season_until::text,
              not (coalesce(r.season_from <= current_date, true) and coalesce(r.season_until >= current_date, true)) as out_of_season,
              (select array_agg(t.language order by t.fallback desc, t.language) from reply_variants t where t.version_id = r.current_version_id) as languages,
              (select p.name from people p where p.id = r.owner_id) as owner,
              (select count(*)::int from letter_replies u where u.reply_id = r.id and u.at > now() - interval '90 days') as uses,
              (select max(u.at) from letter_replies u where u.reply_id = r.id) as last_used,
              exists (select 1 from reply_pins n where n.reply_id = r.id and n.person_id = :person) as pinned,
              (select count(*)::int from reply_versions w where w.reply_id = r.id and w.state = 'proposed') as waiting,
              ${search ? foundSql() : "null as title_found, null as snippet"}
         from paged join replies r on r.id = paged.id join shelves s on s.id = r.shelf_id
        order by paged.at`,
      {
        ...all,
        size: PAGE_SIZE,
        skipped: (filter.page - 1) * PAGE_SIZE,
        whole: `StartSel=${START}, StopSel=${STOP}, HighlightAll=true`,
        style: `StartSel=${START}, StopSel=${STOP}, MaxWords=22, MinWords=12, MaxFragments=1`,
      },
    ),
  );
  return { total: counted?.total ?? 0, rows: rows.map((row) => shown(row, viewer)) };
}

/** The text of a variant: its words without the title, which come first. */
const TEXT = "regexp_replace(substring(t.words from position(E'\\n' in t.words) + 1), '\\s+', ' ', 'g')";

/** What was found in the title, and around what was found in the text, in the variant that has it best. */
function foundSql(): string {
  const best = (words: string, style: string) =>
    `(select ts_headline(language_dictionary(t.language), ${words}, asked.terms, ${style})
        from reply_variants t, asked where t.version_id = r.current_version_id and t.terms @@ asked.terms
       order by ts_rank(t.terms, asked.terms) desc limit 1)`;
  return `${best("r.title", ":whole")} as title_found, ${best(TEXT, ":style")} as snippet`;
}

function shown(row: Row, viewer: Viewer): ReplyRow {
  return {
    key: row.key,
    title: row.title,
    part: row.part,
    state: row.state,
    shelf: { key: row.shelf_key, name: row.shelf_name, mark: row.mark },
    tags: row.tags,
    channels: row.channels,
    topics: row.topics,
    withBooking: row.with_booking,
    languages: row.languages ?? [],
    owner: row.owner,
    reviewBy: row.review_by,
    reviewDue: row.review_due,
    season: { from: row.season_from, until: row.season_until, out: row.out_of_season },
    uses: row.uses,
    lastUsed: row.last_used === null ? null : new Date(row.last_used).toISOString(),
    changed: new Date(row.updated_at).toISOString(),
    pinned: row.pinned,
    waiting: row.waiting,
    mayPublish: mayPublish(viewer, { audience: row.audience, ownerId: row.shelf_owner }),
    titleFound: row.title_found === null ? null : pieces(row.title_found),
    snippet: row.snippet?.includes(START) ? pieces(row.snippet) : null,
  };
}

function pieces(snippet: string): FoundPiece[] {
  return snippet.split(/(\u0001[^\u0002]*\u0002)/).flatMap((text): FoundPiece[] => {
    if (text === "") return [];
    const found = text.startsWith(START);
    return [{ text: found ? text.slice(1, -1) : text, found }];
  });
}

/** Tags, topics and languages that replies have, for filters and forms. */
export async function knownWords(
  em: EntityManager,
  viewer: Viewer,
): Promise<{ tags: string[]; topics: string[]; languages: string[] }> {
  const { sql, values } = filterConditions(viewer, { ...NOTHING, state: "any" });
  const [row] = await query<{ tags: string[]; topics: string[]; languages: string[] }>(
    em,
    ...named(
      `with readable as (select r.* from replies r join shelves s on s.id = r.shelf_id where ${sql})
       select coalesce((select array_agg(distinct tag order by tag) from readable, unnest(tags) tag), '{}') as tags,
              coalesce((select array_agg(topic order by topic) from (
                 select topic from cases where topic is not null union select unnest(topics) from readable) known), '{}') as topics,
              coalesce((select array_agg(distinct t.language order by t.language) from readable
                 join reply_variants t on t.version_id = readable.current_version_id), '{}') as languages`,
      values,
    ),
  );
  return row ?? { tags: [], topics: [], languages: [] };
}

const NOTHING: ReplyFilter = {
  q: "",
  shelf: "",
  part: null,
  state: null,
  tag: "",
  channel: null,
  language: "",
  topic: "",
  owner: null,
  review: null,
  season: null,
  use: null,
  sort: null,
  down: false,
  page: 1,
};
