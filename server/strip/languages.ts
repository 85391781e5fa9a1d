import type { EntityManager } from "@mikro-orm/postgresql";
import { LRUCache } from "lru-cache";
import { textFor } from "#core/document/texts";
import type { Texts } from "#core/document/types";
import { prepared } from "../db/sql";
import type { StripReply } from "./strip";

/** Replies in each language that they are written in, as a channel reads them. */
export async function inEveryLanguage(
  em: EntityManager,
  replies: StripReply[],
  channel: string,
): Promise<StripReply[]> {
  const unknown = replies.filter(({ versionId }) => !keptVariants.has(keyOf(em, versionId)));
  if (unknown.length > 0) await readVariants(em, unknown);
  return replies.flatMap((reply) =>
    (keptVariants.get(keyOf(em, reply.versionId)) ?? []).map(({ texts, ...variant }): StripReply => ({
      ...reply,
      ...variant,
      document: textFor({ document: variant.document, texts }, channel),
      title: variant.title ?? reply.title,
    })),
  );
}

type Variant = Pick<StripReply, "language" | "document" | "subject"> & {
  title: string | null;
  texts: Texts["texts"];
};

/** What is on a shelf in all its languages, by version: published words never change. */
const keptVariants = new LRUCache<string, Variant[]>({ max: 500 });

async function readVariants(em: EntityManager, replies: StripReply[]): Promise<void> {
  const versions = replies.map(({ versionId }) => versionId);
  const variants = await prepared<Variant & { versionId: number }>(
    em,
    `select version_id as "versionId", language, document, texts, subject, title from reply_variants where version_id = any(?) order by id`,
    [versions],
  );
  for (const version of versions) {
    const own = variants.filter(({ versionId }) => versionId === version);
    keptVariants.set(
      keyOf(em, version),
      own.map(({ versionId: _version, ...variant }) => variant),
    );
  }
}

/** One process may know several databases, one after the other. */
function keyOf(em: EntityManager, version: number): string {
  return `${em.config.get("clientUrl") ?? ""} ${version}`;
}
