import { Worker } from "node:worker_threads";
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Asking, Inquiry, Ranking } from "#core/ranking/inquiry";
import type { Asked } from "#core/search/inverted-index";
import { log } from "../log";
import type { Viewer } from "../people/viewer";
import { threadOf } from "../threads";
import { loggable } from "../told";
import type { About, Finding, Knowledge, Question, Said, ThreadData } from "./protocol";

const BEGIN = threadOf("server/ranking/thread.ts");
/** Whoever asks while nothing is known yet waits so long at most, and does without then. */
const PATIENCE_MS = 500;

/** Who searches waits so long at most, who ranks so much longer for each inquiry. */
const FIND_MS = 3000;
const RANK_MS = 3000;
const RANK_EACH_MS = 50;
/** A thread that owes an answer for longer stands still: it is ended, and another begun. */
const STANDSTILL_MS = 20_000;
/** A thread that died is begun again so much later, twice as late each time. */
const AGAIN_MS = 250;
const LATEST_AGAIN_MS = 30_000;

/** Ranking did not answer in time, or its thread died on the way: whoever asks goes on without. */
export class Unanswered extends Error {}

interface Pending {
  since: number;
  done: (said: Said) => void;
  failed: (error: Error) => void;
}

/** How ranking is: it knows enough to answer, is still reading, or has died and is begun again. */
export type RankerState = "ready" | "reading" | "down";

/** Finds and ranks the replies of one database, in a thread of its own, which is begun again when it dies. */
export class HouseRanker {
  readonly #url: string;
  readonly #pending = new Map<number, Pending>();
  readonly #watch: NodeJS.Timeout;
  #thread: Worker | null = null;
  #knows = latches();
  #asked = 0;
  #deaths = 0;
  #stopped = false;

  constructor(url: string) {
    this.#url = url;
    this.#begin();
    this.#watch = setInterval(() => this.#endIfStill(), STANDSTILL_MS / 4).unref();
  }

