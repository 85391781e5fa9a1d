import * as z from "zod/mini";

export type SaveState = "nothing" | "saving" | "saved" | "unsaved" | { conflict: string };

const refused = z.object({ problem: z.string() });

const WAIT_MS = 400;
const RETRY_MS = 3000;

interface Options<T extends { version: number }> {
  /** The version that the screen's state rests on; 0 where nothing is stored. */
  version: number;
  /** Sends what there is now. @param keepalive whether the page is going away */
  request: (version: number, keepalive: boolean) => Promise<Response>;
  answer: z.ZodMiniType<T>;
  onState: (state: SaveState) => void;
  onSaved?: (answer: T) => void;
}

/**
 * Saves something as it is typed: soon after each change, one save at a time, again after a failure, and once
 * more when the page goes. A save that rests on an older state than the server's is not forced.
 */
export class Saver<T extends { version: number }> {
  readonly #options: Options<T>;
  #version: number;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #dirty = false;
  #running: Promise<void> | null = null;
  #stopped = false;
  /** Whether the latest save did not get through. */
  #failed = false;

  constructor(options: Options<T>) {
    this.#options = options;
    this.#version = options.version;
  }

  get version(): number {
    return this.#version;
  }

  /** Something changed. */
  touch(): void {
    if (this.#stopped) return;
    this.#dirty = true;
    this.#options.onState("unsaved");
    this.#schedule(WAIT_MS);
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

  /** Saves once more while the page goes away. */
  leave(): void {
    this.#unschedule();
    if (this.#dirty && !this.#stopped && !this.#running)
      void this.#options.request(this.#version, true).catch(() => undefined);
    this.#stopped = true;
  }

  /** No more saving: what was written has been sent off. */
  stop(): void {
    this.#unschedule();
    this.#stopped = true;
    this.#dirty = false;
  }

  #unschedule(): void {
    clearTimeout(this.#timer);
    this.#timer = undefined;
  }

  #schedule(delay: number): void {
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

  async #attempt(): Promise<void> {
    this.#dirty = false;
    this.#failed = false;
    this.#options.onState("saving");
    try {
      const response = await this.#options.request(this.#version, false);
      const body: unknown = await response.json();
      if (response.ok) {
        const result = this.#options.answer.parse(body);
        this.#version = result.version;
        this.#options.onSaved?.(result);
        if (!this.#dirty) this.#options.onState(result.version === 0 ? "nothing" : "saved");
        return;
      }
      if (response.status >= 400 && response.status < 500) {
        this.#stopped = true;
        this.#options.onState({ conflict: refused.safeParse(body).data?.problem ?? "It was not taken" });
        return;
      }
      throw new Error(`The server answered ${response.status}`);
    } catch {
      // Not reached, or not able to answer: what was typed stays here and is tried again.
      this.#dirty = true;
      this.#failed = true;
      this.#options.onState("unsaved");
      this.#schedule(RETRY_MS);
    }
  }
}
