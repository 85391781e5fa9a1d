import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { Worker } from "node:worker_threads";
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Asking, Inquiry, Ranking } from "#core/ranking/inquiry";
import type { Asked } from "#core/search/inverted-index";
import { log } from "../log";
import type { Viewer } from "../people/viewer";
import type { About, Finding, Question, Said, ThreadData } from "./protocol";

/** The processes run in the program's folder, whose sources they read; a thread must be told how to read TypeScript. */
const THREAD = pathToFileURL(resolve("server/ranking/thread.ts")).href;
const BEGIN = `import("tsx/esm/api").then(({ register }) => { register(); return import(${JSON.stringify(THREAD)}); })`;
/** Whoever asks while nothing is known yet waits so long at most, and does without then. */
const PATIENCE_MS = 500;

interface Pending {
  done: (said: Said) => void;
  failed: (error: Error) => void;
}

/** Finds and ranks the replies of one database, in a thread of its own. */
export class HouseRanker {
  readonly #thread: Worker;
  readonly #pending = new Map<number, Pending>();
  readonly #knows = { words: latch(), replies: latch(), history: latch() };
  #asked = 0;

  constructor(url: string) {
    this.#thread = new Worker(BEGIN, { eval: true, workerData: { url } satisfies ThreadData, execArgv: [] });
    // The process may end while nobody asks.
    this.#thread.unref();
    this.#thread.on("message", (said: Said) => this.#hear(said));
    this.#thread.on("error", (error) => this.#fail(error));
    this.#thread.on("exit", () => this.#fail(new Error("Ranking has stopped")));
  }

  /**
   * Ranks inquiries, in their order.
   * @returns null while nothing is known yet: right after the start, in a large library
   * @throws Error when ranking has stopped
   */
  async rank(asked: About[]): Promise<Ranking[] | null> {
    if (asked.length === 0) return [];
    if (!this.#knows.replies.open) {
      const patience = new Promise<false>((done) => setTimeout(() => done(false), PATIENCE_MS).unref());
      if ((await Promise.race([this.#knows.replies.opened, patience])) === false) return null;
    }
    const said = await this.#ask((id) => ({ kind: "rank", id, asked }));
    if (said.kind !== "ranked") throw new Error(`Ranking answered “${said.kind}”`);
    return said.answer;
  }

  /**
   * Finds replies by words, on whatever shelf they stand, and ranks for an inquiry along with it. Right after the start it
   * waits until the words of all replies are read.
   * @throws Error when ranking has stopped
   */
  async find(asked: Asked, about: About | null): Promise<Finding> {
    const said = await this.#ask((id) => ({ kind: "find", id, asked, about }));
    if (said.kind !== "found") throw new Error(`Finding answered “${said.kind}”`);
    return said.answer;
  }

  /** Waits until everything that was sent before the start is learned. */
  async ready(): Promise<void> {
    this.#thread.ref();
    await this.#knows.history.opened;
    this.#thread.unref();
  }

  async stop(): Promise<void> {
    await this.#thread.terminate();
  }

  #ask(question: (id: number) => Question): Promise<Said> {
    const id = (this.#asked += 1);
    return new Promise((done, failed) => {
      this.#pending.set(id, { done, failed });
      this.#thread.postMessage(question(id));
    });
  }

  #hear(said: Said): void {
    if (said.kind === "knows") this.#knows[said.what].release();
    else if (said.kind === "trouble") log.warn({ event: "ranking lost its database", error: said.problem });
    else {
      const pending = this.#pending.get(said.id);
      this.#pending.delete(said.id);
      if (said.kind === "refused") pending?.failed(new Error(said.problem));
      else pending?.done(said);
    }
  }

  #fail(error: Error): void {
    for (const { failed } of this.#pending.values()) failed(error);
    this.#pending.clear();
    for (const awaited of Object.values(this.#knows)) awaited.fail(error);
  }
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
