import type { EntityManager } from "@mikro-orm/postgresql";
import PgBoss from "pg-boss";
import { log } from "../log";

/** The queues and how each is retried. */
export const queues = {
  /** Deliver a letter: `{ message: id }`. */
  send: { retryLimit: 8, retryDelay: 5, retryBackoff: true, expireInSeconds: 90 },
  /** Send somebody the link by which they choose a password: `{ link: id, base: address of the program }`. */
  notice: { retryLimit: 8, retryDelay: 5, retryBackoff: true, expireInSeconds: 90 },
  /** Ask an outside system about a case: `{ case: id }`. */
  "look-up": { retryLimit: 3, retryDelay: 5, retryBackoff: true, expireInSeconds: 60 },
  /** Do what the rules say of a message that has come in: `{ message: id }`. */
  standing: { retryLimit: 8, retryDelay: 2, retryBackoff: true, expireInSeconds: 90 },
  /** Reckon anew by when each waiting case is to be answered: `{}`. */
  "reckon-due": { retryLimit: 3, retryDelay: 5, retryBackoff: true, expireInSeconds: 300 },
} as const;
export type QueueName = keyof typeof queues;

/** Starts pg-boss on a database; the jobs' process also maintains it. @param url postgresql:// address */
export async function startBoss(url: string, role: "worker" | "sender"): Promise<PgBoss> {
  const boss = new PgBoss({
    connectionString: url,
    max: 4,
    supervise: role === "worker",
    schedule: false,
    migrate: true,
    maintenanceIntervalSeconds: 20,
  });
  boss.on("error", (error) => log.error({ event: "job runner error", error: error.message }));
  await boss.start();
  for (const [name, options] of Object.entries(queues)) {
    await boss.createQueue(name, { name, policy: "standard", ...options });
  }
  return boss;
}

let sender: PgBoss | null = null;

/** The job runner that this process queues with. */
export function useBoss(boss: PgBoss): void {
  sender = boss;
}

/**
 * Queues a job in the transaction of an entity manager: the job is there exactly if what it is about is.
 * @param startAfter when it is due at the earliest
 */
export async function queue(
  em: EntityManager,
  name: QueueName,
  data: object,
  startAfter?: Date,
): Promise<void> {
  if (!sender) throw new Error("No job runner was started in this process");
  const db = {
    async executeSql(text: string, values: unknown[]) {
      const transaction = em.getTransactionContext<{
        client: { acquireConnection(): Promise<RawConnection> };
      }>();
      if (!transaction) throw new Error("Jobs are queued inside a transaction");
      const connection = await transaction.client.acquireConnection();
      return connection.query(text, values);
    },
  };
  const id = await sender.send(name, data, { db, ...queues[name], ...(startAfter ? { startAfter } : {}) });
  if (id === null) throw new Error(`The job ${name} was not queued`);
}

/** The driver's connection below a transaction. */
interface RawConnection {
  query(text: string, values: unknown[]): Promise<{ rows: unknown[]; rowCount: number }>;
}
