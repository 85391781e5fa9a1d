import * as z from "zod/mini";
import type { DraftInput } from "#server/answering/draft";

export type SaveState = "nothing" | "saving" | "saved" | "unsaved" | { conflict: string };

const saved = z.object({ version: z.number(), otherNames: z.array(z.string()) });
const refused = z.object({ problem: z.string() });

const WAIT_MS = 400;
const RETRY_MS = 3000;

export type Draft = Omit<DraftInput, "version">;

interface Options {
  caseNumber: number;
  version: number;
  /** The draft as it stands, and the letter's text. */
  read: () => { draft: Draft; text: string };
  onState: (state: SaveState) => void;
  onNames: (names: string[]) => void;
}

/**
 * Saves a draft as it is typed: soon after each change, one save at a time, again after a failure, and once
 * more when the page goes. A save that rests on an older state than the server's is not forced.
 */
export class DraftSaver {
  readonly #options: Options;
  #version: number;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #dirty = false;
  #running: Promise<void> | null = null;
  #stopped = false;

  constructor(options: Options) {
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
    clearTimeout(this.#timer);
    while (this.#dirty && !this.#stopped) {
      await (this.#running ?? this.#save());
      if (this.#timer !== undefined && this.#dirty) return false;
    }
    await this.#running;
    return !this.#dirty && !this.#stopped;
  }

  /** Saves once more while the page goes away. */
  leave(): void {
    clearTimeout(this.#timer);
    if (this.#dirty && !this.#stopped && !this.#running) void this.#request(true).catch(() => undefined);
    this.#stopped = true;
  }

  /** No more saving: the draft was sent. */
  stop(): void {
    clearTimeout(this.#timer);
    this.#stopped = true;
    this.#dirty = false;
  }

  #schedule(delay: number): void {
    clearTimeout(this.#timer);
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
    this.#options.onState("saving");
    try {
      const response = await this.#request(false);
      const body: unknown = await response.json();
      if (response.ok) {
        const result = saved.parse(body);
        this.#version = result.version;
        this.#options.onNames(result.otherNames);
        if (!this.#dirty) this.#options.onState(result.version === 0 ? "nothing" : "saved");
        return;
      }
      if (response.status === 409 || response.status === 400) {
        this.#stopped = true;
        this.#options.onState({
          conflict: refused.safeParse(body).data?.problem ?? "The draft was not taken",
        });
        return;
      }
      throw new Error(`The server answered ${response.status}`);
    } catch {
      // Not reached, or not able to answer: what was typed stays here and is tried again.
      this.#dirty = true;
      this.#options.onState("unsaved");
      this.#schedule(RETRY_MS);
    }
  }

  #request(keepalive: boolean): Promise<Response> {
    const { draft, text } = this.#options.read();
    return fetch(`/cases/${this.#options.caseNumber}/draft`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ draft: { ...draft, version: this.#version }, text }),
      keepalive,
    });
  }
}
