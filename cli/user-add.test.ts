import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { spawn } from "node:child_process";
import { z } from "zod";
import { Person } from "#server/db/entities/people";
import { openLink } from "#server/people/links";
import { testHouse, type TestHouse } from "#server/testing";
import { run } from "./run";

let house: TestHouse;
beforeAll(async () => {
  process.env.DATABASE_URL ||= "postgresql://unused.example.com/x";
  house = await testHouse();
});
afterAll(() => house.close());

/** Runs `shelf user add` on the house's database. */
function userAdd(options: string[], environment: Record<string, string> = {}) {
  return new Promise<{ status: number | null; stdout: string; stderr: string }>((resolve) => {
    const child = spawn("node", ["--import", "tsx", "cli/main.ts", "user", ...options], {
      env: {
        ...process.env,
        NODE_OPTIONS: "",
        DATABASE_URL: house.database.url,
        PUBLIC_URL: "https://shelf.example.com",
        ...environment,
      },
    });
    let [stdout, stderr] = ["", ""];
    child.stdout.on("data", (data: Buffer) => (stdout += data.toString()));
    child.stderr.on("data", (data: Buffer) => (stderr += data.toString()));
    child.once("exit", (status) => resolve({ status, stdout, stderr }));
  });
}

const printed = z.strictObject({ id: z.int(), email: z.string(), link: z.url(), expires: z.iso.datetime() });

describe("shelf user add", () => {
  test("adds a person and prints the link by which they choose a password", async () => {
    const { status, stdout, stderr } = await userAdd([
      ...["add", "--name", "Ida Strand", "--email", "Ida@Example.com", "--role", "lead"],
    ]);
    expect([status, stderr]).toEqual([0, ""]);
    const { id, email, link } = printed.parse(JSON.parse(stdout));
    expect(email).toBe("ida@example.com");
    expect(link).toMatch(/^https:\/\/shelf\.example\.com\/welcome\//);
    const person = await house.em().findOneOrFail(Person, { id }, { populate: ["team"] });
    expect(person).toMatchObject({
      firstName: "Ida",
      role: "lead",
      passwordHash: null,
      team: { name: "Desk" },
    });
    const token = link.slice(link.lastIndexOf("/") + 1);
    expect(await openLink(house.em(), token, new Date())).toMatchObject({ name: "Ida Strand" });
  });

  test("refuses an address that is taken and an unknown team, in one line each", async () => {
    const add = (...more: string[]) =>
      userAdd(["add", "--name", "Bo", "--email", "bram@example.com", ...more]);
    expect(await add()).toMatchObject({
      status: 1,
      stdout: "",
      stderr: "shelf: Bram Test signs in with that address already\n",
    });
    expect(await add("--team", "Harbour")).toMatchObject({
      status: 2,
      stderr: "shelf: --team is one of: Desk\n",
    });
  });

  test("refuses wrong use in one line, before it looks for a database", async () => {
    const person = ["user", "add", "--name", "Bo", "--email", "bo@example.com"];
    expect(await run([...person, "--role", "king"])).toEqual({
      status: 2,
      stdout: "",
      stderr: "shelf: --role is one of agent, curator, lead\n",
    });
    expect(await userAdd(["add", "--name", "Bo", "--email", "bo"])).toMatchObject({
      status: 2,
      stderr: "shelf: --email: Write an email address, as in maren@example.com\n",
    });
    expect(await run(["user", "remove"])).toMatchObject({ status: 2 });
  });

  test("says where it looked for the database", async () => {
    const nowhere = { DATABASE_URL: "", DATA_DIR: "/nowhere" };
    expect(await userAdd(["add", "--name", "Bo", "--email", "bo@example.com"], nowhere)).toMatchObject({
      status: 1,
      stderr: expect.stringContaining("/nowhere/database-url"),
    });
  });
});
