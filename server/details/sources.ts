import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { pathProblem, referenceIn } from "#core/details/source";
import { re2Patterns } from "#core/conditions/re2";
import type { SourceInput } from "#core/forms/source";
import { nameFrom } from "#core/tokens/name";
import { detailName, type TokenType } from "#core/tokens/catalogue";
import type { Detail } from "#core/tokens/context";
import { CaseLookup, DetailField, DetailSource, type SealedHeader } from "../db/entities/cases";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { query } from "../db/sql";
import { idSchema } from "../edge";
import { NotFound, Unusable } from "../errors";
import { repliesThatRead } from "../fields/fields";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";
import { askSource } from "./ask";
import { seal } from "./secrets";

/** A field of a source, with its token and the replies that read it. */
type SourceFieldRow = SourceInput["fields"][number] & {
  name: string;
  uses: { key: string; title: string }[];
};

/** An outside system, as a lead changes it: of its headers nobody ever sees what they say. */
export interface SourceRow extends Omit<SourceInput, "headers" | "fields"> {
  id: number;
  headers: string[];
  fields: SourceFieldRow[];
}

/** Reads which outside systems are asked. @throws NotAllowed unless lead */
export async function listSources(em: EntityManager, viewer: Viewer): Promise<SourceRow[]> {
  requireRole(viewer, "lead");
  const sources = await em.find(DetailSource, {}, { orderBy: { position: "asc", id: "asc" } });
  const fields = await em.find(DetailField, {}, { orderBy: { position: "asc", id: "asc" } });
  const tokenOf = (source: DetailSource, { key }: DetailField) => detailName({ source: source.key, key });
  const ofSource = (source: DetailSource) => fields.filter((field) => field.source.id === source.id);
  const uses = await repliesThatRead(
    em,
    sources.flatMap((source) => ofSource(source).map((field) => tokenOf(source, field))),
  );
  return sources.map((source) => {
    const { id, name, address, pattern, timeoutSeconds, cacheMinutes, headers } = source;
    return {
      ...{ id, name, address, pattern: pattern ?? "", timeoutSeconds, cacheMinutes },
      headers: headers.map((header) => header.name),
      fields: ofSource(source).map((field) => ({
        ...{ key: field.key, label: field.label, type: field.type, path: field.path, always: field.always },
        isShown: field.short != null,
        name: tokenOf(source, field),
        uses: uses.get(tokenOf(source, field)) ?? [],
      })),
    };
  });
}

const examples: Record<TokenType, Detail> = {
  ...{ text: "Kittiwake", long_text: "Several lines", integer: 2, number: 2.4, language: "en" },
  ...{ money: { amount: 10, currency: "EUR" }, date: "2027-03-01", time: "07:40" },
  ...{ datetime: "2027-03-01T07:40:00Z", yes_no: true, link: "https://example.org" },
};

/**
 * Keeps an outside system; its fields are tokens at once, and what was read by the old ones is asked anew.
 * @param id null for a new one
 * @throws NotAllowed unless lead; NotFound; Unusable for a pattern or path that cannot be used, a header without a value, or
 * a field that replies read and that is taken out or becomes of another kind
 */
export async function saveSource(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
  input: SourceInput,
): Promise<number> {
  requireRole(viewer, "lead");
  const problem = input.pattern === "" ? null : (re2Patterns.problem?.(input.pattern) ?? null);
  if (problem !== null) throw new Unusable(problem, "pattern");
  for (const { label, path } of input.fields) {
    const wrong = pathProblem(path);
    if (wrong !== null) throw new Unusable(t("pathOfField", { label, problem: wrong }), "fields");
  }
  return em.transactional(async (inner) => {
    // Two of one name at once: the second waits here, and finds it taken.
    await query(inner, "select pg_advisory_xact_lock(hashtext('detail sources'))", []);
    const all = await inner.find(DetailSource, {});
    const known = id === null ? null : all.find((one) => one.id === id);
    if (known === undefined) throw new NotFound(t("thereIsNoSuchSource"));
    const { name, address, timeoutSeconds, cacheMinutes } = input;
    const headers = input.headers.map((header) => sealed(header, known?.headers ?? []));
    const kept = { name, address, pattern: input.pattern || null, timeoutSeconds, cacheMinutes, headers };
    const taken = new Set(all.map((one) => one.key));
    const source = known
      ? Object.assign(known, kept)
      : inner.create(DetailSource, { ...kept, key: nameFrom(name, taken, "source"), position: all.length });
    await inner.flush();
    await saveFields(inner, source, input.fields);
    await inner.nativeUpdate(CaseLookup, { source: source.key }, { fetchedAt: null });
    return source.id;
  });
}

