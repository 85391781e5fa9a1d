import { existsSync, readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import type { EntityManager } from "@mikro-orm/postgresql";
import { reasonOf } from "#core/text/reason";
import { connect, disconnect, entityManager } from "#server/db/orm";
import { environment } from "#server/environment";
import { startBoss, useBoss } from "#server/queue/boss";
import { Failure } from "./failure";

/** What the running program wrote down in its data folder, where it is not set. */
function fromDataFolder(name: string, file: string): void {
  if (process.env[name]) return;
  const path = join(resolve(process.env.DATA_DIR || ".data"), file);
  if (!existsSync(path))
    throw new Failure(`${name} is not set, and ${path} is not there; start the program, or set it`);
  process.env[name] = readFileSync(path, "utf8");
}

/**
 * Works on the program's database: the one of DATABASE_URL, else the program's own, which runs while the program does.
 * @throws Failure where it cannot be reached
 */
export async function withDatabase<T>(work: (em: EntityManager) => Promise<T>): Promise<T> {
  fromDataFolder("DATABASE_URL", "database-url");
  fromDataFolder("SESSION_SECRET", "session-secret");
  const { databaseUrl } = environment();
  const boss = await startBoss(databaseUrl, "sender").catch((error: unknown) => {
    throw new Failure(`The database cannot be reached: ${reasonOf(error)}; start the program first`);
  });
  useBoss(boss);
  try {
    await connect(databaseUrl);
    return await work(await entityManager());
  } finally {
    await boss.stop({ graceful: false });
    await disconnect();
  }
}
