import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import type { ChosenRecipient } from "#core/checks/addressee";
import { copiesSchema, type Copies } from "#core/mail/copies";
import type { SubjectChoice } from "#core/compose/compose";
import type { AttachmentRef, Slip as CoreSlip } from "#core/compose/slip";
import { languageSchema } from "#core/language/schema";
import { blankValueSchema } from "#core/tokens/blanks";
import { Draft, Slip, type Offer } from "../db/entities/answering";
import { Case } from "../db/entities/cases";
import { Person } from "../db/entities/people";
import { ReplyVersion } from "../db/entities/library";
import { MOST_ID } from "#core/forms/fields";
import { idSchema } from "../edge";
import { Conflict, NotFound, Unusable } from "../errors";
import type { Viewer } from "../people/viewer";
import { visibleVersions } from "../access/replies";
import { keptDocumentSchema } from "../replies/document";
import { FILES_OF_VERSION } from "../replies/files";
import { prepared, query } from "../db/sql";
import { MOST_FILES, placeFiles } from "./files";
import { offersSchema } from "./offers";
import { chosenRecipientSchema } from "./recipients";
import { t } from "../words";

/** Saves of one window that are counted. */
const MOST_SAVES = 1_000_000_000;

/** A draft as the screen keeps it. */
export const draftSchema = z.strictObject({
  /** The version that the screen's state rests on; 0 when there was no draft. */
  version: z.int().min(0).max(MOST_ID),
  language: languageSchema,
  subject: z.discriminatedUnion("from", [
    z.strictObject({ from: z.literal("thread") }),
    z.strictObject({ from: z.literal("reply") }),
    z.strictObject({ from: z.literal("own"), text: z.string().max(500) }),
  ]),
  slips: z
    .array(
      z.strictObject({
        uid: z.string().min(1).max(60),
        versionId: idSchema.nullable(),
        language: languageSchema,
        document: keptDocumentSchema,
        values: z.record(z.string().max(120), blankValueSchema),
      }),
    )
    .max(40)
    .refine((slips) => new Set(slips.map((slip) => slip.uid)).size === slips.length, "Each slip stands once"),
  /** Files that the agent added, by their ids in documents; what is left out stays as it was saved. */
  files: z
    .array(idSchema)
    .max(MOST_FILES)
    .refine((ids) => new Set(ids).size === ids.length, "Each file goes once")
    .optional(),
  /** What the shelf offered; what is left out stays as it was saved. */
  offers: offersSchema.optional(),
  /** Where it is to go; what is left out stays as it was saved, null is the customer's usual address. */
  to: chosenRecipientSchema.nullable().optional(),
  /** Whom it goes to besides; what is left out stays as it was saved, null is nobody. */
  copies: z.optional(z.nullable(copiesSchema)),
  /** Which window writes, and its how manieth save this is: of one window's saves the later holds, whichever comes first. */
  writer: z.string().min(1).max(60).optional(),
  sequence: z.number().int().min(0).max(MOST_SAVES).optional(),
});
export type DraftInput = z.infer<typeof draftSchema>;

/** A slip of a draft with all that composing needs, and the version that it was taken from. */
export interface DraftSlip extends CoreSlip {
  versionId: number | null;
  language: string;
  /** Number of the version that was taken, and of the one that is on the shelf now. */
  versionNumber: number | null;
  currentNumber: number | null;
}

export interface LoadedDraft {
  version: number;
  language: string;
  subject: SubjectChoice;
  updatedAt: string;
  slips: DraftSlip[];
  offers: Offer[];
  to: ChosenRecipient | null;
  copies: Copies | null;
  /** Files that the agent added. */
  attachments: AttachmentRef[];
}

interface DraftRow extends Omit<LoadedDraft, "to" | "slips"> {
  toAddress: string | null;
  toConfirmed: boolean;
  slips: DraftInput["slips"];
}

/** The viewer's draft on a case; null when there is none. */
export async function loadDraft(
  em: EntityManager,
  viewer: Viewer,
  caseId: number,
): Promise<LoadedDraft | null> {
  const [draft] = await prepared<DraftRow>(
    em,
    `select d.version, d.language, d.subject, d.updated_at as "updatedAt", coalesce(d.offers, '[]') as offers,
            d.copies, d.to_address as "toAddress", d.to_confirmed as "toConfirmed",
            (select coalesce(jsonb_agg(jsonb_build_object('uid', s.uid, 'versionId', s.version_id, 'language', s.language,
                      'document', s.document, 'values', s.values) order by s.position), '[]')
               from slips s where s.draft_id = d.id) as slips,
            (select coalesce(jsonb_agg(jsonb_build_object('id', a.file_id::text, 'name', a.name,
                      'contentType', a.content_type, 'size', f.size) order by a.position, a.id), '[]')
               from attachments a join files f on f.id = a.file_id where a.draft_id = d.id) as attachments
       from drafts d where d.case_id = ? and d.person_id = ?`,
    [caseId, viewer.id],
  );
  if (!draft) return null;
  const { toAddress, toConfirmed, updatedAt, slips, ...rest } = draft;
  return {
    ...rest,
    updatedAt: new Date(updatedAt).toISOString(),
    to: toAddress === null ? null : { address: toAddress, confirmed: toConfirmed },
    slips: await withDefinitions(em, slips),
  };
}

