import type { FieldOwner } from "#core/tokens/fields";
import {
  isWorded,
  type FactDescription,
  type FactInput,
  type FactType,
  type NewFact,
} from "#core/forms/house";
import { sameLanguage } from "#core/language/tag";
import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { fillOwn } from "#core/compose/fill-own";
import { compareTexts, type ComparedText } from "#core/document/compare";
import { toPlainText } from "#core/document/text";
import type { Block, Doc } from "#core/document/types";
import { walk } from "#core/document/walk";
import { safeHref } from "#core/document/links";
import { catalogue } from "#core/tokens/catalogue";
import { nameFrom } from "#core/tokens/name";
import { contextSchema, moneySchema, type Context, type Detail } from "#core/tokens/context";
import { roleName } from "#core/words/named";
import { Field } from "../db/entities/cases";
import { HouseFact, HouseFactValue } from "../db/entities/library";
import { Person } from "../db/entities/people";
import { named, query } from "../db/sql";
import { daySchema } from "../edge";
import { NotAllowed, NotFound, Unusable } from "../errors";
import { notify } from "../events/notify";
import { findHouse, firstLanguage } from "./house";
import { ownTokens, type OwnTokens } from "./settings";
import { includesRole, requireRole, type Viewer } from "../people/viewer";
import { accessParameters } from "../access/replies";
import { READABLE_REPLY } from "../db/access-rule";
import { startOfDay } from "./zone";
import { t } from "../words";

/** A house fact as lists show it. Times are ISO 8601 instants. */
export interface FactRow {
  key: string;
  label: string;
  type: FactType;
  changedBy: "agent" | "curator" | "lead";
  mayChange: boolean;
  value: Detail;
  /** Of the value; null where it reads the same in every language. */
  language: string | null;
  /** The value in other languages, by their tags. */
  texts: Record<string, string>;
  /** The value that is to hold later, and from when. */
  next: { value: Detail; from: string } | null;
  /** Replies that use it. */
  uses: number;
  /** Signatures and stationeries that use it. */
  papers: number;
}

/** Replies whose current version reads a fact: in words, subject, link, condition or default. */
const USES = `exists (select 1 from reply_versions v where v.id = r.current_version_id
  and (v.passages::text || v.blanks::text like '%house.' || f.key || '%'
    or exists (select 1 from reply_variants t where t.version_id = v.id
      and (t.document::text || t.texts::text like '%house.' || f.key || '%' or t.subject like '%house.' || f.key || '%'))))`;

/** Every house fact with the value that holds now. */
export async function listFacts(em: EntityManager, viewer: Viewer, now: Date): Promise<FactRow[]> {
  const rows = await query<
    Omit<FactRow, "changedBy" | "mayChange" | "next"> & {
      changed_by: FactRow["changedBy"];
      next_value: Detail;
      next_from: string | null;
    }
  >(
    em,
    ...named(
      `select f.key, f.label, f.type, f.language, f.changed_by, holds.value, coalesce(holds.texts, '{}') as texts,
              (select n.value from house_fact_values n where n.fact_id = f.id and n.valid_from > :now order by n.valid_from limit 1) as next_value,
              (select n.valid_from from house_fact_values n where n.fact_id = f.id and n.valid_from > :now order by n.valid_from limit 1) as next_from,
              (select count(*)::int from replies r where r.state <> 'retired' and ${USES}) as uses,
              (select count(*)::int from signatures g where concat(g.document, g.texts) like '%"house.' || f.key || '"%')
              + (select count(*)::int from stationery y where concat(y.header, y.footer, y.texts) like '%"house.' || f.key || '"%') as papers
         from house_facts f left join lateral (
           select c.value, c.texts from house_fact_values c where c.fact_id = f.id and c.valid_from <= :now
            order by c.valid_from desc limit 1) holds on true
        order by lower(f.label)`,
      { now },
    ),
  );
  return rows.map(({ changed_by: changedBy, next_value: value, next_from: from, ...row }) => ({
    ...row,
    changedBy,
    mayChange: includesRole(viewer.role, changedBy),
    next: from === null ? null : { value, from: new Date(from).toISOString() },
  }));
}

