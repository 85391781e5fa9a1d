import { readdirSync, readFileSync } from "node:fs";
import { setTimeout as delay } from "node:timers/promises";
import { createTransport } from "nodemailer";
import pg from "pg";
import { z } from "zod";
import { random } from "./measure";
import { signInTo, withProgram, type Program } from "./program";

const PEOPLE = ["maren", "bram", "sunniva", "idris", "nele", "tadeo"].map((name) => `${name}@example.com`);
const PARTS = ["web", "jobs", "standins", "database"] as const;
/** Between two kills: a process needs some seconds to be there again, and letters to be written in between. */
const [SHORTEST_PAUSE_MS, LONGEST_PAUSE_MS] = [3000, 15_000];

/** The process that PostgreSQL's others belong to: the one that was started with the port. */
function postmasterOf(port: string): number | null {
  for (const id of readdirSync("/proc")) {
    if (!/^\d+$/.test(id)) continue;
    try {
      const line = readFileSync(`/proc/${id}/cmdline`, "utf8").split("\0");
      if (line[0]?.endsWith("/postgres") && line.includes("-p") && line[line.indexOf("-p") + 1] === port)
        return Number(id);
    } catch {
      continue; // It has ended meanwhile.
    }
  }
  return null;
}

function kill(program: Program, part: (typeof PARTS)[number]): boolean {
  try {
    const id = part === "database" ? postmasterOf(new URL(program.databaseUrl).port) : program.pid(part);
    if (id === null) return false;
    process.kill(id, "SIGKILL");
    return true;
  } catch {
    return false; // It is dead already.
  }
}

/** Tries until it works or two minutes have passed: whatever is asked may be dead just now. */
async function insist<T>(work: () => Promise<T>): Promise<T> {
  for (const until = Date.now() + 120_000; ;) {
    try {
      return await work();
    } catch (error) {
      if (Date.now() > until) throw error;
      await delay(250);
    }
  }
}

async function inDatabase<Row extends pg.QueryResultRow>(
  program: Program,
  sql: string,
  values: unknown[] = [],
): Promise<Row[]> {
  return insist(async () => {
    const client = new pg.Client({ connectionString: program.databaseUrl, connectionTimeoutMillis: 3000 });
    client.on("error", () => undefined);
    await client.connect();
    try {
      return (await client.query<Row>(sql, values)).rows;
    } finally {
      await client.end();
    }
  });
}

const paragraph = (text: string) => ({
  type: "doc",
  content: [{ type: "paragraph", attrs: { passages: [] }, content: [{ type: "text", text }] }],
});
const opened = z.object({ draft: z.object({ version: z.number() }).nullable(), lastMessage: z.number() });

/** Answers one case: words are saved, saved again, and sent. @returns the words that the server acknowledged last */
async function answer(program: Program, cookie: () => Promise<string>, number: number): Promise<string> {
  const headers = async () => ({
    Cookie: await cookie(),
    "Content-Type": "application/json",
    Accept: "application/json",
    Origin: program.base,
  });
  let acknowledged = "";
  for (const words of [`Answer ${number}`, `Answer ${number}, in full.`]) {
    await insist(async () => {
      const open = await fetch(`${program.base}/cases/${number}/opened`, { headers: await headers() });
      const { draft } = opened.parse(await open.json());
      const slips = [{ uid: "s", versionId: null, language: "en", document: paragraph(words), values: {} }];
      const body = {
        draft: { version: draft?.version ?? 0, language: "en", subject: { from: "thread" }, slips },
        text: words,
      };
      const saved = await fetch(`${program.base}/cases/${number}/draft`, {
        method: "POST",
        headers: await headers(),
        body: JSON.stringify(body),
      });
      if (!saved.ok) throw new Error(`saving answered ${saved.status}`);
      acknowledged = words;
    });
  }
  await insist(async () => {
    const open = await fetch(`${program.base}/cases/${number}/opened`, { headers: await headers() });
    const { draft, lastMessage } = opened.parse(await open.json());
    // Sent by a try whose answer never came.
    if (draft === null) return;
    const sent = await fetch(`${program.base}/cases/${number}/send`, {
      method: "POST",
      headers: await headers(),
      body: JSON.stringify({ version: draft.version, lastMessage }),
    });
    if (!sent.ok) throw new Error(`sending answered ${sent.status}`);
  });
  return acknowledged;
}

