import { isLanguageTag } from "../language/tag";
import { z } from "zod";
import { passagesSchema } from "../conditions/condition";
import { textChannels, type Doc, type TextChannel, type Texts } from "../document/types";
import { blanksSchema } from "../tokens/blanks";
import { moneySchema } from "../tokens/context";
import { readMarkdown } from "./markdown";
import { t } from "../words/library";
import { replyChannels, replyStates } from "../words/named";

const id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,99}$/, t.error("smallLettersDigitsAndHyphens"));
const language = z
  .string()
  .regex(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/, t.error("aLanguageTag"))
  .refine(isLanguageTag, t.error("noLanguageKnown"));
const subject = z.string().max(500);
/** Texts of channels' own, in Markdown as the body is. */
const texts = z.partialRecord(z.enum(textChannels), z.string().min(1).max(20_000)).default({});

const frontMatter = {
  id,
  title: z.string().min(1).max(300),
  note: z.string().max(5000).optional(),
  part: z.enum(["opening", "answer", "closing"]).default("answer"),
  tags: z.array(z.string().min(1).max(80)).max(50).default([]),
  channels: z.array(z.enum(replyChannels)).min(1).default(["email"]),
  language: language.default("en"),
  state: z.enum(replyStates).default("shelved"),
  subject: subject.optional(),
  use_template_subject: z.boolean().default(false),
  review_by: z.iso.date().optional(),
  /** What it is about: cases of these topics, or any; with a booking, or any. */
  topics: z.array(z.string().min(1).max(80)).max(50).default([]),
  with_booking: z.boolean().default(false),
  season_from: z.iso.date().optional(),
  season_until: z.iso.date().optional(),
  blanks: z._default(blanksSchema, {}),
  passages: z._default(passagesSchema, {}),
  attachments: z.array(z.string().min(1).max(300)).max(50).default([]),
  texts,
};

/** Front matter of `SHELF/ID.md`. */
export const replyMatterSchema = z.strictObject(frontMatter);
/** Front matter of a variant, `SHELF/ID.LANGUAGE.md`: everything else is its reply's. */
export const variantMatterSchema = z.strictObject({
  variant_of: id,
  language,
  title: z.string().max(300).optional(),
  subject: subject.optional(),
  texts,
});

/** Kinds of house fact. */
const factTypes = ["text", "long_text", "money", "date", "link", "number"] as const;

const houseFactSchema = z.strictObject({
  label: z.string().min(1).max(200),
  type: z.enum(factTypes).default("text"),
  value: z.union([z.string().max(5000), z.number(), moneySchema]),
  /** Of the value; left out where it reads the same in every language. */
  language: language.optional(),
  /** The same in other languages, by their tags. */
  texts: z.record(language, z.string().min(1).max(5000)).default({}),
});
const shelfSchema = z.strictObject({
  id,
  name: z.string().min(1).max(200),
  mark: z.string().min(1).max(2).optional(),
});
const factsSchema = z.record(z.string().regex(/^[a-z][a-z0-9_]*$/), houseFactSchema);

/** `library.yaml` at the top of a folder: what is said once for the whole library. */
export const folderMatterSchema = z.strictObject({
  format: z.literal("plain-shelf-library").optional(),
  version: z.literal(1).optional(),
  shelves: z.array(shelfSchema).default([]),
  house_facts: factsSchema.default({}),
});

/** `library.json`. */
const libraryFileSchema = z.strictObject({
  format: z.literal("plain-shelf-library"),
  version: z
    .number()
    .int()
    .refine((version) => version <= 1, t.error("writtenByANewerVersion")),
  shelves: z.array(shelfSchema).default([]),
  replies: z.array(
    z.strictObject({
      ...frontMatter,
      shelf: id.optional(),
      body: z.string().max(200_000),
      variants: z
        .array(
          z.strictObject({
            language,
            title: z.string().max(300).optional(),
            subject: subject.optional(),
            texts,
            body: z.string().max(200_000),
          }),
        )
        .default([]),
    }),
  ),
  house_facts: factsSchema.default({}),
});