/** A value that a fact had, has or will have. */
interface FactValueRow {
  id: number;
  value: Detail;
  /** The same in other languages, by their tags. */
  texts: Record<string, string>;
  from: string;
  by: string | null;
  entered: string;
  state: "past" | "now" | "planned";
}

/** A fact with all its values, the latest first. */
export interface OpenFact {
  fact: FactRow;
  values: FactValueRow[];
}

/** One fact with all its values, the newest first. @throws NotFound */
export async function openFact(em: EntityManager, viewer: Viewer, key: string, now: Date): Promise<OpenFact> {
  const fact = (await listFacts(em, viewer, now)).find((one) => one.key === key);
  if (!fact) throw new NotFound(t("thereIsNoHouseFactKey", { key }));
  const values = await em.find(
    HouseFactValue,
    { fact: { key } },
    { populate: ["person"], orderBy: { validFrom: "desc" } },
  );
  const current = values.find((one) => one.validFrom <= now);
  return {
    fact,
    values: values.map((one) => ({
      id: one.id,
      value: one.value,
      texts: one.texts,
      from: one.validFrom.toISOString(),
      by: one.person?.name ?? null,
      entered: one.createdAt.toISOString(),
      state: one.validFrom > now ? "planned" : one === current ? "now" : "past",
    })),
  };
}

const schemas: Record<FactType, z.ZodType<Detail>> = {
  text: z.string().trim().min(1, "Write the value").max(1000, "At most 1,000 characters"),
  long_text: z.string().trim().min(1, "Write the value").max(5000, "At most 5,000 characters"),
  money: z.object({
    amount: z.coerce.number("Write an amount, as in 6.50"),
    currency: z.string().trim().toUpperCase().pipe(moneySchema.shape.currency),
  }),
  date: daySchema,
  link: z
    .string()
    .trim()
    .max(2000)
    .refine((href) => safeHref(href) !== null, "Write an address, as in https://example.org"),
  number: z.coerce.number("Write a number"),
};

/** A value with its texts in other languages, read for a fact of a kind. @throws Unusable with what is wrong */
function readFactInput(
  { type, language }: Pick<HouseFact, "type" | "language">,
  { value, texts }: FactInput,
): { value: Detail; texts: Record<string, string> } {
  const others = Object.entries(texts).filter(
    ([tag, text]) => text !== "" && isWorded(type) && language != null && !sameLanguage(tag, language),
  );
  return {
    value: readFactValue(type, value),
    texts: Object.fromEntries(
      others.map(([tag, text]) => [tag, z.string().parse(readFactValue(type, text))]),
    ),
  };
}

/** Reads a value for a fact of a kind. @throws Unusable with what is wrong */
function readFactValue(type: FactType, value: unknown): Detail {
  const parsed = schemas[type].safeParse(value);
  if (!parsed.success) throw new Unusable(parsed.error.issues[0]?.message ?? t("thisValueCannotBeKept"));
  return parsed.data;
}

/** Adds a house fact, as a token from now on. @returns its key @throws NotAllowed; Unusable */
export async function addFact(em: EntityManager, viewer: Viewer, input: NewFact, now: Date): Promise<string> {
  requireRole(viewer, "curator");
  return em.transactional(async (inner) => {
    const key = await freeName(inner, input.label, "house");
    const fact = inner.create(HouseFact, {
      key,
      label: input.label,
      type: input.type,
      changedBy: input.changedBy,
      language: isWorded(input.type) ? await firstLanguage(inner) : null,
    });
    inner.create(HouseFactValue, {
      fact,
      value: readFactValue(input.type, input.value),
      validFrom: now,
      person: inner.getReference(Person, viewer.id),
    });
    await inner.flush();
    await notify(inner, { case: null, kind: "shelf" });
    return key;
  });
}

