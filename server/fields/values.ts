import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import type { Detail } from "#core/tokens/context";
import { fieldOwners, isOnTopic, readFieldValue, type FieldOwner, type FieldType } from "#core/tokens/fields";
import { formatValue } from "#core/tokens/format";
import { Case, CaseEvent, Field } from "../db/entities/cases";
import { Customer, Organisation } from "../db/entities/customers";
import { Person } from "../db/entities/people";
import { NotAllowed, NotFound, Unusable } from "../errors";
import { notifyCase } from "../events/notify";
import { includesRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** What fields say, by their keys; null takes a value away. What is left out stays. */
export const valuesSchema = z.strictObject({ values: z.record(z.string().max(120), z.unknown()) });
export const ownerSchema = z.enum(fieldOwners, t.error("thereIsNoSuchField"));

/** A field as somebody fills it in, with its value. */
export interface FilledField {
  of: FieldOwner;
  key: string;
  label: string;
  type: FieldType;
  options: string[];
  required: boolean;
  value: Detail;
}

/** What has fields, under a lock for the rest of the transaction. @throws NotFound */
async function ownerOf(
  em: EntityManager,
  of: FieldOwner,
  id: number,
): Promise<{ details: Record<string, Detail> }> {
  const lock = { lockMode: LockMode.PESSIMISTIC_WRITE } as const;
  const found =
    of === "case"
      ? await em.findOne(Case, { id }, lock)
      : of === "customer"
        ? await em.findOne(Customer, { id }, lock)
        : of === "organisation"
          ? await em.findOne(Organisation, { id }, lock)
          : await em.findOne(Person, { id }, lock);
  if (!found) throw new NotFound(t("thereIsNothingOfThatNumber"));
  return found;
}

/** The fields that are in use of something, with its values. @param topic of the case, for those that cases of some topics have @throws NotFound */
export async function filledFields(
  em: EntityManager,
  of: FieldOwner,
  id: number,
  topic: string | null = null,
): Promise<FilledField[]> {
  const [fields, [owner]] = await Promise.all([
    em.find(Field, { of, retiredAt: null }, { orderBy: { position: "asc", id: "asc" } }),
    em
      .getConnection()
      .execute<{ details: Record<string, Detail> }[]>(`select details from ${TABLES[of]} where id = ?`, [id]),
  ]);
  if (!owner) throw new NotFound(t("thereIsNothingOfThatNumber"));
  return fields
    .filter(({ topics }) => of !== "case" || isOnTopic(topics, topic))
    .map(({ key, label, type, options, required }) => ({
      ...{ of, key, label, options, required },
      type: type as FieldType,
      value: owner.details[key] ?? null,
    }));
}

const TABLES: Record<FieldOwner, string> = {
  case: "cases",
  customer: "customers",
  organisation: "organisations",
  agent: "people",
};

/**
 * Fills fields in. Agents do for cases, customers and organisations, and for themselves; leads for any colleague. On a case it
 * is on the record.
 * @throws NotFound; NotAllowed; Unusable naming the field whose value cannot be read: nothing is kept then
 */
export async function setValues(
  em: EntityManager,
  viewer: Viewer,
  of: FieldOwner,
  id: number,
  values: Record<string, unknown>,
  now: Date,
): Promise<void> {
  if (of === "agent" && id !== viewer.id && !includesRole(viewer.role, "lead"))
    throw new NotAllowed(t("onlyLeadsFillInForColleagues"));
  await em.transactional(async (inner) => {
    const owner = await ownerOf(inner, of, id);
    const fields = await inner.find(Field, { of, retiredAt: null });
    const details = { ...owner.details };
    const said: string[] = [];
    for (const [key, given] of Object.entries(values)) {
      const field = fields.find((one) => one.key === key);
      if (!field) throw new NotFound(t("thereIsNoSuchField"));
      const read = readFieldValue({ type: field.type as FieldType, options: field.options }, given);
      if (!read.ok) throw new Unusable(`${field.label}: ${read.problem}`, `values.${key}`);
      if (JSON.stringify(details[key] ?? null) === JSON.stringify(read.value)) continue;
      if (read.value === null) Reflect.deleteProperty(details, key);
      else details[key] = read.value;
      said.push(sayValue(field.label, read.value));
    }
    if (said.length === 0) return;
    owner.details = details;
    if (of === "case") {
      const subject = await inner.findOneOrFail(Case, { id });
      inner.create(CaseEvent, {
        case: subject,
        person: inner.getReference(Person, viewer.id),
        kind: "field",
        data: { words: said.join(", ") },
        at: now,
      });
      await inner.flush();
      await notifyCase(inner, subject.number, "message");
    }
  });
}

function sayValue(label: string, value: Detail): string {
  if (value === null) return t("tookFieldAway", { label });
  const shown = formatValue(
    { kind: "value", value, type: null },
    { name: "", fn: null, options: {} },
    { language: "en-GB", timeZone: "UTC", customerTimeZone: null },
  );
  return t("setFieldTo", { label, value: shown.kind === "text" ? shown.text : "" });
}
