import createSubscriber, { type Subscriber } from "pg-listen";
import { log } from "../log";
import { CHANNEL, eventSchema, type LiveEvent } from "./notify";
import { loggable } from "../told";

type Listener = (event: LiveEvent) => void;

const FIRST_WAIT_MS = 250;
const LONGEST_WAIT_MS = 10_000;

/** Hears events from PostgreSQL and hands them to this process's open screens; listens again where it was cut off. */
class Hub {
  readonly #subscriber: Subscriber<Record<string, string>>;
  readonly #listeners = new Set<Listener>();

  constructor(url: string) {
    this.#subscriber = createSubscriber<Record<string, string>>(
      { connectionString: url },
      {
        // What cannot be read is told here, and ends nothing.
        parse: (payload) => payload,
        retryLimit: Infinity,
        retryTimeout: 0,
        retryInterval: (attempt) => Math.min(FIRST_WAIT_MS * 2 ** attempt, LONGEST_WAIT_MS),
      },
    );
    this.#subscriber.notifications.on(CHANNEL, (payload) => this.#hear(payload));
    // Whatever happened while nobody listened: have every screen look again.
    this.#subscriber.events.on("connected", () => this.#tell({ case: null, kind: "queue" }));
    this.#subscriber.events.on("error", (error) =>
      log.warn({ event: "listen failed", error: loggable(error) }),
    );
  }

  /** @throws what PostgreSQL says where it cannot be reached at first */
  async open(): Promise<void> {
    await this.#subscriber.connect();
    await this.#subscriber.listenTo(CHANNEL);
  }

  listen(listener: Listener): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  close(): Promise<void> {
    return this.#subscriber.close();
  }

  #hear(payload: string): void {
    try {
      this.#tell(eventSchema.parse(JSON.parse(payload)));
    } catch (error) {
      log.warn({
        event: "unreadable notification",
        error: loggable(error),
      });
    }
  }

  #tell(event: LiveEvent): void {
    for (const listener of this.#listeners) listener(event);
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
