import { expect, test } from "@jest/globals";
import { query } from "./db/sql";
import { testDatabase } from "./db/testing";
import { framesOf, loggable } from "./told";

test("a log learns the kind of an error, never the values of a statement", async () => {
  const database = await testDatabase();
  const secret = "Dear Ottoline, your card number is";
  const failed = await query(
    database.orm.em.fork(),
    "insert into teams (name, mailbox, answer_within) values (?, ?, ?)",
    [secret, secret, secret],
  ).catch((error: unknown) => error);
  await database.drop();
  expect(loggable(failed)).toBe("database 22P02");
  expect(framesOf(failed)).not.toContain(secret);
  const unreadable = (() => {
    try {
      return JSON.parse(`{${secret}`) as unknown;
    } catch (error) {
      return error;
    }
  })();
  expect(loggable(unreadable)).toBe("SyntaxError");
  expect(loggable(new Error("one line\nand another"))).toBe("Error: one line");
  expect(loggable(secret)).toBe("something that is no error: string");
});
