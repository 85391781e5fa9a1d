import type { EntityManager } from "@mikro-orm/postgresql";
import type { FieldChange, NewField } from "#core/forms/house";
import { fieldOwners } from "#core/tokens/fields";
import type { Detail } from "#core/tokens/context";
import { Field } from "../db/entities/cases";
import { named, query } from "../db/sql";
import { NotFound, Unusable } from "../errors";
import { freeName } from "../house/facts";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** A field that the house added to what it keeps; a token from then on. */
export interface FieldRow {
  of: NewField["of"];
  key: string;
  label: string;
  type: string;
  options: string[];
  topics: string[];
  required: boolean;
  retired: boolean;
  /** Replies that read it. */
  uses: { key: string; title: string }[];
}

/** Replies, by the names of tokens that they read; retired ones count for nothing. @param names as in `case.harbour` */
export async function repliesThatRead(
  em: EntityManager,
  names: readonly string[],
): Promise<Map<string, { key: string; title: string }[]>> {
  const rows = await query<{ name: string; replies: { key: string; title: string }[] }>(
    em,
    ...named(
      `select f.name, jsonb_agg(distinct jsonb_build_object('key', r.key, 'title', r.title)) as replies
         from unnest(:names::text[]) f(name)
         join replies r on r.state <> 'retired' join reply_versions v on v.id = r.current_version_id
         left join reply_variants t on t.version_id = v.id
        where v.passages::text || v.blanks::text || coalesce(t.document::text || t.texts::text, '') || coalesce(t.subject, '') ~ ('\\m' || replace(f.name, '.', '\\.') || '\\M')
        group by f.name`,
      { names: [...names] },
    ),
  );
  return new Map(rows.map((row) => [row.name, row.replies]));
}

/** What the house added to its cases, customers, organisations and colleagues. */
export async function listFields(em: EntityManager): Promise<FieldRow[]> {
  const order = { orderBy: { position: "asc", key: "asc" } } as const;
  const own = await em.find(Field, {}, order);
  const known = own.map((field) => ({ ...field, retired: field.retiredAt != null }));
  const uses = await repliesThatRead(
    em,
    known.map(({ of, key }) => `${of}.${key}`),
  );
  return fieldOwners.flatMap((owner) =>
    known
      .filter(({ of }) => of === owner)
      .map(({ of, key, label, type, options, topics, required, retired }) => ({
        ...{ of, key, label, type, options, topics, required, retired },
        uses: uses.get(`${of}.${key}`) ?? [],
      })),
  );
}

const examples: Record<NewField["type"], Detail> = {
  text: "Tarn Head",
  long_text: "Several lines",
  number: 3,
  money: { amount: 10, currency: "EUR" },
  date: "2027-03-01",
  choice: null,
  yes_no: true,
  link: "https://example.org",
};

/** Adds a field; replies can read it at once. @returns its key @throws NotAllowed unless lead */
export async function addField(em: EntityManager, viewer: Viewer, input: NewField): Promise<string> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    const { of, label, type, options, topics, required } = input;
    const key = await freeName(inner, label, of);
    const example = type === "choice" ? (options[0] ?? null) : examples[type];
    inner.create(Field, {
      ...{ of, key, label, type, example, topics, required, retiredAt: null },
      options: type === "choice" ? options : [],
      position: await inner.count(Field),
    });
    return key;
  });
}

/** A field that is kept. @throws NotFound */
async function findField(em: EntityManager, of: NewField["of"], key: string) {
  const field = await em.findOne(Field, { of, key });
  if (!field) throw new NotFound(t("thereIsNoSuchField"));
  return field;
}

/**
 * Calls a field otherwise, or asks for it otherwise; replies that read it go on as they are.
 * @throws NotAllowed unless lead; NotFound; Unusable where a choice is taken away that something has
 */
export async function changeField(
  em: EntityManager,
  viewer: Viewer,
  of: NewField["of"],
  key: string,
  { label, options, topics, required }: FieldChange,
): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const field = await findField(inner, of, key);
    field.label = label;
    if (field.type === "choice" && options.length < 2)
      throw new Unusable(t("aChoiceHasTwoAtLeast"), "options");
    Object.assign(field, { topics, required, options: field.type === "choice" ? options : [] });
  });
}

/** Takes a field out of use, or back into it. Values that are kept stay, and replies that read it still do. @throws NotAllowed unless lead; NotFound */
export async function retireField(
  em: EntityManager,
  viewer: Viewer,
  of: NewField["of"],
  key: string,
  retired: boolean,
  now: Date,
): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const field = await findField(inner, of, key);
    field.retiredAt = retired ? now : null;
  });
}

/** Takes a field away that no reply reads. @throws NotAllowed unless lead; NotFound; Unusable while it is in use */
export async function removeField(
  em: EntityManager,
  viewer: Viewer,
  of: NewField["of"],
  key: string,
): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const field = await findField(inner, of, key);
    const uses = (await repliesThatRead(inner, [`${of}.${key}`])).get(`${of}.${key}`) ?? [];
    if (uses.length > 0)
      throw new Unusable(t("repliesReadField", { count: uses.length, field: field.label }));
    inner.remove(field);
  });
}