  get state(): RankerState {
    if (!this.#thread) return "down";
    return this.#knows.replies.open ? "ready" : "reading";
  }

  /**
   * Ranks inquiries, in their order.
   * @returns null while nothing is known yet: right after the start, in a large library
   * @throws Unanswered when it takes too long, or the thread died
   */
  async rank(asked: About[]): Promise<Ranking[] | null> {
    if (asked.length === 0) return [];
    if (!this.#knows.replies.open) {
      const patience = new Promise<false>((done) => setTimeout(() => done(false), PATIENCE_MS).unref());
      if ((await Promise.race([this.#knows.replies.opened, patience])) === false) return null;
    }
    const most = RANK_MS + RANK_EACH_MS * asked.length;
    const said = await this.#ask((id) => ({ kind: "rank", id, asked }), most);
    if (said.kind !== "ranked") throw new Error(`Ranking answered “${said.kind}”`);
    return said.answer;
  }

  /**
   * Finds replies by words, on whatever shelf they stand, and ranks for an inquiry along with it. Right after the start it
   * waits until the words of all replies are read.
   * @throws Unanswered when it takes too long, or the thread died
   */
  async find(asked: Asked, about: About | null): Promise<Finding> {
    const said = await this.#ask((id) => ({ kind: "find", id, asked, about }), FIND_MS);
    if (said.kind !== "found") throw new Error(`Finding answered “${said.kind}”`);
    return said.answer;
  }

  /** Waits until everything that was sent before the start is learned. */
  async ready(): Promise<void> {
    this.#thread?.ref();
    await this.#knows.history.opened;
    this.#thread?.unref();
  }

  async stop(): Promise<void> {
    this.#stopped = true;
    clearInterval(this.#watch);
    await this.#thread?.terminate();
  }

  /** Ends the thread as a fault would, for tests. */
  async crash(): Promise<void> {
    await this.#thread?.terminate();
  }

  #begin(): void {
    if (this.#stopped) return;
    const workerData = { url: this.#url } satisfies ThreadData;
    const thread = new Worker(BEGIN, { eval: true, workerData, execArgv: [] });
    this.#thread = thread;
    // The process may end while nobody asks.
    thread.unref();
    thread.on("message", (said: Said) => this.#hear(said));
    thread.on("error", (error) => log.error({ event: "ranking failed", error: loggable(error) }));
    thread.on("exit", () => this.#died(thread));
  }

  #died(thread: Worker): void {
    if (this.#thread !== thread) return;
    this.#thread = null;
    const before = this.#knows;
    this.#knows = latches();
    const error = new Unanswered("Ranking has stopped");
    for (const { failed } of this.#pending.values()) failed(error);
    this.#pending.clear();
    if (this.#stopped) {
      for (const awaited of Object.values(before)) awaited.fail(error);
      return;
    }
    // Whoever waits for what it knows waits for the next one.
    for (const what of Object.keys(before) as Knowledge[])
      this.#knows[what].opened.then(before[what].release, before[what].fail);
    const wait = Math.min(AGAIN_MS * 2 ** this.#deaths, LATEST_AGAIN_MS);
    this.#deaths += 1;
    log.warn({ event: "ranking begins again", milliseconds: wait });
    setTimeout(() => this.#begin(), wait).unref();
  }

  #endIfStill(): void {
    const oldest = Math.min(...[...this.#pending.values()].map((one) => one.since));
    // While replies are read at the start, questions wait for that.
    if (Date.now() - oldest < STANDSTILL_MS || !this.#knows.replies.open) return;
    log.error({ event: "ranking stands still" });
    void this.#thread?.terminate();
  }

  #ask(question: (id: number) => Question, milliseconds: number): Promise<Said> {
    const thread = this.#thread;
    if (!thread) return Promise.reject(new Unanswered("Ranking is being begun again"));
    const id = (this.#asked += 1);
    return new Promise((done, failed) => {
      // The question stays pending: it tells how long the thread owes an answer.
      const late = setTimeout(() => failed(new Unanswered("Ranking takes too long")), milliseconds);
      const settle =
        <T>(then: (value: T) => void) =>
        (value: T) => {
          clearTimeout(late);
          then(value);
        };
      this.#pending.set(id, { since: Date.now(), done: settle(done), failed: settle(failed) });
      thread.postMessage(question(id));
    });
  }

  #hear(said: Said): void {
    if (said.kind === "knows") {
      this.#knows[said.what].release();
      if (said.what === "history") this.#deaths = 0;
    } else if (said.kind === "trouble") log.warn({ event: "ranking lost its database", error: said.problem });
    else {
      const pending = this.#pending.get(said.id);
      this.#pending.delete(said.id);
      if (said.kind === "refused") pending?.failed(new Error(said.problem));
      else pending?.done(said);
    }
  }
}

function latches(): Record<Knowledge, ReturnType<typeof latch>> {
  return { words: latch(), replies: latch(), history: latch() };
}

/** Something that is waited for and comes once. */
function latch() {
  const state = {
    open: false,
    opened: Promise.resolve(true),
    release: (): void => undefined,
    fail: (_error: Error): void => undefined,
  };
  state.opened = new Promise((done, failed) => {
    state.release = () => {
      state.open = true;
      done(true);
    };
    state.fail = failed;
  });
  // Whoever waits hears of it; nobody may be waiting.
  state.opened.catch(() => undefined);
  return state;
}

/** An inquiry as a viewer asks about it. */
export function askedBy(viewer: Viewer, inquiry: Inquiry, asking: Pick<Asking, "top" | "among">): About {
  return { inquiry, asking: { ...asking, person: viewer.id, team: viewer.teamId } };
}

/** By the database's address: one a process, but for tests. */
const rankers = new Map<string, HouseRanker>();

/** The ranker of this process for a database, started when it is first asked for. @param url postgresql:// address */
export function startRanker(url: string): HouseRanker {
  const ranker = rankers.get(url) ?? new HouseRanker(url);
  rankers.set(url, ranker);
  return ranker;
}

/** The ranker over the house's library, with everything learned that any process has sent. */
export function houseRanker(em: EntityManager): HouseRanker {
  const url = em.config.get("clientUrl");
  if (!url) throw new Error("The database has no address");
  return startRanker(url);
}

/** Ends every ranker's thread. */
export async function stopRankers(): Promise<void> {
  const all = [...rankers.values()];
  rankers.clear();
  await Promise.all(all.map((ranker) => ranker.stop()));
}
