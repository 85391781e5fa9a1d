import * as z from "zod/mini";
import { t } from "../words/ui";

/** Where a text under way is kept; trouble is told in words. */
export type SaveState =
  | "nothing"
  | "saving"
  | "saved"
  | "unsaved"
  | { conflict: string }
  /** Not saved for now: tried again by itself, or after signing in. */
  | { trouble: string; signIn: boolean };

const refused = z.object({ problem: z.string() });

const WAIT_MS = 400;
const RETRY_MS = 3000;
/** A save that takes longer is told of. */
const SLOW_MS = 1500;
/** A save that takes longer is given up and tried again. */
const GIVE_UP_MS = 15_000;

/** Keeps what is not saved yet in the browser: in case the page, the session or the server goes first. */
export interface Keeping {
  put(version: number): void;
  clear(): void;
}

/** One save: what it rests on, which of this window's it is, and whether the page is going away. */
export interface Save {
  version: number;
  sequence: number;
  keepalive: boolean;
  signal: AbortSignal;
}

interface Options<T extends { version: number }> {
  /** The version that the screen's state rests on; 0 where nothing is stored. */
  version: number;
  /** Sends what there is now. */
  request: (save: Save) => Promise<Response>;
  answer: z.ZodMiniType<T>;
  onState: (state: SaveState) => void;
  keeping?: Keeping;
}

/**
 * Saves something as it is typed: soon after each change, one save at a time, again after a failure, and once
 * more when the page goes. A save that rests on an older state than the server's is not forced. What is not saved
 * is kept in the browser meanwhile.
 */
export class Saver<T extends { version: number }> {
  readonly #options: Options<T>;
  #version: number;
  #sequence = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #dirty = false;
  #running: Promise<void> | null = null;
  #stopped = false;
  /** Whether the latest save did not get through. */
  #failed = false;
  #left = false;

  constructor(options: Options<T>) {
    this.#options = options;
    this.#version = options.version;
  }

  get version(): number {
    return this.#version;
  }

  /** Whether something is not stored yet. */
  get isUnsaved(): boolean {
    return !this.#stopped && (this.#dirty || this.#running !== null);
  }

  /** Something changed. */
  touch(): void {
    if (this.#stopped) return;
    this.#dirty = true;
    this.#options.onState("unsaved");
    this.#schedule(WAIT_MS);
  }

  /** Tries at once, where the last save failed: the server or the session may be back. */
  retry(): void {
    if (this.#failed && this.#dirty) this.#schedule(0);
  }

  /** Waits until what was typed is saved. @returns whether it is */
  async flush(): Promise<boolean> {
    while (this.#dirty && !this.#stopped) {
      this.#unschedule();
      // A save under way may rest on older words: it ends first, then these go.
      if (this.#running) await this.#running;
      else {
        await this.#save();
        if (this.#failed) return false;
      }
    }
    await this.#running;
    return !this.#dirty && !this.#stopped;
  }

  /**
   * Saves once more while the screen goes away, and behind a save that is under way.
   * @param pageGoes whether the page goes with it: then nothing can be waited for
   */
  leave(pageGoes = false): void {
    this.#unschedule();
    if (this.#stopped || this.#left) return;
    if (!this.#dirty && !this.#running) {
      this.#stopped = true;
      return;
    }
    this.#options.keeping?.put(this.#version);
    if (pageGoes || !this.#running) {
      // A page may come back as it was left: then it goes on saving.
      if (this.#dirty) void this.#send(true).catch(() => undefined);
      if (!pageGoes) this.#stopped = true;
      return;
    }
    this.#left = true;
    void this.#running.then(async () => {
      if (this.#dirty && !this.#stopped) await this.#save();
      this.#stopped = true;
    });
  }

  /** No more saving: what was written has been sent off. */
  stop(): void {
    this.#unschedule();
    this.#stopped = true;
    this.#dirty = false;
    this.#options.keeping?.clear();
  }

  #unschedule(): void {
    clearTimeout(this.#timer);
    this.#timer = undefined;
  }

  #schedule(delay: number): void {
    if (this.#left) return;
    this.#unschedule();
    this.#timer = setTimeout(() => {
      this.#timer = undefined;
      if (!this.#running) void this.#save();
    }, delay);
  }

  #save(): Promise<void> {
    this.#running = this.#attempt().finally(() => {
      this.#running = null;
      if (this.#dirty && this.#timer === undefined && !this.#stopped) this.#schedule(WAIT_MS);
    });
    return this.#running;
  }

  async #send(keepalive: boolean, signal = AbortSignal.timeout(GIVE_UP_MS)): Promise<Response> {
    this.#sequence += 1;
    const response = await this.#options.request({
      version: this.#version,
      sequence: this.#sequence,
      keepalive,
      signal,
    });
    if (keepalive && response.ok) this.#options.keeping?.clear();
    return response;
  }

  async #attempt(): Promise<void> {
    this.#dirty = false;
    this.#failed = false;
    this.#options.onState("saving");
    this.#options.keeping?.put(this.#version);
    const slow = setTimeout(() => this.#trouble(t("theServerDoesNotAnswerWhat"), false), SLOW_MS);
    try {
      const response = await this.#send(false);
      const body: unknown = await response.json();
      if (response.ok) {
        const result = this.#options.answer.parse(body);
        this.#version = result.version;
        if (this.#dirty) return;
        this.#options.keeping?.clear();
        this.#options.onState(result.version === 0 ? "nothing" : "saved");
        return;
      }
      if (response.status === 401) {
        this.#fail(t("yourSessionHasEndedWhatYou"), true);
        return;
      }
      if (response.status >= 400 && response.status < 500 && response.status !== 429) {
        this.#stopped = true;
        this.#options.onState({ conflict: refused.safeParse(body).data?.problem ?? t("itWasNotTaken") });
        return;
      }
      throw new Error(t("theServerAnswered", { status: response.status }));
    } catch {
      // Not reached, or not able to answer: what was typed stays here and is tried again.
      this.#fail(t("theServerCannotBeReachedWhat"), false);
      this.#schedule(RETRY_MS);
    } finally {
      clearTimeout(slow);
    }
  }

  #fail(words: string, signIn: boolean): void {
    this.#dirty = true;
    this.#failed = true;
    this.#trouble(words, signIn);
    // Tried again when somebody is signed in again, which may be in another window.
    if (signIn) this.#schedule(RETRY_MS * 3);
  }

  #trouble(words: string, signIn: boolean): void {
    if (!this.#left) this.#options.onState({ trouble: words, signIn });
  }
}
