import type { MikroORM } from "@mikro-orm/postgresql";
import { randomBytes } from "node:crypto";
import pg from "pg";
import { connect, disconnect, migrate } from "./orm";

/** A database of a test's own, migrated, and how to be rid of it. */
export interface TestDatabase {
  url: string;
  orm: MikroORM;
  drop(): Promise<void>;
}

/**
 * Makes a database on the server that TEST_DATABASE_URL names, migrates it and connects this process to it.
 * @throws Error when TEST_DATABASE_URL is not set: `npm test` sets it
 */
export async function testDatabase(): Promise<TestDatabase> {
  const server = process.env.TEST_DATABASE_URL;
  if (!server) throw new Error("TEST_DATABASE_URL is not set; run the tests with npm test");
  const name = `test_${randomBytes(6).toString("hex")}`;
  await admin(server, `create database ${name}`);
  const url = new URL(server);
  url.pathname = `/${name}`;
  const orm = await connect(url.href);
  await migrate(orm);
  return {
    url: url.href,
    orm,
    async drop() {
      await disconnect();
      await admin(server, `drop database ${name} with (force)`);
    },
  };
}

async function admin(server: string, sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: server });
  await client.connect();
  try {
    await client.query(sql);
  } finally {
    await client.end();
  }
}
