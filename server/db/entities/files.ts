import { defineEntity, p, type InferEntity } from "@mikro-orm/core";

/** Bytes, kept once however often they are attached. */
export const StoredFile = defineEntity({
  name: "StoredFile",
  tableName: "files",
  properties: {
    id: p.integer().primary(),
    sha256: p.string().length(64).unique(),
    size: p.integer(),
    content: p.blob().lazy(),
    createdAt: p.datetime().defaultRaw("now()"),
  },
});
export type StoredFile = InferEntity<typeof StoredFile>;
