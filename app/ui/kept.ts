import * as z from "zod/mini";
import type { Keeping } from "./saver";

/**
 * What was typed and is not stored by the server yet, kept in this browser under a name: it is there again when the
 * screen is opened again, also after signing in.
 */
export class KeptInBrowser<T> {
  readonly #key: string;
  readonly #shape: z.ZodMiniType<{ version: number; at: number; kept: T }>;

  /** @param name of what is kept, and whose: another person at the same browser finds nothing */
  constructor(name: string, schema: z.ZodMiniType<T>) {
    this.#key = `plain-shelf:${name}`;
    this.#shape = z.object({ version: z.number(), at: z.number(), kept: schema });
  }

  /** What is kept, on which version it rests, and since when (milliseconds since 1970); null where nothing is. */
  find(): { version: number; at: number; kept: T } | null {
    try {
      const text = localStorage.getItem(this.#key);
      return text === null ? null : (this.#shape.safeParse(JSON.parse(text)).data ?? null);
    } catch {
      return null; // A browser that keeps nothing, or kept it only in part.
    }
  }

  clear(): void {
    try {
      localStorage.removeItem(this.#key);
    } catch {
      // A browser that keeps nothing has nothing to clear.
    }
  }

  /** How a saver keeps here what it could not store yet. @param read what there is now */
  keeping(read: () => T): Keeping {
    return {
      put: (version) => {
        try {
          localStorage.setItem(this.#key, JSON.stringify({ version, at: Date.now(), kept: read() }));
        } catch {
          // A browser that keeps nothing, or is full: the saver goes on trying, and says so.
        }
      },
      clear: () => this.clear(),
    };
  }
}