/** A header with its value sealed; what is left empty stays as it was. */
function sealed({ name, value }: SourceInput["headers"][number], known: SealedHeader[]): SealedHeader {
  if (value !== "") return { name, sealed: seal(value) };
  const before = known.find((one) => one.name.toLowerCase() === name.toLowerCase());
  if (!before) throw new Unusable(t("whatTheHeaderSays", { name }), "headers");
  return { name, sealed: before.sealed };
}

async function saveFields(
  em: EntityManager,
  source: DetailSource,
  fields: SourceInput["fields"],
): Promise<void> {
  const known = await em.find(DetailField, { source: source.id });
  const wanted = new Map(fields.filter(({ key }) => key !== "").map((field) => [field.key, field]));
  const changed = known.filter((one) => wanted.get(one.key)?.type !== one.type);
  const tokenOf = ({ key }: DetailField) => detailName({ source: source.key, key });
  const uses = await repliesThatRead(em, changed.map(tokenOf));
  for (const field of changed) {
    const readers = uses.get(tokenOf(field)) ?? [];
    if (readers.length > 0)
      throw new Unusable(t("repliesReadField", { count: readers.length, field: field.label }), "fields");
  }
  for (const field of known) if (!wanted.has(field.key)) em.remove(field);
  const taken = new Set(known.map(({ key }) => key));
  for (const [position, { key, label, type, path, isShown, always }] of fields.entries()) {
    const before = known.find((one) => one.key === key);
    const kept = { label, type, path, always, position, short: isShown ? (before?.short ?? label) : null };
    if (before) {
      Object.assign(before, kept, before.type === type ? {} : { example: examples[type] });
      continue;
    }
    const fresh = nameFrom(label, taken, "value");
    taken.add(fresh);
    em.create(DetailField, { ...kept, source, key: fresh, example: examples[type], usual: null });
  }
  await em.flush();
}

/** Asks a system no more; what it said is forgotten. @throws NotAllowed unless lead; NotFound; Unusable while replies read it */
export async function removeSource(em: EntityManager, viewer: Viewer, id: number): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const source = await inner.findOne(DetailSource, { id });
    if (!source) throw new NotFound(t("thereIsNoSuchSource"));
    await saveFields(inner, source, []);
    await inner.nativeDelete(CaseLookup, { source: source.key });
    await inner.remove(source).flush();
  });
}

/** On which case a source is tried, by its number. */
export const trialSchema = z.strictObject({ case: idSchema });

/** What a source says of a case. */
export interface SourceTrial {
  /** The reference that was found; null for none, and then nobody was asked. */
  reference: string | null;
  values: { label: string; value: Detail }[];
  problem: string | null;
  /** How long it took, in milliseconds. */
  took: number;
}

/** So many of a case's messages are looked through for a reference. */
const LOOKED_THROUGH = 50;

/** Tries a source on a case; nothing is kept of it. @throws NotAllowed unless lead; NotFound */
export async function trySource(
  em: EntityManager,
  viewer: Viewer,
  id: number,
  number: number,
): Promise<SourceTrial> {
  requireRole(viewer, "lead");
  const source = await em.findOne(DetailSource, { id });
  if (!source) throw new NotFound(t("thereIsNoSuchSource"));
  const subject = await em.findOne(Case, { number });
  if (!subject) throw new NotFound(t("thereIsNoCaseNumber", { number }));
  const known = await em.findOne(CaseLookup, { case: subject, source: source.key });
  const messages = await em.find(
    Message,
    { case: subject, direction: "in" },
    { orderBy: { at: "asc", id: "asc" }, limit: LOOKED_THROUGH, fields: ["subject", "text"] },
  );
  const words = messages.map((one) => `${one.subject}\n${one.text}`).join("\n");
  const reference = known?.reference ?? (source.pattern == null ? null : referenceIn(source.pattern, words));
  if (reference === null) return { reference, values: [], problem: t("noReferenceIsFound"), took: 0 };
  const fields = await em.find(DetailField, { source: id }, { orderBy: { position: "asc", id: "asc" } });
  const began = performance.now();
  const answer = await askSource(source, fields, reference);
  const took = Math.round(performance.now() - began);
  return {
    ...{ reference, took, problem: answer.problem },
    values: fields.map(({ key, label }) => ({ label, value: answer.data?.[key] ?? null })),
  };
}
