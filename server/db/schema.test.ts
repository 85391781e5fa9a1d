import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { migrate } from "./orm";
import { testDatabase, type TestDatabase } from "./testing";

let database: TestDatabase;
beforeAll(async () => {
  database = await testDatabase();
});
afterAll(() => database.drop());

test("the migrations make the schema that the entities describe", async () => {
  const difference = await database.orm.getSchemaGenerator().getUpdateSchemaSQL({ wrap: false });
  expect(difference.trim()).toBe("");
});

test("migrating again changes nothing, even from several processes at once", async () => {
  await Promise.all([migrate(database.orm), migrate(database.orm)]);
  expect(await database.orm.getMigrator().getPendingMigrations()).toEqual([]);
});

test("the database itself refuses what would be inconsistent", async () => {
  const em = database.orm.em.fork();
  const run = (sql: string) => em.execute(sql);
  await run(
    "insert into teams (id, name, mailbox, answer_within) values (99, 'Desk', 'desk@example.com', 240)",
  );
  await expect(
    run("insert into teams (name, mailbox, answer_within) values ('Other', 'desk@example.com', 240)"),
  ).rejects.toThrow(/teams_mailbox_unique/);
  await expect(run("insert into signatures (document) values ('{}')")).rejects.toThrow(/signatures_of_one/);
  await expect(
    run(
      "insert into people (email, name, first_name, role, time_zone, team_id) values ('a@example.com', 'A', 'A', 'boss', 'UTC', 99)",
    ),
  ).rejects.toThrow(/role/);
});
