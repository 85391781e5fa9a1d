import type { EntityManager } from "@mikro-orm/postgresql";
import type { NewField } from "#core/forms/house";
import type { Detail } from "#core/tokens/context";
import { CaseField, DetailField } from "../db/entities/cases";
import { query } from "../db/sql";
import { NotFound, Unusable } from "../errors";
import { requireRole, type Viewer } from "../people/viewer";
import { freeName } from "./facts";
import { t } from "../words";

/** A field that the house added to its cases, or to what it reads of a booking: a token from then on. */
export interface FieldRow {
  of: NewField["of"];
  key: string;
  label: string;
  type: string;
  example: Detail;
  /** Replies that read it. */
  uses: number;
}

/** What the house added to its cases, then what it reads of a booking. */
export async function listFields(em: EntityManager): Promise<FieldRow[]> {
  const order = { orderBy: { position: "asc", key: "asc" } } as const;
  const known = [
    ...(await em.find(CaseField, {}, order)).map((field) => ({ of: "case" as const, field })),
    ...(await em.find(DetailField, {}, order)).map((field) => ({ of: "booking" as const, field })),
  ];
  const uses = await query<{ name: string; n: number }>(
    em,
    `select f.name, count(distinct r.id)::int as n
       from (select 'case.' || key as name from case_fields union all select 'booking.' || key from detail_fields) f
       join replies r on r.state <> 'retired' join reply_versions v on v.id = r.current_version_id
       left join reply_variants t on t.version_id = v.id
      where v.passages::text || v.blanks::text || coalesce(t.document::text || t.texts::text, '') || coalesce(t.subject, '') ~ ('\\m' || replace(f.name, '.', '\\.') || '\\M')
      group by f.name`,
  );
  return known.map(({ of, field: { key, label, type, example } }) => ({
    of,
    ...{ key, label, type, example },
    uses: uses.find((one) => one.name === `${of}.${key}`)?.n ?? 0,
  }));
}

const examples: Record<NewField["type"], Detail> = {
  text: "Tarn Head",
  long_text: "Several lines",
  number: 3,
  money: { amount: 10, currency: "EUR" },
  date: "2027-03-01",
  yes_no: true,
  link: "https://example.org",
};

/** Adds a field to cases, or to what is read of a booking. @returns its key @throws NotAllowed unless lead */
export async function addField(em: EntityManager, viewer: Viewer, input: NewField): Promise<string> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    const isOfCase = input.of === "case";
    const key = await freeName(inner, input.label, isOfCase ? "case_fields" : "detail_fields");
    const field = { key, label: input.label, type: input.type, example: examples[input.type] };
    if (isOfCase) inner.create(CaseField, { ...field, position: await inner.count(CaseField) });
    else
      inner.create(DetailField, {
        ...field,
        short: input.label,
        usual: null,
        position: await inner.count(DetailField),
      });
    return key;
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
  const field = (await listFields(em)).find((one) => one.of === of && one.key === key);
  if (!field) throw new NotFound(t("thereIsNoSuchField"));
  if (field.uses > 0) throw new Unusable(t("repliesReadField", { count: field.uses, field: field.label }));
  if (of === "case") await em.nativeDelete(CaseField, { key });
  else await em.nativeDelete(DetailField, { key });
}
