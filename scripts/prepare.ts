import { randomBytes } from "node:crypto";
import { join } from "node:path";
import { connect, disconnect, migrate } from "#server/db/orm";
import { House, Person, Team } from "#server/db/entities/people";
import { readEnvironment, type Environment } from "#server/environment";
import { startBoss, useBoss } from "#server/queue/boss";
import { hashPassword } from "#server/people/password";
import { ensureOwnShelf } from "#server/replies/shelves";
import { findBookings } from "../demo/bookings";
import { demoSignIns, seedDemo } from "../demo/seed";

/** Makes the database ready: schema, job queues, and what an empty one begins with. Prints what one signs in with. */

async function beginEmpty(orm: Awaited<ReturnType<typeof connect>>): Promise<string> {
  const password = randomBytes(9).toString("base64url");
  await orm.em.fork().transactional(async (em) => {
    em.create(House, { id: 1, name: "Our house", casePrefix: "C", timeZone: "UTC", language: "en" });
    const team = em.create(Team, {
      name: "Support",
      mailbox: "support@example.com",
      answerWithin: 24 * 60,
    });
    const lead = em.create(Person, {
      email: "lead@example.com",
      passwordHash: await hashPassword(password),
      name: "First Lead",
      firstName: "First",
      title: null,
      department: null,
      phone: null,
      role: "lead",
      timeZone: "UTC",
      team,
      // It is printed where others may read it.
      mustChangePassword: true,
    });
    await em.flush();
    await ensureOwnShelf(em, lead);
  });
  return password;
}

async function prepare(environment: Environment): Promise<void> {
  const orm = await connect(environment.databaseUrl);
  await migrate(orm);
  const boss = await startBoss(environment.databaseUrl, "sender");
  useBoss(boss);
  const empty = (await orm.em.fork().count(House)) === 0;
  if (empty && environment.seed === "demo") {
    const folder = environment.standins.on ? join(environment.dataDir, "standins") : null;
    await orm.em.fork().transactional((em) => seedDemo(em, folder, new Date()));
  } else if (empty) {
    const password = await beginEmpty(orm);
    process.stdout.write(
      `  The database was empty. Sign in as lead@example.com with ${password}: it is shown this once.\n`,
    );
  }
  if (environment.standins.on) await findBookings(orm.em.fork(), environment.standins.url);
  if (environment.seed === "demo") {
    const { people, password } = await demoSignIns();
    const known = new Set((await orm.em.fork().find(Person, {})).map((person) => person.email));
    const lines = people
      .filter((person) => known.has(person.email))
      .map((person) => `    ${person.email.padEnd(22)} ${person.role.padEnd(8)} ${person.name}\n`);
    if (lines.length > 0)
      process.stdout.write(`  Demo sign-ins, all with the password ${password}:\n${lines.join("")}`);
  }
  await boss.stop({ graceful: false });
  await disconnect();
}

const read = readEnvironment(process.env);
if (read.ok) await prepare(read.environment);
else {
  process.stderr.write(`plain-shelf: ${read.problem}\n`);
  process.exitCode = 1;
}
