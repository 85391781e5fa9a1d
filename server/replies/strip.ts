import type { EntityManager } from "@mikro-orm/postgresql";
import type { AttachmentRef, Part } from "#core/compose/slip";
import type { Passages } from "#core/conditions/condition";
import type { Doc } from "#core/document/types";
import type { Blanks } from "#core/tokens/blanks";
import type { Viewer } from "../people/viewer";
import { named, query } from "../db/sql";
import { asks, USABLE_SHELF } from "./access";

/** A reply as the shelf strip offers it: all that is needed to read it for a case and to take it. */
export interface StripReply {
  key: string;
  versionId: number;
  title: string;
  part: Part;
  shelf: { name: string; mark: string };
  tags: string[];
  language: string;
  document: Doc;
  blanks: Blanks;
  passages: Passages;
  subject: string | null;
  useTemplateSubject: boolean;
  attachments: AttachmentRef[];
  /** Why it stands where it stands, in words. */
  why: string;
}

export interface StripQuery {
  /** What the agent typed; empty to order by the message's own words. */
  query: string;
  /** Text of the message that waits. */
  message: string;
  channel: string;
  /** Language of the letter; replies without a variant in it come in their fallback. */
  language: string;
  limit: number;
  /** Only these replies, by key. */
  keys?: string[];
}

interface Row {
  key: string;
  version_id: number;
  title: string;
  part: Part;
  shelf_name: string;
  shelf_mark: string;
  tags: string[];
  language: string;
  document: Doc;
  blanks: Blanks;
  passages: Passages;
  subject: string | null;
  use_template_subject: boolean;
  words: string;
  uses: number;
  matched: boolean;
  in_season: boolean;
  season_from: string | null;
  season_until: string | null;
}

/** Out of season a reply is not offered; searched for, it is found and says so. */
const IN_SEASON = `(r.season_from is null or r.season_from <= current_date) and (r.season_until is null or r.season_until >= current_date)`;

/**
 * Replies for a case: by what was typed, else by words in common with the message, then by use of late.
 * Use counts the letters of the viewer's house of the last 90 days, each half as much a month later.
 */
export async function stripReplies(
  em: EntityManager,
  viewer: Viewer,
  input: StripQuery,
): Promise<{ replies: StripReply[]; total: number }> {
  const typed = input.query.trim();
  const terms = typed ? allWords(typed) : tellingWords(input.message);
  const values = {
    ...asks(viewer),
    channel: input.channel,
    language: input.language,
    short: input.language.slice(0, 2),
    limit: input.limit,
    typed: typed.toLowerCase(),
    // Typed words must begin words of the reply; the message's words only have to be among them.
    terms: typed ? terms.map((term) => `${term}:*`).join(" & ") : terms.join(" | "),
    must: typed !== "",
    keys: input.keys ?? null,
  };
  const rows = await query<Row>(
    em,
    ...named(
      `with offered as (
         select distinct on (r.id) r.id, r.key, r.title, r.part, r.tags, v.id as version_id, v.blanks, v.passages, v.use_template_subject,
                t.language, t.document, t.subject, t.words, t.terms, (${IN_SEASON}) as in_season, r.season_from, r.season_until, coalesce(t.title, r.title) as shown_title, s.name as shelf_name, s.mark as shelf_mark
           from replies r
           join shelves s on s.id = r.shelf_id
           join reply_versions v on v.reply_id = r.id and v.state = 'published'
           join reply_variants t on t.version_id = v.id
          where r.state = 'shelved' and :channel = any(r.channels) and (:must or ${IN_SEASON}) and (:keys::text[] is null or r.key = any(:keys::text[])) and ${USABLE_SHELF}
          order by r.id, (t.language = :language) desc, (left(t.language, 2) = :short) desc, t.fallback desc
       ), used as (
         select lr.reply_id, sum(power(0.5, extract(epoch from now() - lr.at) / 2592000))::float as uses
           from letter_replies lr where lr.at > now() - interval '90 days' group by lr.reply_id
       ), scored as (
         select o.*, coalesce(u.uses, 0) as uses,
                case when :terms = '' then 0 else ts_rank('{0.1, 0.6, 0.8, 1}', o.terms, to_tsquery(language_dictionary(o.language), :terms), 1) end as rank,
                case when :typed = '' then 0 else greatest(similarity(lower(o.shown_title), :typed), word_similarity(:typed, lower(o.words)) * 0.8) end as alike
           from offered o left join used u on u.reply_id = o.id
       )
       select key, version_id, shown_title as title, part, tags, blanks, passages, use_template_subject, language, document, subject,
              words, shelf_name, shelf_mark, uses, (rank > 0) as matched, in_season, season_from::text, season_until::text
         from scored
        where not :must or rank > 0 or alike > 0.45
        order by in_season desc, (part = 'answer') desc, (rank * 4 + alike + least(uses, 50) / 500.0) desc, title
        limit :limit`,
      values,
    ),
  );
  const [counted] = await query<{ total: number }>(
    em,
    ...named(
      `select count(*)::int as total from replies r join shelves s on s.id = r.shelf_id where r.state = 'shelved' and :channel = any(r.channels) and ${IN_SEASON} and ${USABLE_SHELF}`,
      values,
    ),
  );
  const attachments = await attachmentsOf(
    em,
    rows.map((row) => row.version_id),
  );
  const wanted = new Set(terms);
  return {
    total: counted?.total ?? 0,
    replies: rows.map(
      ({
        version_id,
        shelf_name,
        shelf_mark,
        use_template_subject,
        words,
        uses,
        matched,
        in_season,
        season_from,
        season_until,
        ...row
      }) => ({
        ...row,
        versionId: version_id,
        shelf: { name: shelf_name, mark: shelf_mark },
        useTemplateSubject: use_template_subject,
        attachments: attachments.get(version_id) ?? [],
        why: in_season
          ? reason([words, ...row.tags].join(" "), wanted, { typed: typed !== "", uses, matched })
          : outOfSeason(season_from, season_until),
      }),
    ),
  };
}

