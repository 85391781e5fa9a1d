import type { EntityManager } from "@mikro-orm/postgresql";
import type { Block } from "#core/document/types";
import type { Inquiry } from "#core/ranking/inquiry";
import type { Library, LibraryReply } from "#core/formats/library";
import { query } from "#server/db/sql";
import type { Viewer } from "#server/people/viewer";
import { houseRanker, stopRankers } from "#server/ranking/house-ranker";
import { readFilter } from "#server/replies/filter";
import { importLibrary } from "#server/replies/import";
import { listReplies } from "#server/replies/list";
import { stripReplies } from "#server/strip/strip";
import { readDemo } from "../demo/read";
import { onDemoDatabase } from "./database";
import { percentiles, random } from "./measure";

const REPLIES = 10_000;
const USES = 50_000;
const ROUNDS = 60;
/** Replies that are put in at once, on four shelves of their own. */
const BATCH = 1000;
const shelfOf = (index: number) => `shelf-${Math.floor(index / BATCH)}-${index % 4}`;

/**
 * Lists and searches 10,000 replies as the Shelves screen and the strip do, beside the bare statement that
 * reads as many rows by title. Milliseconds, median and 95th percentile.
 */
export async function benchLibrary(): Promise<object> {
  const now = new Date();
  return onDemoDatabase(async (em) => {
    try {
      return await measure(em, await fill(em(), now));
    } finally {
      await stopRankers();
    }
  }, now);
}

/** Puts beside the demo thousands of replies whose paragraphs and titles are drawn from the demo's. */
async function fill(em: EntityManager, now: Date): Promise<Viewer> {
  const draw = random(20_261_125);
  const { library } = await readDemo();
  const paragraphs = library.replies.flatMap((reply) =>
    reply.variants.flatMap(({ language, document }) =>
      language.startsWith("en") ? document.content.filter(isPlain) : [],
    ),
  );
  const titles = library.replies.flatMap((reply) => reply.title.split(" "));
  const pick = <T>(list: T[]): T => {
    const one = list[Math.floor(draw() * list.length)];
    if (one === undefined) throw new Error("Nothing to draw from");
    return one;
  };
  const some = <T>(list: T[], count: number) => Array.from({ length: count }, () => pick(list));
  const model = library.replies.find((reply) => reply.part === "answer");
  if (!model) throw new Error("The demo has no answers");
  const replies = Array.from({ length: REPLIES }, (_, index): LibraryReply => ({
    ...model,
    id: `made-${index}`,
    title: `${some(titles, 4).join(" ")} ${index}`,
    shelf: shelfOf(index),
    tags: some(titles, 2).map((word) => word.toLowerCase()),
    blanks: {},
    passages: {},
    attachments: [],
    variants: [
      {
        language: "en",
        title: null,
        subject: null,
        document: { type: "doc", content: some(paragraphs, 3) },
      },
    ],
  }));
  for (let start = 0; start < REPLIES; start += BATCH) {
    const shelves = Array.from({ length: 4 }, (_, index) => ({
      id: shelfOf(start + index),
      name: `Shelf ${start + index}`,
      mark: "M",
    }));
    const part: Library = {
      ...library,
      shelves,
      houseFacts: {},
      replies: replies.slice(start, start + BATCH),
    };
    await importLibrary(em, part, () => Promise.reject(new Error("There are no files")), now);
    em.clear();
  }
  await query(
    em,
    `insert into letter_replies (letter_id, reply_id, position, at)
     select l.id, r.id, 0, now() - n * interval '3 minutes' from generate_series(1, ${USES}) n
       join lateral (select id from sent_letters order by id offset n % 40 limit 1) l on true
       join lateral (select id from replies where key = 'made-' || (n::bigint * n) % ${REPLIES}) r on true`,
  );
  await query(em, "analyze");
  const [person] = await query<Omit<Viewer, "teamName">>(
    em,
    `select id, name, email, role, team_id as "teamId", time_zone as "timeZone" from people where role = 'agent' limit 1`,
  );
  if (!person) throw new Error("The demo has no agents");
  return { ...person, teamName: "" };
}

const isPlain = (block: Block) =>
  block.type === "paragraph" && !/"blank"|"passages":\[\{/.test(JSON.stringify(block));

async function measure(em: () => EntityManager, viewer: Viewer): Promise<object> {
  const list = (address: string) => async () => {
    await listReplies(em(), viewer, readFilter(new URLSearchParams(address)));
  };
  const inquiry: Inquiry = {
    channel: "email",
    subject: "Cancelled sailing",
    body: "Our sailing was cancelled for wind. When do we get the refund, and may we take a later ship instead?",
  };
  await houseRanker(em()).ready();
  const strip = (typed: string) => async () => {
    await stripReplies(em(), viewer, {
      query: typed,
      inquiry,
      channel: "email",
      language: "en-GB",
      limit: 60,
    });
  };
  const work: Record<string, () => Promise<void>> = {
    "bare statement": async () => {
      await query(em(), "select key, title from replies order by lower(title) limit 100");
    },
    list: list(""),
    "list by use": list("sort=uses"),
    "list, last page": list("page=100"),
    "list, filtered": list("tag=weather&channel=email&sort=changed"),
    "search, a word": list("q=refund"),
    "search, three words": list("q=wind+sailing+refund"),
    "search, misspelled": list("q=refnud"),
    "strip, two words typed": strip("refund wind"),
    "strip, one word typed": strip("bicycle"),
    "strip, two letters typed": strip("re"),
    "strip, misspelled": strip("refnud wind"),
    "strip, by the message": strip(""),
  };
  const figures: Record<string, number[]> = Object.fromEntries(Object.keys(work).map((name) => [name, []]));
  // Turn by turn, so that a slow moment of the machine meets them all.
  for (let round = -3; round < ROUNDS; round += 1)
    for (const [name, once] of Object.entries(work)) {
      const began = performance.now();
      await once();
      if (round >= 0) figures[name]?.push(performance.now() - began);
    }
  return {
    bench: "library",
    replies: REPLIES,
    milliseconds: Object.fromEntries(
      Object.entries(figures).map(([name, times]) => [name, percentiles(times)]),
    ),
  };
}
