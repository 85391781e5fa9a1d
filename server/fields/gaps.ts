import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { catalogue } from "#core/tokens/catalogue";
import { Case } from "../db/entities/cases";
import { named, query } from "../db/sql";
import { NotFound } from "../errors";
import { ownTokens } from "../house/settings";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** Whom values are kept of. */
type GapOwner = "customer" | "organisation" | "agent";

/** A value that replies in use need and that some have not. */
export interface Gap {
  /** The token's. */
  name: string;
  of: GapOwner;
  label: string;
  /** Replies on shelves that print it and have no other words for where it lacks. */
  replies: { key: string; title: string }[];
  /** How many lack it, and some of them: those whose cases are the latest first. */
  lacking: number;
  some: { id: number; name: string }[];
  /** How many letters it stopped within the last days (`STOPPED_DAYS`). */
  stopped: number;
}

/** So many days letters that were stopped are counted. */
export const STOPPED_DAYS = 90;
/** So many of those who lack a value are named. */
const SOME = 12;

/** Where each built-in value stands; what stands nowhere else is one of the house's own fields. */
const COLUMNS: Record<string, string> = {
  "customer.first_name": "x.first_name",
  "customer.last_name": "x.last_name",
  "customer.full_name": "x.name_key",
  "customer.email":
    "(select min(a.address) from customer_addresses a where a.customer_id = x.id and a.channel = 'email')",
  "customer.phone": "x.phone",
  "customer.language": "x.language",
  "customer.since": "x.since::text",
  "organisation.name": "x.name",
  "organisation.kind": "x.kind",
  "organisation.account": "x.account",
  "organisation.contract_until": "x.contract_until::text",
  "agent.name": "x.name",
  "agent.email": "x.email",
  "agent.team": "x.team_id::text",
  "agent.title": "x.title",
  "agent.department": "x.department",
  "agent.phone": "x.phone",
  "agent.first_name": "x.first_name",
};

const OWNERS: Record<GapOwner, { from: string; name: string; latest: string }> = {
  customer: {
    from: "customers x",
    name: "x.display_name",
    latest: "(select max(c.opened_at) from cases c where c.customer_id = x.id)",
  },
  organisation: {
    from: "organisations x",
    name: "x.name",
    latest:
      "(select max(c.opened_at) from cases c join customers u on u.id = c.customer_id where u.organisation_id = x.id)",
  },
  agent: { from: "people x", name: "x.name", latest: "x.id::text" },
};

/** Tokens of a document that have no other words for where they lack (SQL/JSON path). */
const WITHOUT_OTHER_WORDS = `strict $.** ? (@.type == "token" && !exists(@.attrs.options.fallback)).attrs.name`;
/** The same of a text, as PostgreSQL reads expressions. */
const IN_TEXT = String.raw`\{\$([a-z_.0-9]+)(?![^}]*fallback)[^}]*\}`;

/** The values that replies on shelves print without other words for where they lack, by token. */
async function needed(em: EntityManager): Promise<Map<string, Gap["replies"]>> {
  const rows = await query<{ name: string; replies: Gap["replies"] }>(
    em,
    `with used as (
       select r.key, r.title, t.subject, d.doc from replies r join reply_variants t on t.version_id = r.current_version_id
         cross join lateral (select t.document as doc union all select value from jsonb_each(t.texts)) d
        where r.state = 'shelved'),
     read as (
       select key, title, n.name #>> '{}' as name from used,
         jsonb_path_query(doc, ?::jsonpath) n(name)
       union
       select key, title, m[1] from used, regexp_matches(coalesce(subject, ''), ?, 'g') m)
     select name, jsonb_agg(distinct jsonb_build_object('key', key, 'title', title)) as replies from read
      where name ~ '^(customer|organisation|agent)[.]' group by name`,
    [WITHOUT_OTHER_WORDS, IN_TEXT],
  );
  return new Map(rows.map((row) => [row.name, row.replies]));
}

/**
 * Which customers, organisations and colleagues lack a value that a reply in use needs, and how many letters that stopped;
 * what stopped most first.
 * @throws NotAllowed unless lead
 */
export async function gapsInData(em: EntityManager, viewer: Viewer, now: Date): Promise<Gap[]> {
  requireRole(viewer, "lead");
  const [uses, stops, own] = [
    await needed(em),
    await query<{ name: string; n: number }>(
      em,
      `select name, count(*)::int as n from lacking_values where at > ?::timestamptz - interval '${STOPPED_DAYS} days' group by name`,
      [now],
    ),
    await ownTokens(em, now),
  ];
  const tokens = catalogue(own);
  const gaps: Gap[] = [];
  for (const [name, replies] of uses) {
    const token = tokens.get(name);
    if (!token) continue;
    const of = token.group as GapOwner;
    const { lacking, some } = await whoLacks(em, of, name);
    const stopped = stops.find((one) => one.name === name)?.n ?? 0;
    if (lacking > 0) gaps.push({ name, of, label: token.label, replies, lacking, some, stopped });
  }
  return gaps.sort((a, b) => b.stopped - a.stopped || b.lacking - a.lacking || a.name.localeCompare(b.name));
}

async function whoLacks(
  em: EntityManager,
  of: GapOwner,
  name: string,
): Promise<Pick<Gap, "lacking" | "some">> {
  const { from, name: called, latest } = OWNERS[of];
  const key = name.slice(of.length + 1);
  const column = COLUMNS[name] ?? "x.details ->> :key";
  const here = of === "agent" ? "x.left_at is null and x.active and " : "";
  const lack = `${here}coalesce(btrim(${column}), '') = ''`;
  const [row] = await query<Pick<Gap, "lacking" | "some">>(
    em,
    ...named(
      `select (select count(*)::int from ${from} where ${lack}) as lacking,
              (select coalesce(jsonb_agg(jsonb_build_object('id', l.id, 'name', l.name)), '[]') from (
                 select x.id, ${called} as name from ${from} where ${lack} order by ${latest} desc nulls last, x.id limit ${SOME}) l) as some`,
      { key },
    ),
  );
  return row ?? { lacking: 0, some: [] };
}

/** The values that a letter was stopped for, by the names of their tokens. */
export const lackingSchema = z.strictObject({
  names: z
    .array(
      z
        .string()
        .regex(/^[a-z_]+\.[a-z0-9_]+$/)
        .max(160),
    )
    .max(50),
});

/** Keeps that the viewer's letter on a case could not go for values that lack; once for each. @throws NotFound */
export async function noteLacking(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  names: readonly string[],
  now: Date,
): Promise<void> {
  const subject = await em.findOne(Case, { number }, { fields: ["id"] });
  if (!subject) throw new NotFound(t("thereIsNoCaseNumber", { number }));
  await query(
    em,
    `insert into lacking_values (case_id, person_id, name, at) select ?, ?, unnest(?::text[]), ? on conflict do nothing`,
    [subject.id, viewer.id, [...new Set(names)], now],
  );
}
