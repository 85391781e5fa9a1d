import { setTimeout as delay } from "node:timers/promises";
import pg from "pg";

const PAUSE_MS = 250;
/** Nobody listens yet or any more, or the server is starting or stopping (PostgreSQL's errors of class 57). */
const PASSING = new Set(["ECONNREFUSED", "ENOENT", "ECONNRESET", "EPIPE", "57P01", "57P02", "57P03"]);

/**
 * Waits until a database takes connections: it may be starting just now.
 * @param url postgresql:// address
 * @param say told the error’s code once, when there is something to wait for
 * @throws what keeps it from ever taking them, as a wrong password
 */
export async function databaseReady(url: string, say: (problem: string) => void): Promise<void> {
  for (let tries = 0; ; tries += 1) {
    const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 5000 });
    // An error after it has answered, while it is closed, changes nothing.
    client.on("error", () => undefined);
    try {
      await client.connect();
      await client.end();
      return;
    } catch (error) {
      const code = typeof error === "object" && error !== null && "code" in error ? String(error.code) : "";
      if (!PASSING.has(code)) throw error;
      if (tries === 0) say(code);
      await delay(PAUSE_MS);
    }
  }
}
