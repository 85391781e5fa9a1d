import { readMarkdown } from "#core/formats/markdown";
import type { StripReply } from "#server/strip/strip";

let versions = 0;

/** A reply as the shelf offers it, called by its key. */
export function stripReply(key: string, words: string, changes: Partial<StripReply> = {}): StripReply {
  return {
    key,
    versionId: (versions += 1),
    title: key,
    part: "answer",
    shelf: { name: "On board", mark: "B" },
    tags: [],
    language: "en",
    document: readMarkdown(words).doc,
    blanks: {},
    passages: {},
    subject: null,
    useTemplateSubject: false,
    attachments: [],
    why: "",
    fit: null,
    also: null,
    hand: null,
    stale: false,
    ...changes,
  };
}