/** A label as a name for tokens that none of a group has: small letters, digits and underscores. */
export async function freeName(
  em: EntityManager,
  label: string,
  group: "house" | FieldOwner,
): Promise<string> {
  // Two of one label at once: the second waits here, and finds the name taken.
  await query(em, "select pg_advisory_xact_lock(hashtext(?))", [`names of ${group}`]);
  const fields = { fields: ["key"] } as const;
  const found =
    group === "house" ? await em.find(HouseFact, {}, fields) : await em.find(Field, { of: group }, fields);
  const taken = new Set(found.map(({ key }) => key));
  for (const { name } of catalogue().values())
    if (name.startsWith(`${group}.`)) taken.add(name.slice(group.length + 1));
  return nameFrom(label, taken, "fact");
}

/**
 * Gives a fact a value, in whatever languages, from now or from the beginning of a day in the house's zone.
 * @param from ISO 8601 calendar date; null for now
 * @throws NotFound; NotAllowed; Unusable for what is no such value or a day that has begun
 */
export async function setFact(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  input: FactInput,
  from: string | null,
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    // Under the lock: who may change it is read once nobody can change that any more.
    const fact = await inner.findOne(HouseFact, { key }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    if (!fact) throw new NotFound(t("thereIsNoHouseFactKey", { key }));
    if (!includesRole(viewer.role, fact.changedBy))
      throw new NotAllowed(t("thisFactIsChangedByA", { changedBy: roleName(fact.changedBy) }));
    const house = await findHouse(inner);
    const validFrom = from === null ? now : startOfDay(from, house.timeZone);
    if (from !== null && validFrom <= now) throw new Unusable(t("thatDayHasBegunLeaveThe"));
    const read = readFactInput(fact, input);
    const known = await inner.findOne(HouseFactValue, { fact, validFrom });
    if (known) {
      Object.assign(known, read);
      known.person = inner.getReference(Person, viewer.id);
    } else
      inner.create(HouseFactValue, {
        fact,
        ...read,
        validFrom,
        person: inner.getReference(Person, viewer.id),
      });
    await inner.flush();
    await notify(inner, { case: null, kind: "shelf" });
  });
}

/** Takes back a value that does not hold yet. @throws NotFound; NotAllowed; Unusable once it holds */
export async function dropPlanned(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  id: number,
  now: Date,
): Promise<void> {
  const value = await em.findOne(HouseFactValue, { id, fact: { key } }, { populate: ["fact"] });
  if (!value) throw new NotFound(t("thereIsNoSuchValue"));
  if (!includesRole(viewer.role, value.fact.changedBy))
    throw new NotAllowed(t("thisFactIsChangedByA", { changedBy: roleName(value.fact.changedBy) }));
  if (value.validFrom <= now) throw new Unusable(t("itHoldsAlreadyGiveTheFact"));
  await em.remove(value).flush();
}

/** Changes what a fact is called, who changes it and the language of its values. @throws NotAllowed; NotFound */
export async function describeFact(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  input: FactDescription,
): Promise<void> {
  requireRole(viewer, "curator");
  const fact = await em.findOne(HouseFact, { key });
  if (!fact) throw new NotFound(t("thereIsNoHouseFactKey", { key }));
  fact.label = input.label;
  fact.changedBy = input.changedBy;
  if (input.language !== undefined) fact.language = isWorded(fact.type) ? input.language : null;
  await em.flush();
}

/** A place of a reply, a signature or stationery that reads a fact, before and after a change. */
export interface FactUse {
  /** The reply's key; null for a signature or stationery. */
  key: string | null;
  title: string;
  /** BCP 47; null where it has none of its own. */
  language: string | null;
  /** The words around it, compared; without a new value they are all the same. */
  words: ComparedText[];
}

/**
 * Where replies that the viewer may read, signatures and stationery use a fact, and how they would read with another value.
 * Other tokens show examples.
 * @param input the new value; undefined to show the present
 */
