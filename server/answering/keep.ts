import { primary } from "#core/language/tag";
import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { compose } from "#core/compose/compose";
import type { AttachmentRef } from "#core/compose/slip";
import { re2Patterns } from "#core/conditions/re2";
import { fromPlainText } from "#core/document/plain";
import type { Doc } from "#core/document/types";
import { catalogue } from "#core/tokens/catalogue";
import { blanksOf, recognise, withTokens, type Recognised } from "#core/tokens/recognise";
import { Attachment, SentLetter } from "../db/entities/answering";
import { Message } from "../db/entities/messages";
import { MOST_ID } from "#core/forms/fields";
import { idSchema } from "../edge";
import { Conflict, NotFound, Unusable } from "../errors";
import { caseNumber } from "../house/house";
import { settingsOf } from "../house/settings";
import type { Viewer } from "../people/viewer";
import type { ContentInput } from "../replies/content";
import { lendFiles } from "../replies/content";
import { newReplySchema } from "#core/forms/library";
import { createReply } from "../replies/writing";
import { caseContext } from "./context";
import { loadDraft, withDefinitions, type DraftSlip } from "./draft";
import { caseByNumber } from "./open";
import { t } from "../words";

/** What is to be kept: the viewer's answer under way on a case, or a message that was sent. */
export type KeepSource = { case: number } | { message: number };

/** Words of an answer, with the case's own values found in them. */
export interface Kept {
  case: number;
  label: string;
  language: string;
  subject: string;
  /** The words as they read for the case. */
  doc: Doc;
  found: Recognised[];
  files: AttachmentRef[];
}

/**
 * Reads the words of an answer for keeping them: its answers without opening, closing and signature, as they read
 * for the case, and in them the case's values, which may become tokens.
 * @throws NotFound; Unusable when there are no words
 */
export async function wordsToKeep(
  em: EntityManager,
  viewer: Viewer,
  source: KeepSource,
  now: Date,
): Promise<Kept> {
  const { number, slips, language, files, plain } =
    "case" in source ? await fromDraft(em, viewer, source.case) : await fromMessage(em, source.message);
  const subject = await caseByNumber(em, number);
  const settings = await settingsOf(em);
  const gathered = await caseContext(em, viewer, subject, settings, now);
  const { house } = settings;
  const tokens = catalogue(gathered.own);
  const answers = slips.filter((slip) => slip.part === "answer");
  const letter = compose({
    slips: answers,
    context: gathered.context,
    channel: subject.channel,
    language,
    customerTimeZone: gathered.customerTimeZone,
    tokens,
    patterns: re2Patterns,
    signature: null,
    stationery: null,
    subject: { from: "thread" },
    threadSubject: subject.subject,
    caseNumber: caseNumber(house, subject.number),
    attachments: files,
    contentId: (id) => id,
  });
  const blocks =
    letter.blocks.length > 0
      ? letter.blocks
      : plain === null || plain.trim() === ""
        ? []
        : fromPlainText(plain);
  if (blocks.length === 0) throw new Unusable(t("thereAreNoWordsOfAn"));
  const composed: Doc = { type: "doc", content: blocks };
  const style = { language, timeZone: house.timeZone };
  return {
    case: number,
    label: caseNumber(house, number),
    language: primary(language),
    subject: subject.subject,
    doc: withTokens(composed, []),
    found: recognise(composed, gathered.context, tokens, style),
    files: [...letter.attachments, ...letter.pictures],
  };
}

interface Source {
  number: number;
  slips: DraftSlip[];
  language: string;
  files: AttachmentRef[];
  /** The message's text, where its slips are not known. */
  plain: string | null;
}

async function fromDraft(em: EntityManager, viewer: Viewer, number: number): Promise<Source> {
  const subject = await caseByNumber(em, number);
  const draft = await loadDraft(em, viewer, subject.id);
  if (!draft) throw new NotFound(t("youHaveNoAnswerUnderWay"));
  return { number, slips: draft.slips, language: draft.language, files: draft.attachments, plain: null };
}

async function fromMessage(em: EntityManager, id: number): Promise<Source> {
  const message = await em.findOne(Message, { id, direction: "out" }, { populate: ["case"] });
  if (!message) throw new NotFound(t("thereIsNoSuchAnswer"));
  const letter = await em.findOne(SentLetter, { message });
  const attached = await em.find(
    Attachment,
    { message },
    { populate: ["file"], orderBy: { position: "asc" } },
  );
  return {
    number: message.case.number,
    slips: letter ? await withDefinitions(em, letter.slips) : [],
    language: letter?.language ?? message.language ?? "en",
    files: attached.map((one) => ({
      id: String(one.file.id),
      name: one.name,
      contentType: one.contentType,
      size: one.file.size,
    })),
    plain: message.text,
  };
}

export const keepSchema = z.strictObject({
  source: z.union([z.strictObject({ case: idSchema }), z.strictObject({ message: idSchema })]),
  reply: newReplySchema,
  /** The finds as the screen showed them, each with whether it becomes a token or a blank. */
  found: z
    .array(
      z.strictObject({
        from: z.int().min(0).max(MOST_ID),
        words: z.string().max(20_000),
        accepted: z.boolean(),
      }),
    )
    .max(2000),
});

/**
 * Keeps an answer on a shelf as a new reply of the viewer's, accepted finds as tokens.
 * @returns the reply's key
 * @throws Conflict when the answer was changed since it was shown
 */
export async function keepAnswer(
  em: EntityManager,
  viewer: Viewer,
  input: z.infer<typeof keepSchema>,
  now: Date,
): Promise<string> {
  const kept = await wordsToKeep(em, viewer, input.source, now);
  const same =
    kept.found.length === input.found.length &&
    kept.found.every((one, index) => {
      const shown = input.found[index];
      return shown?.from === one.from && shown.words === one.words;
    });
  if (!same) throw new Conflict(t("theAnswerWasChangedMeanwhileLook"));
  const accepted = kept.found.filter((_, index) => input.found[index]?.accepted);
  const content: ContentInput = {
    title: input.reply.title,
    useTemplateSubject: false,
    blanks: blanksOf(accepted),
    passages: {},
    variants: [
      {
        language: kept.language,
        title: null,
        subject: null,
        document: withTokens(kept.doc, accepted),
        original: null,
      },
    ],
    files: kept.files.map((file) => file.id),
  };
  return em.transactional(async (inner) => {
    await lendFiles(inner, viewer, kept.files);
    return createReply(inner, viewer, input.reply, { content }, now);
  });
}