async function receive(program: Program, from: string, subject: string): Promise<void> {
  await insist(async () => {
    const transport = createTransport({
      host: "127.0.0.1",
      port: program.inboundPort,
      ignoreTLS: true,
      connectionTimeout: 3000,
      socketTimeout: 10_000,
    });
    try {
      await transport.sendMail({
        from: `Somebody <${from}>`,
        to: "desk@example.com",
        subject,
        text: "When does the first boat sail?",
        messageId: `<${from}>`,
      });
    } finally {
      transport.close();
    }
  });
}

const delivered = z.array(z.object({ messageId: z.string().nullable() }));

/** Letters while the program's parts are killed at random; the same ones in every run of a seed. */
export function benchFaults(): Promise<object> {
  const letters = Number(process.env.FAULTS_LETTERS ?? 1000);
  const seed = Number(process.env.FAULTS_SEED ?? 7);
  return withProgram(async (program) => {
    const next = random(seed);
    const killed: Record<string, number> = {};
    let going = true;
    const killing = (async () => {
      while (going) {
        await delay(SHORTEST_PAUSE_MS + next() * (LONGEST_PAUSE_MS - SHORTEST_PAUSE_MS));
        const part = PARTS[Math.floor(next() * PARTS.length)] ?? "web";
        if (going && kill(program, part)) killed[part] = (killed[part] ?? 0) + 1;
      }
    })();
    const cookies = new Map<string, string>();
    const words = new Map<number, string>();
    const work = Array.from({ length: letters }, (_, index) => index);
    const agents = PEOPLE.map(async (email) => {
      for (let index = work.shift(); index !== undefined; index = work.shift()) {
        const from = `letter${index}@example.net`;
        await receive(program, from, `letter ${index}`);
        const [row] = await inDatabase<{ number: number }>(
          program,
          "select c.number from cases c join messages m on m.case_id = c.id where m.from_address = $1 limit 1",
          [from],
        );
        if (!row) throw new Error(`The message of ${from} was acknowledged and is not there`);
        const cookie = async () => {
          const known = cookies.get(email) ?? (await insist(() => signInTo(program, email)));
          cookies.set(email, known);
          return known;
        };
        words.set(row.number, await answer(program, cookie, row.number));
      }
    });
    await Promise.all(agents);
    going = false;
    await killing;
    const numbers = [...words.keys()];
    const sql = `select c.number, m.message_id, m.to_address, m.state, m.text from messages m join cases c on c.id = m.case_id
      where c.number = any($1) and m.direction = 'out' and m.state <> 'called back'`;
    interface Sent {
      number: number;
      message_id: string;
      to_address: string;
      state: string;
      text: string;
    }
    let sent = await inDatabase<Sent>(program, sql, [numbers]);
    for (
      const until = Date.now() + 180_000;
      sent.some((one) => one.state !== "sent") && Date.now() < until;
    ) {
      await delay(1000);
      sent = await inDatabase<Sent>(program, sql, [numbers]);
    }
    let [arrived, doubled, lost] = [0, 0, 0];
    for (const { message_id: id, to_address: to } of sent) {
      const mails = await insist(async () =>
        delivered.parse(
          await (await fetch(`${program.standins}/mailboxes/${encodeURIComponent(to)}`)).json(),
        ),
      );
      const copies = mails.filter((mail) => mail.messageId === id).length;
      if (copies > 0) arrived += 1;
      else lost += 1;
      if (copies > 1) doubled += 1;
    }
    const wordsLost = numbers.filter(
      (number) => !sent.some((one) => one.number === number && one.text.includes(words.get(number) ?? "")),
    ).length;
    return {
      bench: "faults",
      seed,
      letters,
      killed,
      sent: sent.length,
      delivered: arrived,
      doubled,
      lost: lost + (letters - sent.length),
      acknowledgedWordsLost: wordsLost,
    };
  });
}
