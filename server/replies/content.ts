import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import type { AttachmentRef } from "#core/compose/slip";
import { passagesSchema, type Passages } from "#core/conditions/condition";
import { isLanguageTag } from "#core/language/tag";
import { allTexts } from "#core/document/texts";
import { textChannels, type Doc, type Texts } from "#core/document/types";
import { walk } from "#core/document/walk";
import { blanksSchema, type Blanks } from "#core/tokens/blanks";
import {
  FileUpload,
  ReplyAttachment,
  ReplyVariant,
  ReplyVersion,
  type OriginalWords,
} from "../db/entities/library";
import { StoredFile } from "../db/entities/files";
import { query } from "../db/sql";
import { Unusable } from "../errors";
import type { Viewer } from "../people/viewer";
import { FILES_OF_VERSION } from "./files";
import { fileIdField } from "#core/forms/papers";
import { keptDocumentSchema } from "./document";
import { searchWords } from "./search-words";
import { t } from "../words";

const languageTag = z
  .string()
  .regex(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/, "Write the language as a short code, such as en or pt-BR")
  .refine(isLanguageTag, "A language that is known how to write, as in en or pt-BR");

/** What a version of a reply says: its words in every language, and what they depend on. */
export const contentSchema = z.strictObject({
  title: z.string().trim().max(300),
  useTemplateSubject: z.boolean(),
  blanks: blanksSchema,
  passages: passagesSchema,
  /** The fallback first. */
  variants: z
    .array(
      z.strictObject({
        language: languageTag,
        title: z.string().max(300).nullable(),
        subject: z.string().max(500).nullable(),
        document: keptDocumentSchema,
        texts: z.partialRecord(z.enum(textChannels), keptDocumentSchema).optional(),
        original: z
          .strictObject({ subject: z.string().max(500).nullable(), document: keptDocumentSchema })
          .nullable(),
      }),
    )
    .min(1, "A reply has words in one language at least")
    .max(30)
    .refine(
      (variants) => new Set(variants.map((one) => one.language)).size === variants.length,
      "Each language stands once",
    ),
  /** Ids of stored files, in their order; pictures that stand in the words need not be listed. */
  files: z.array(fileIdField).max(50),
});
export type ContentInput = z.infer<typeof contentSchema>;

export interface ContentVariant {
  language: string;
  title: string | null;
  subject: string | null;
  document: Doc;
  /** Of channels that have a text of their own. */
  texts?: Texts["texts"];
  original: OriginalWords | null;
}

/** The same as it is read: files with their names. */
export interface Content {
  title: string;
  useTemplateSubject: boolean;
  blanks: Blanks;
  passages: Passages;
  variants: ContentVariant[];
  files: AttachmentRef[];
  /** Files that stand in the words. */
  pictures: AttachmentRef[];
}

/** Reads what versions say, by id. */
export async function contentsOf(em: EntityManager, ids: number[]): Promise<Map<number, Content>> {
  const versions = await em.find(ReplyVersion, { id: { $in: ids } });
  const variants = await em.find(
    ReplyVariant,
    { version: { $in: ids } },
    { orderBy: { fallback: "desc", language: "asc" } },
  );
  const files = await query<{ id: number; attachments: AttachmentRef[] }>(
    em,
    `select v.id, ${FILES_OF_VERSION} as attachments from reply_versions v where v.id = any(?)`,
    [ids],
  );
  return new Map(
    versions.map((version) => {
      const own = variants.filter((one) => one.version.id === version.id);
      const inWords = new Set(own.flatMap((one) => allTexts(one).flatMap(picturesIn)));
      const all = files.find((one) => one.id === version.id)?.attachments ?? [];
      const content: Content = {
        title: version.title,
        useTemplateSubject: version.useTemplateSubject,
        blanks: version.blanks,
        passages: version.passages,
        variants: own.map(({ language, title, subject, document, texts, original }) => ({
          language,
          title: title ?? null,
          subject: subject ?? null,
          document,
          ...(Object.keys(texts).length > 0 ? { texts } : {}),
          original: original ?? null,
        })),
        files: all.filter((file) => !inWords.has(file.id)),
        pictures: all.filter((file) => inWords.has(file.id)),
      };
      return [version.id, content];
    }),
  );
}

