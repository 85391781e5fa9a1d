import pg from "pg";
import { log } from "../log";
import { CHANNEL, eventSchema, type LiveEvent } from "./notify";
import { told } from "../told";

type Listener = (event: LiveEvent) => void;

/** Hears events from PostgreSQL and hands them to this process's open screens. Reconnects by itself. */
class Hub {
  readonly #url: string;
  readonly #listeners = new Set<Listener>();
  #client: pg.Client | null = null;
  #closed = false;
  #wait = 250;

  constructor(url: string) {
    this.#url = url;
  }

  async open(): Promise<void> {
    const client = new pg.Client({ connectionString: this.#url, keepAlive: true });
    client.on("notification", ({ payload }) => this.#hear(payload ?? ""));
    client.on("error", () => this.#lost(client));
    client.on("end", () => this.#lost(client));
    this.#client = client;
    try {
      await client.connect();
      await client.query(`listen ${CHANNEL}`);
      this.#wait = 250;
      // Whatever happened while nobody listened: have every screen look again.
      this.#tell({ case: null, kind: "queue" });
    } catch (error) {
      log.warn({ event: "listen failed", error: told(error) });
      this.#lost(client);
    }
  }

  listen(listener: Listener): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  async close(): Promise<void> {
    this.#closed = true;
    await this.#client?.end();
  }

  #hear(payload: string): void {
    try {
      this.#tell(eventSchema.parse(JSON.parse(payload)));
    } catch (error) {
      log.warn({
        event: "unreadable notification",
        error: told(error),
      });
    }
  }

  #tell(event: LiveEvent): void {
    for (const listener of this.#listeners) listener(event);
  }

  #lost(client: pg.Client): void {
    if (this.#closed || this.#client !== client) return;
    this.#client = null;
    setTimeout(() => void (this.#closed ? undefined : this.open()), this.#wait).unref();
    this.#wait = Math.min(this.#wait * 2, 10_000);
  }
}

let hub: Hub | null = null;

/** Starts hearing events in this process, once. @param url postgresql:// address */
export async function openHub(url: string): Promise<void> {
  hub ??= new Hub(url);
  await hub.open();
}

/** Calls a listener on every event. @returns how to stop. @throws Error when `openHub` was not called */
export function onEvent(listener: Listener): () => void {
  if (!hub) throw new Error("Nobody listens to events in this process");
  return hub.listen(listener);
}

export async function closeHub(): Promise<void> {
  await hub?.close();
  hub = null;
}