/** The files of versions, by version. */
export async function attachmentsOf(
  em: EntityManager,
  versions: number[],
): Promise<Map<number, AttachmentRef[]>> {
  const rows = await query<{
    version_id: number;
    file_id: number;
    name: string;
    content_type: string;
    size: number;
  }>(
    em,
    `select a.version_id, a.file_id, a.name, a.content_type, f.size from reply_attachments a join files f on f.id = a.file_id
      where a.version_id = any(?) order by a.version_id, a.position`,
    [versions],
  );
  const byVersion = new Map<number, AttachmentRef[]>();
  for (const row of rows) {
    const list = byVersion.get(row.version_id) ?? [];
    list.push({ id: String(row.file_id), name: row.name, contentType: row.content_type, size: row.size });
    byVersion.set(row.version_id, list);
  }
  return byVersion;
}

const COMMON = new Set(
  "the and for you your our are was were have has had not but can could would with this that from they them what when where which will there here please thank thanks hello dear all any been about just also get got put need back new anything something still after before again like want know say said tell make took take went going come came only very really much more most than then now day days time our one two how why who its his her she him out off did does dont".split(
    " ",
  ),
);

/** The words of what was typed, each once. */
function allWords(text: string): string[] {
  return [...new Set(text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [])].slice(0, 20);
}

/** Words of a message worth looking for: three letters or more, the commonest left out. */
function tellingWords(text: string): string[] {
  const words = text.toLowerCase().match(/[\p{L}\p{N}]{3,}/gu) ?? [];
  return [...new Set(words.filter((word) => !COMMON.has(word)))].slice(0, 60);
}

function outOfSeason(from: string | null, until: string | null): string {
  return `out of season: ${[from && `from ${from}`, until && `until ${until}`].filter(Boolean).join(" ")}`;
}

function reason(
  words: string,
  wanted: Set<string>,
  found: { typed: boolean; uses: number; matched: boolean },
): string {
  const shared = [...new Set(words.toLowerCase().match(/[\p{L}\p{N}]{3,}/gu) ?? [])].filter((word) =>
    found.typed ? [...wanted].some((term) => word.startsWith(term)) : wanted.has(word),
  );
  const use = found.uses >= 1 ? `used ${Math.round(found.uses)} times lately` : null;
  const words3 = shared
    .slice(0, 3)
    .map((word) => `“${word}”`)
    .join(", ");
  if (words3 !== "") return use ? `${words3}; ${use}` : words3;
  if (found.matched) return use ?? "words alike";
  return found.typed ? "spelled alike" : (use ?? "not used lately");
}