/** Content as input, for putting it into another version. */
export function asInput({ files, pictures: _pictures, ...content }: Content): ContentInput {
  return { ...content, files: files.map((file) => file.id) };
}

/**
 * Writes a version's words, variants and files; what it had before goes. The caller's transaction.
 * @throws Unusable when it names a file that neither this reply nor the viewer has
 */
export async function storeContent(
  em: EntityManager,
  viewer: Viewer,
  version: ReplyVersion,
  content: ContentInput,
): Promise<void> {
  version.title = content.title;
  version.useTemplateSubject = content.useTemplateSubject;
  version.blanks = content.blanks;
  version.passages = content.passages;
  await em.flush();
  const files = await knownFiles(em, viewer, version.reply.id, wantedFiles(content));
  await em.nativeDelete(ReplyVariant, { version });
  await em.nativeDelete(ReplyAttachment, { version });
  for (const [index, variant] of content.variants.entries()) {
    em.create(ReplyVariant, {
      version,
      language: variant.language,
      fallback: index === 0,
      title: variant.title?.trim() ? variant.title : null,
      subject: variant.subject?.trim() ? variant.subject : null,
      document: variant.document,
      texts: variant.texts ?? {},
      original: index === 0 ? null : variant.original,
      words: searchWords(variant.title ?? content.title, variant.subject, allTexts(variant)),
    });
  }
  for (const [position, { id, name, contentType }] of files.entries())
    em.create(ReplyAttachment, {
      version,
      file: em.getReference(StoredFile, Number(id)),
      name,
      contentType,
      position,
    });
  await em.flush();
}

/** The files of the list, and the pictures of the words after them, each once. */
function wantedFiles(content: ContentInput): string[] {
  return [
    ...new Set([...content.files, ...content.variants.flatMap((one) => allTexts(one).flatMap(picturesIn))]),
  ];
}

function picturesIn(document: Doc): string[] {
  const ids: string[] = [];
  walk(document, (node) => {
    if (node.type === "image") ids.push(node.attrs.attachment);
  });
  return ids;
}

/** Files by id as this reply, a reply that the viewer may read, or the viewer's own uploads know them. */
async function knownFiles(
  em: EntityManager,
  viewer: Viewer,
  replyId: number,
  ids: string[],
): Promise<{ id: string; name: string; contentType: string }[]> {
  const numbers = ids.map(Number);
  if (numbers.length === 0) return [];
  const rows = await query<{ file_id: number; name: string; content_type: string }>(
    em,
    `select distinct on (file_id) file_id, name, content_type from (
       select u.file_id, u.name, u.content_type, 0 as rank from file_uploads u where u.person_id = ? and u.file_id = any(?)
       union all
       select a.file_id, a.name, a.content_type, 1 from reply_attachments a
         join reply_versions v on v.id = a.version_id
        where v.reply_id = ? and a.file_id = any(?)
     ) known order by file_id, rank`,
    [viewer.id, numbers, replyId, numbers],
  );
  return ids.map((id) => {
    const row = rows.find((one) => String(one.file_id) === id);
    if (!row) throw new Unusable(t("theFileIdBelongsToNeither", { id }));
    return { id, name: row.name, contentType: row.content_type };
  });
}

/** Gives a person the right to use files of a reply that they read in one of their own. */
export async function lendFiles(em: EntityManager, viewer: Viewer, files: AttachmentRef[]): Promise<void> {
  for (const file of files)
    await em.upsert(
      FileUpload,
      { person: viewer.id, file: Number(file.id), name: file.name, contentType: file.contentType },
      { onConflictFields: ["person", "file"], onConflictAction: "ignore" },
    );
}
