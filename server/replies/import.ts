import type { EntityManager } from "@mikro-orm/postgresql";
import { fileTypeFromBuffer } from "file-type";
import { allTexts } from "#core/document/texts";
import type { Doc } from "#core/document/types";
import { walk } from "#core/document/walk";
import type { Library, LibraryReply } from "#core/formats/library";
import {
  HouseFact,
  HouseFactValue,
  Reply,
  ReplyAttachment,
  ReplyVariant,
  ReplyVersion,
  Shelf,
} from "../db/entities/library";
import { query } from "../db/sql";
import { storeFile } from "../files/store";
import { searchWords } from "./search-words";

const SLASH = /^.*\//;

/**
 * Puts a whole library into an empty database: shelves for everyone, facts, replies with their first version published.
 * @param attachment the bytes of a file that replies name
 * @throws Error when a reply stands on a shelf that the library does not list
 */
export async function importLibrary(
  em: EntityManager,
  library: Library,
  attachment: (name: string) => Promise<Buffer>,
  now: Date,
): Promise<void> {
  const shelves = new Map<string, Shelf>();
  for (const [position, { id, name, mark }] of library.shelves.entries()) {
    shelves.set(
      id,
      em.create(Shelf, {
        key: id,
        name,
        mark: mark ?? name.slice(0, 1),
        audience: "everyone",
        owner: null,
        position,
      }),
    );
  }
  for (const [key, { label, type, value, language, texts }] of Object.entries(library.houseFacts)) {
    const fact = em.create(HouseFact, { key, label, type, language: language ?? null });
    em.create(HouseFactValue, { fact, value, texts, validFrom: now, person: null });
  }
  for (const reply of library.replies) {
    const shelf = shelves.get(reply.shelf ?? "");
    if (!shelf)
      throw new Error(`The reply “${reply.id}” stands on the shelf “${reply.shelf}”, which is not listed`);
    await importReply(em, reply, shelf, attachment);
  }
  await em.flush();
  await query(
    em,
    "update replies r set current_version_id = v.id from reply_versions v where v.reply_id = r.id and r.current_version_id is null",
  );
}

async function importReply(
  em: EntityManager,
  reply: LibraryReply,
  shelf: Shelf,
  attachment: (name: string) => Promise<Buffer>,
): Promise<void> {
  const row = em.create(Reply, {
    key: reply.id,
    shelf,
    title: reply.title,
    note: reply.note ?? null,
    part: reply.part,
    state: reply.state,
    tags: reply.tags,
    channels: reply.channels,
    topics: reply.topics,
    withBooking: reply.with_booking,
    owner: null,
    reviewBy: reply.review_by ?? null,
    seasonFrom: reply.season_from ?? null,
    seasonUntil: reply.season_until ?? null,
  });
  const version = em.create(ReplyVersion, {
    reply: row,
    number: 1,
    title: reply.title,
    state: reply.state === "draft" ? "draft" : "published",
    blanks: reply.blanks,
    passages: reply.passages,
    useTemplateSubject: reply.use_template_subject,
    author: null,
    remark: null,
  });
  const ids = new Map<string, string>();
  for (const [position, name] of reply.attachments.entries()) {
    const content = await attachment(name);
    const file = await storeFile(em, content);
    ids.set(name, String(file.id));
    em.create(ReplyAttachment, {
      version,
      file,
      name: name.replace(SLASH, ""),
      contentType: await kindOf(content, name),
      position,
    });
  }
  for (const [index, variant] of reply.variants.entries()) {
    const document = withFileIds(variant.document, ids);
    const texts = Object.fromEntries(
      Object.entries(variant.texts ?? {}).map(([channel, text]) => [channel, withFileIds(text, ids)]),
    );
    em.create(ReplyVariant, {
      version,
      language: variant.language,
      fallback: index === 0,
      title: variant.title,
      subject: variant.subject,
      document,
      texts,
      words: searchWords(variant.title ?? reply.title, variant.subject, allTexts({ document, texts })),
    });
  }
}

async function kindOf(content: Buffer, name: string): Promise<string> {
  const told = await fileTypeFromBuffer(content);
  return (
    told?.mime ?? (/\.(?:txt|md|csv)$/.test(name) ? "text/plain; charset=utf-8" : "application/octet-stream")
  );
}

/** Pictures name the stored file instead of the path that it had in the library. */
function withFileIds(doc: Doc, ids: ReadonlyMap<string, string>): Doc {
  const copy = structuredClone(doc);
  walk(copy, (node) => {
    if (node.type === "image")
      node.attrs.attachment = ids.get(node.attrs.attachment) ?? node.attrs.attachment;
  });
  return copy;
}