interface DefinitionRow {
  id: number;
  number: number | null;
  current: number | null;
  key: string;
  title: string;
  part: DraftSlip["part"];
  blanks: DraftSlip["blanks"];
  passages: DraftSlip["passages"];
  variants: { language: string; fallback: boolean; title: string | null; subject: string | null }[];
  attachments: AttachmentRef[];
}

/** Slips as composing takes them: each with the blanks, passages, subject and files of its version. */
export async function withDefinitions(em: EntityManager, slips: DraftInput["slips"]): Promise<DraftSlip[]> {
  const ids = [...new Set(slips.flatMap((slip) => slip.versionId ?? []))];
  const rows = await definitionsOf(em, ids);
  return slips.map((slip): DraftSlip => {
    const version = rows.find((one) => one.id === slip.versionId);
    const base = { id: slip.uid, document: slip.document, values: slip.values, language: slip.language };
    if (!version) {
      return {
        ...base,
        versionId: null,
        reply: null,
        title: "Your own words",
        part: "answer",
        blanks: {},
        passages: {},
        subject: null,
        attachments: [],
        versionNumber: null,
        currentNumber: null,
      };
    }
    const { variants } = version;
    const variant =
      variants.find((one) => one.language === slip.language) ?? variants.find((one) => one.fallback);
    return {
      ...base,
      versionId: version.id,
      reply: version.key,
      title: variant?.title ?? version.title,
      part: version.part,
      blanks: version.blanks,
      passages: version.passages,
      subject: variant?.subject ?? null,
      attachments: version.attachments,
      versionNumber: version.number,
      currentNumber: version.current,
    };
  });
}

/** What versions define beside their words, which a slip has of its own. */
async function definitionsOf(em: EntityManager, ids: number[]): Promise<DefinitionRow[]> {
  if (ids.length === 0) return [];
  return query<DefinitionRow>(
    em,
    `select v.id, v.number, current.number as current, r.key, r.title, r.part, v.blanks, v.passages,
            (select jsonb_agg(jsonb_build_object('language', t.language, 'fallback', t.fallback, 'title', t.title, 'subject', t.subject))
               from reply_variants t where t.version_id = v.id) as variants,
            ${FILES_OF_VERSION} as attachments
       from reply_versions v join replies r on r.id = v.reply_id
       left join reply_versions current on current.reply_id = r.id and current.state = 'published'
      where v.id = any(?)`,
    [ids],
  );
}

/**
 * Saves the viewer's draft whole. One without words and files is deleted.
 * @returns the version it has now, 0 for none
 * @throws Conflict when it was saved elsewhere since; NotFound; Unusable when it uses what the viewer may not see
 */
export async function saveDraft(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  input: DraftInput,
  now: Date,
): Promise<number> {
  return em.transactional(async (inner) => {
    const subject = await inner.findOne(Case, { number });
    if (!subject) throw new NotFound(t("thereIsNoCaseNumber", { number }));
    const ids = input.slips.flatMap((slip) => slip.versionId ?? []);
    const visible = await visibleVersions(inner, viewer, ids);
    if (ids.some((id) => !visible.has(id))) throw new Unusable(t("theDraftUsesAReplyThat"));
    // The case's row is the lock under which a person's draft is made, saved and sent.
    await inner.lock(subject, LockMode.PESSIMISTIC_WRITE);
    const known = await inner.findOne(Draft, { case: subject, person: viewer.id });
    if (known && isOlderOfItsWriter(known, input)) return known.version;
    if ((known?.version ?? 0) !== input.version && !isSameWriter(known, input)) {
      throw new Conflict(known ? t("thisDraftWasChangedInAnother") : t("thisDraftWasSentOrDropped"));
    }
    if (input.slips.length === 0 && (input.files ?? []).length === 0) {
      if (known) await inner.remove(known).flush();
      return 0;
    }
    const draft =
      known ??
      inner.create(Draft, {
        case: subject,
        person: inner.getReference(Person, viewer.id),
        language: input.language,
        subject: input.subject,
        version: 0,
      });
    draft.version = (known?.version ?? 0) + 1;
    draft.writer = input.writer ?? null;
    draft.sequence = input.sequence ?? 0;
    if (input.to !== undefined) {
      draft.toAddress = input.to?.address ?? null;
      draft.toConfirmed = input.to?.confirmed ?? false;
    }
    if (input.copies !== undefined) draft.copies = input.copies;
    draft.language = input.language;
    draft.subject = input.subject;
    draft.updatedAt = now;
    if (input.offers) draft.offers = input.offers;
    await inner.flush();
    await inner.nativeDelete(Slip, { draft });
    createSlips(inner, draft, input.slips);
    await inner.flush();
    if (input.files) await placeFiles(inner, viewer, draft, input.files);
    return draft.version;
  });
}

function isSameWriter(known: Draft | null, { writer }: DraftInput): boolean {
  return known !== null && writer !== undefined && known.writer === writer;
}

/** Whether a save was overtaken by a later one of the same window: it has nothing new. */
function isOlderOfItsWriter(known: Draft, input: DraftInput): boolean {
  return isSameWriter(known, input) && (input.sequence ?? 0) <= known.sequence;
}

/** Puts slips on a draft, in their order; the caller flushes. */
export function createSlips(em: EntityManager, draft: Draft, slips: DraftInput["slips"]): void {
  for (const [position, { uid, versionId, language, document, values }] of slips.entries()) {
    const version = versionId === null ? null : em.getReference(ReplyVersion, versionId);
    em.create(Slip, { draft, uid, position, version, language, document, values });
  }
}