export async function factUses(
  em: EntityManager,
  viewer: Viewer,
  key: string,
  input: FactInput | undefined,
  now: Date,
): Promise<FactUse[]> {
  const fact = await em.findOne(HouseFact, { key });
  if (!fact) throw new NotFound(t("thereIsNoHouseFactKey", { key }));
  const next = input && readFactInput(fact, input);
  const rows = await query<{
    key: string;
    title: string;
    language: string;
    subject: string | null;
    document: Doc;
  }>(
    em,
    ...named(
      `select r.key, r.title, t.language, t.subject, t.document from house_facts f, replies r
         join shelves s on s.id = r.shelf_id join reply_variants t on t.version_id = r.current_version_id
        where f.key = :key and r.state <> 'retired' and ${READABLE_REPLY} and ${USES} order by lower(r.title), t.fallback desc, t.language`,
      { key, ...accessParameters(viewer) },
    ),
  );
  const own = await ownTokens(em, now);
  const house = await findHouse(em);
  const tokens = catalogue(own);
  const before = exampleContext(tokens, own, house.timeZone, now);
  const languages = { language: fact.language ?? null, others: next?.texts ?? {} };
  const after = next
    ? {
        ...before,
        house: { ...before.house, [key]: next.value },
        written: { ...before.written, [`house.${key}`]: languages },
      }
    : before;
  return [...rows, ...(await papersWith(em, key))].map(({ document, ...row }): FactUse => {
    const blocks = blocksWith(document, `house.${key}`);
    const text = (context: Context) => {
      const style = { language: row.language ?? house.language, timeZone: house.timeZone };
      const filled = fillOwn("use", { type: "doc", content: blocks }, { context, style, tokens });
      return toPlainText(filled.blocks);
    };
    const words: ComparedText[] =
      blocks.length === 0
        ? [{ kind: "same", text: "in its subject, a link, a condition or a default" }]
        : compareTexts(text(before), text(after));
    return { key: row.key, title: row.title, language: row.language, words };
  });
}

/** The signatures and stationeries that read a fact. */
async function papersWith(
  em: EntityManager,
  key: string,
): Promise<{ key: null; title: string; language: string; document: Doc }[]> {
  const rows = await query<{ title: string; language: string; document: Doc }>(
    em,
    ...named(
      `select * from (
         select 'Signature of ' || coalesce(t.name, p.name) as title, w.language, w.document
           from signatures g left join teams t on t.id = g.team_id left join people p on p.id = g.person_id
             cross join lateral (select g.language, g.document union all select * from jsonb_each(g.texts)) w
         union all select part.name || ' of ' || t.name, w.language, w.paper -> lower(part.name)
           from stationery y join teams t on t.id = y.team_id
             cross join (values ('Header'), ('Footer')) part (name)
             cross join lateral (
               select y.language, jsonb_build_object('header', y.header, 'footer', y.footer) as paper
               union all select * from jsonb_each(y.texts)) w
       ) papers where document::text like :use order by title, language`,
      { use: `%"house.${key}"%` },
    ),
  );
  return rows.map((row) => ({ key: null, ...row }));
}

function exampleContext(
  tokens: ReturnType<typeof catalogue>,
  { facts, written }: Pick<OwnTokens, "facts" | "written">,
  timeZone: string,
  now: Date,
): Context {
  const groups: Record<string, Record<string, Detail>> = {};
  for (const { group, name, example } of tokens.values())
    (groups[group] ??= {})[name.slice(group.length + 1)] = example;
  return contextSchema.parse({
    case: {},
    customer: {},
    organisation: {},
    booking: {},
    agent: {},
    ...groups,
    house: facts,
    written,
    now: now.toISOString(),
    time_zone: timeZone,
  });
}

/** The outermost blocks of a document that read a token. */
function blocksWith(doc: Doc, name: string): Block[] {
  return doc.content.filter((block) => {
    let found = false;
    walk({ type: "doc", content: [block] }, (node) => {
      if (node.type === "token" && node.attrs.name === name) found = true;
    });
    return found;
  });
}
