import type { EntityManager } from "@mikro-orm/postgresql";
import type { NewField } from "#core/forms/house";
import type { Detail } from "#core/tokens/context";
import { CaseField } from "../db/entities/cases";
import { query } from "../db/sql";
import { NotFound, Unusable } from "../errors";
import { requireRole, type Viewer } from "../people/viewer";
import { freeName } from "./facts";

/** A field that the house added to its cases: a token from then on. */
export interface FieldRow {
  key: string;
  label: string;
  type: string;
  example: Detail;
  /** Replies that read it. */
  uses: number;
}

export async function listFields(em: EntityManager): Promise<FieldRow[]> {
  const fields = await em.find(CaseField, {}, { orderBy: { position: "asc", key: "asc" } });
  const uses = await query<{ key: string; n: number }>(
    em,
    `select f.key, count(distinct r.id)::int as n from case_fields f
       join replies r on r.state <> 'retired' join reply_versions v on v.id = r.current_version_id
       left join reply_variants t on t.version_id = v.id
      where v.passages::text || v.blanks::text || coalesce(t.document::text, '') || coalesce(t.subject, '') like '%case.' || f.key || '%'
      group by f.key`,
  );
  return fields.map(({ key, label, type, example }) => ({
    key,
    label,
    type,
    example,
    uses: uses.find((one) => one.key === key)?.n ?? 0,
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

/** Adds a field to cases. @returns its key @throws NotAllowed unless lead */
export async function addField(em: EntityManager, viewer: Viewer, input: NewField): Promise<string> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    const key = await freeName(inner, input.label, "case_fields");
    const position = await inner.count(CaseField);
    inner.create(CaseField, {
      key,
      label: input.label,
      type: input.type,
      example: examples[input.type],
      position,
    });
    return key;
  });
}

/** Takes a field away that no reply reads. @throws NotAllowed unless lead; NotFound; Unusable while it is in use */
export async function removeField(em: EntityManager, viewer: Viewer, key: string): Promise<void> {
  requireRole(viewer, "lead");
  const field = (await listFields(em)).find((one) => one.key === key);
  if (!field) throw new NotFound("There is no such field");
  if (field.uses > 0)
    throw new Unusable(
      `${field.uses === 1 ? "A reply reads" : `${field.uses} replies read`} “${field.label}”; change that first`,
    );
  await em.nativeDelete(CaseField, { key });
}
