import { resolve } from "node:path";
import { Piscina } from "piscina";

/** Memory of one reading thread, in MB; what needs more is given up. */
const MEMORY_MB = 384;
const IDLE_MS = 60_000;
/** More that wait to be read are not taken on: their senders keep them. */
const MOST_WAITING = 200;

/** What was to be read took too long, or too much memory. */
export class TooMuch extends Error {}

let pool: Piscina | null = null;

/** The processes run in the program's folder, whose sources the threads read. */
function threads(): Piscina {
  pool ??= new Piscina({
    filename: resolve("server/reading/worker.mjs"),
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: IDLE_MS,
    maxQueue: MOST_WAITING,
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
  });
  return pool;
}

/**
 * Reads something that a stranger wrote in a thread of its own, so that whoever serves is not held up by it.
 * @param what the reader: `mail` (`readMail`) or `html` (`sanitiseMessage`)
 * @param milliseconds how long it may take once it is begun
 * @throws TooMuch when it takes longer, or more memory than a thread has
 */
export async function readApart<Given, Read>(
  what: "mail" | "html",
  given: Given,
  milliseconds: number,
): Promise<Read> {
  const deadline = new AbortController();
  const timer = setTimeout(() => deadline.abort(), milliseconds);
  try {
    return (await threads().run(given, { name: what, signal: deadline.signal })) as Read;
  } catch (error) {
    const code = typeof error === "object" && error !== null && "code" in error ? error.code : null;
    if (deadline.signal.aborted) throw new TooMuch("It takes too long to read");
    if (code === "ERR_WORKER_OUT_OF_MEMORY") throw new TooMuch("It takes too much memory to read");
    throw error;
  } finally {
    clearTimeout(timer);
  }
}

/** Ends the reading threads of this process. */
export async function stopReading(): Promise<void> {
  const running = pool;
  pool = null;
  await running?.destroy();
}