/** A problem in a library, with where it is. */
export interface LibraryProblem {
  /** Path of the file within the folder, or the path of keys within `library.json`. */
  where: string;
  line: number | null;
  column: number | null;
  message: string;
}

export interface LibraryVariant {
  language: string;
  title: string | null;
  subject: string | null;
  document: Doc;
  /** Of channels that have their own. */
  texts?: Texts["texts"];
}

export type LibraryReply = Omit<z.infer<typeof replyMatterSchema>, "language" | "subject" | "texts"> & {
  shelf: string | null;
  /** The fallback variant first. */
  variants: [LibraryVariant, ...LibraryVariant[]];
};

export interface Library {
  shelves: z.infer<typeof shelfSchema>[];
  replies: LibraryReply[];
  houseFacts: z.infer<typeof factsSchema>;
}

/** Channels' own texts, read. */
export function textsFrom(
  given: Partial<Record<TextChannel, string>>,
  read: (channel: TextChannel, markdown: string) => Doc,
): Partial<Record<TextChannel, Doc>> {
  const made: Partial<Record<TextChannel, Doc>> = {};
  for (const channel of textChannels) {
    const markdown = given[channel];
    if (markdown !== undefined) made[channel] = read(channel, markdown);
  }
  return made;
}

/** Why a value was refused: one line an issue, each with its path. */
export function zodProblems(error: z.core.$ZodError): { path: string; message: string }[] {
  return error.issues.map((issue) => ({
    path: issue.path.join("."),
    message:
      issue.code === "unrecognized_keys"
        ? t("unknownKeys", { keys: issue.keys.map((key) => `“${key}”`).join(", ") })
        : issue.message,
  }));
}

/** Reads `library.json`, parsed as JSON. */
export function readLibraryFile(json: unknown): { library: Library; problems: LibraryProblem[] } {
  const parsed = libraryFileSchema.safeParse(json);
  if (!parsed.success) {
    const problems = zodProblems(parsed.error).map(({ path, message }) => ({
      where: path || "library",
      line: null,
      column: null,
      message,
    }));
    return { library: { shelves: [], replies: [], houseFacts: {} }, problems };
  }
  const problems: LibraryProblem[] = [];
  const body = (where: string, markdown: string): Doc => {
    const read = readMarkdown(markdown);
    problems.push(...read.problems.map((problem) => ({ where, ...problem })));
    return read.doc;
  };
  const replies = parsed.data.replies.map(
    ({
      body: markdown,
      variants,
      language: own,
      subject: ownSubject,
      shelf,
      texts: ownTexts,
      ...matter
    }): LibraryReply => ({
      ...matter,
      shelf: shelf ?? null,
      variants: [
        {
          ...{ language: own, title: null, subject: ownSubject ?? null },
          document: body(`${matter.id}`, markdown),
          texts: textsFrom(ownTexts, (channel, text) => body(`${matter.id} (${channel})`, text)),
        },
        ...variants.map((variant) => ({
          language: variant.language,
          title: variant.title ?? null,
          subject: variant.subject ?? null,
          document: body(`${matter.id} (${variant.language})`, variant.body),
          texts: textsFrom(variant.texts, (channel, text) =>
            body(`${matter.id} (${variant.language}, ${channel})`, text),
          ),
        })),
      ],
    }),
  );
  problems.push(...repeated(replies));
  return {
    library: { shelves: parsed.data.shelves, replies, houseFacts: parsed.data.house_facts },
    problems,
  };
}

/** Replies that share an id: only one of them could ever be found. */
export function repeated(replies: LibraryReply[]): LibraryProblem[] {
  const seen = new Set<string>();
  return replies.flatMap((reply): LibraryProblem[] => {
    if (!seen.has(reply.id)) {
      seen.add(reply.id);
      return [];
    }
    return [
      { where: reply.id, line: null, column: null, message: t("twoRepliesHaveTheId", { id: reply.id }) },
    ];
  });
}
