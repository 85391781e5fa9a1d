import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { EntityManager } from "@mikro-orm/postgresql";
import { connect, disconnect, migrate } from "#server/db/orm";
import { startBoss, useBoss } from "#server/queue/boss";
import { seedDemo } from "../demo/seed";
import { ensurePackages, postgres } from "../scripts/debian";
import { startPostgres } from "../scripts/postgres";

/** A PostgreSQL of its own with the demo in it, for as long as a measurement takes. */
export async function onDemoDatabase<Result>(
  work: (em: () => EntityManager, url: string) => Promise<Result>,
  now: Date,
): Promise<Result> {
  ensurePackages([postgres]);
  const folder = mkdtempSync(join(tmpdir(), "plain-shelf-bench-"));
  const server = await startPostgres(join(folder, "postgres"), true);
  try {
    const orm = await connect(server.url);
    await migrate(orm);
    const boss = await startBoss(server.url, "sender");
    useBoss(boss);
    await orm.em.fork().transactional((em) => seedDemo(em, null, now));
    await boss.stop({ graceful: false });
    return await work(() => orm.em.fork(), server.url);
  } finally {
    await disconnect();
    server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
