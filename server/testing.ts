import type { EntityManager } from "@mikro-orm/postgresql";
import { importLibrary } from "./replies/import";
import { readFolder, type TextFile } from "#core/formats/folder";
import { testDatabase, type TestDatabase } from "./db/testing";
import { Case } from "./db/entities/cases";
import { Message } from "./db/entities/messages";
import { Customer, CustomerAddress } from "./db/entities/customers";
import { Reply, UsualReply } from "./db/entities/library";
import { House, Person, Team } from "./db/entities/people";
import { startBoss, useBoss } from "./queue/boss";
import { hashPassword } from "./people/password";
import { viewerOf, type Viewer } from "./people/viewer";
import { stopRankers } from "./ranking/house-ranker";

// What a process must be told; no test reaches either.
process.env.DATABASE_URL ||= "postgresql://unused.example.com/x";
process.env.SESSION_SECRET ||= "x".repeat(32);

/** A small house on a database of its own, for tests of server functions. */
export interface TestHouse {
  database: TestDatabase;
  em(): EntityManager;
  maren: Viewer;
  bram: Viewer;
  close(): Promise<void>;
}

const files: TextFile[] = [
  {
    path: "library.yaml",
    text: "shelves:\n  - { id: all, name: All, mark: A }\nhouse_facts:\n  fee: { label: fee, type: money, value: { amount: 6, currency: EUR } }\n",
  },
  {
    path: "all/hello.md",
    text: "---\nid: hello\ntitle: Hello\npart: opening\n---\nHello {$customer.first_name :text fallback=there},\n",
  },
  {
    path: "all/fee.md",
    text: "---\nid: fee\ntitle: The fee for changing\ntags: [change]\n---\nA change costs {$house.fee}.\n",
  },
  {
    path: "all/late.md",
    text: "---\nid: late\ntitle: Running late\nblanks:\n  hours: { kind: number, label: hours }\n---\nThe ship is {$blank.hours :integer} hours late.\n",
  },
  { path: "all/bye.md", text: "---\nid: bye\ntitle: Bye\npart: closing\n---\nSafe travels,\n" },
];

export async function testHouse(): Promise<TestHouse> {
  const database = await testDatabase();
  const boss = await startBoss(database.url, "sender");
  useBoss(boss);
  const em = database.orm.em.fork();
  em.create(House, { id: 1, name: "Test Ferries", casePrefix: "SF", timeZone: "UTC", language: "en" });
  const team = em.create(Team, {
    name: "Desk",
    mailbox: "desk@example.com",
    answerWithin: 240,
  });
  const passwordHash = await hashPassword("kittiwake");
  const person = (first: string, role: "agent" | "curator") =>
    em.create(Person, {
      email: `${first.toLowerCase()}@example.com`,
      passwordHash,
      name: `${first} Test`,
      firstName: first,
      title: null,
      department: null,
      phone: null,
      role,
      timeZone: "UTC",
      team,
    });
  const [maren, bram] = [person("Maren", "curator"), person("Bram", "agent")];
  const { library } = readFolder(files);
  await importLibrary(
    em,
    library,
    () => Promise.reject(new Error("no files here")),
    new Date("2026-01-01T00:00:00Z"),
  );
  await em.flush();
  for (const [part, key] of [
    ["opening", "hello"],
    ["closing", "bye"],
  ] as const)
    em.create(UsualReply, { team, channel: "email", part, reply: await em.findOneOrFail(Reply, { key }) });
  await em.flush();
  return {
    database,
    em: () => database.orm.em.fork(),
    maren: viewerOf(maren),
    bram: viewerOf(bram),
    async close() {
      await boss.stop({ graceful: false });
      await stopRankers();
      await database.drop();
    },
  };
}

/** The id of the version of a reply that is on the shelf. */
export async function testVersion(em: EntityManager, key: string): Promise<number> {
  const { currentVersionId } = await em.findOneOrFail(Reply, { key });
  if (currentVersionId == null) throw new Error(`${key} has no version`);
  return currentVersionId;
}

/** Asks again until what was committed has been heard of; the test's time is the limit. @returns the answer that holds */
export async function eventually<Answer>(
  ask: () => Promise<Answer>,
  holds: (answer: Answer) => boolean,
): Promise<Answer> {
  for (;;) {
    const answer = await ask();
    if (holds(answer)) return answer;
    await new Promise((resolve) => setImmediate(resolve));
  }
}

let made = 0;

/** A case of a new customer with one inbound message. @returns the case's number and the message's id */
export async function testCase(
  em: EntityManager,
  words = "do i get my money back",
  given: Partial<Pick<Message, "fromAddress" | "kind" | "envelope" | "at" | "language">> = {},
): Promise<{ number: number; id: number; message: number; address: string }> {
  made += 1;
  const at = new Date("2026-11-25T09:00:00Z");
  const team = await em.findOneOrFail(Team, { name: "Desk" });
  const customer = em.create(Customer, {
    firstName: "Ana",
    lastName: `Number${made}`,
    displayName: `Ana Number${made}`,
    nameKey: `ana number${made}`,
    language: "en",
    timeZone: null,
    phone: null,
    since: null,
    organisation: null,
  });
  const address = `ana${made}@example.org`;
  em.create(CustomerAddress, { channel: "email", address, customer });
  const subject = em.create(Case, {
    number: 90_000 + made,
    channel: "email",
    subject: `boat ${made}`,
    topic: null,
    language: "en",
    status: "new",
    customer,
    team,
    assignee: null,
    bookingReference: null,
    openedAt: at,
    updatedAt: at,
    waitingSince: at,
    answerBy: new Date("2026-11-25T13:00:00Z"),
    details: {},
  });
  const message = em.create(Message, {
    case: subject,
    direction: "in",
    channel: "email",
    state: "received",
    fromName: customer.displayName,
    fromAddress: address,
    toAddress: "desk@example.com",
    subject: subject.subject,
    text: words,
    html: null,
    language: "en",
    messageId: `<in-${made}@example.org>`,
    person: null,
    at,
    ...given,
  });
  await em.flush();
  return { number: subject.number, id: subject.id, message: message.id, address };
}
