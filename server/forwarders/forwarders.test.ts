import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import type { ForwarderInput } from "#core/forms/forwarder";
import { readOpenCase } from "../answering/open";
import { Case } from "../db/entities/cases";
import { CustomerAddress } from "../db/entities/customers";
import { Forwarder, Mailbox } from "../db/entities/mailboxes";
import { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { digestOf } from "../digest";
import { viewerOf, type Viewer } from "../people/viewer";
import { stopReading } from "../reading/pool";
import { acceptMail } from "../receiving/accept";
import { readMail } from "../reading/parse";
import { testHouse, type TestHouse } from "../testing";
import {
  exampleOf,
  listForwarders,
  removeForwarder,
  saveForwarder,
  switchForwarder,
  tryForwarder,
} from "./forwarders";

let house: TestHouse;
let lead: Viewer;
let mailbox: number;
beforeAll(async () => {
  house = await testHouse();
  const em = house.em();
  const maren = await em.findOneOrFail(Person, { email: "maren@example.com" }, { populate: ["team"] });
  lead = { ...viewerOf(maren), role: "lead" };
  mailbox = (await em.findOneOrFail(Mailbox, { address: "desk@example.com" })).id;
});
afterAll(async () => {
  await stopReading();
  await house.close();
});

const now = new Date("2026-11-25T10:00:00Z");

interface Buyer {
  name?: string;
  order?: string;
  deadline?: string;
  text?: string;
}

const words = ({
  name = "Jo Lind",
  order = "QZ-1001",
  deadline = "25 November 2026, 12:30",
  text = "Is there a lift?",
}: Buyer) =>
  `Hello seller,\n\nBuyer: ${name}\nOrder no. ${order}\nPlease answer by ${deadline}\n\nMessage:\n${text}\n\n----\nAnswer this mail to answer the buyer.\n`;

const span = (example: string, of: string) => ({
  from: example.indexOf(of),
  to: example.indexOf(of) + of.length,
});
const example = words({});
const input = (): ForwarderInput => ({
  ...{ name: "Boat Market", mailbox, sender: "@market.example.net", example },
  marks: {
    name: span(example, "Jo Lind"),
    reference: span(example, "QZ-1001"),
    deadline: span(example, "25 November 2026, 12:30"),
    text: span(example, "Is there a lift?"),
  },
  rules: { noLinks: true, noAddresses: true, noNumbers: true, most: 500 },
});

async function take(body: string, replyTo: string | null = null, from = "no-reply@market.example.net") {
  const raw = Buffer.from(
    [
      `From: Boat Market <${from}>`,
      ...(replyTo === null ? [] : [`Reply-To: ${replyTo}`]),
      ...["To: desk@example.com", "Subject: A question about your offer", "", body.replaceAll("\n", "\r\n")],
    ].join("\r\n"),
  );
  const mail = await readMail({ raw, envelopeFrom: null, trusted: [] });
  const filed = { content: raw, sha256: digestOf(raw) };
  return acceptMail(house.em(), mail, filed, ["desk@example.com"], now);
}

const caseOf = (number: number) => readOpenCase(house.em(), house.bram, number, 0, now);
let id: number;
beforeEach(async () => {
  await house.em().nativeDelete(Forwarder, {});
  id = await saveForwarder(house.em(), lead, null, input(), now);
  await switchForwarder(house.em(), lead, id, { on: true, allTheSame: true }, now);
});

test("the case is the buyer's, the answer goes back the forwarder's way, and its deadline counts", async () => {
  const { caseNumber, caseId } = await take(words({}), "jo-77@relay.market.example.net");
  const open = await caseOf(caseNumber);
  expect(open).toMatchObject({
    customer: { name: "Jo Lind" },
    recipient: "jo-77@relay.market.example.net",
    recipients: [{ address: "jo-77@relay.market.example.net", is: "known", news: null }],
    answerBy: "2026-11-25T12:30:00.000Z",
    forwarder: { name: "Boat Market", rules: { noLinks: true, most: 500 } },
    forwarded: { reference: "QZ-1001" },
    signature: null,
    stationery: null,
  });
  expect(open.messages).toMatchObject([
    { written: "Is there a lift?", from: "Jo Lind", stranger: false, doubts: [] },
  ]);
  // A later deadline than ours changes nothing.
  const later = await take(words({ name: "Ana Late", order: "1", deadline: "25 December 2026, 12:00" }));
  expect((await caseOf(later.caseNumber)).answerBy).toBe("2026-11-25T14:00:00.000Z");
  expect((await caseOf(later.caseNumber)).recipient).toBe("no-reply@market.example.net");
  // The same buyer and order again, and another order of theirs.
  const again = await take(words({ text: "And my dog?" }), "jo-77@relay.market.example.net");
  expect(again).toMatchObject({ caseId, opened: false });
  const other = await take(words({ order: "QZ-2" }), "jo-77@relay.market.example.net");
  expect(other.opened).toBe(true);
  const { customer } = await house.em().findOneOrFail(Case, { id: other.caseId });
  expect(customer.id).toBe(open.customer.id);
});

test("two buyers by one address are two customers, and the address is nobody's", async () => {
  const one = await take(words({ name: "Bo One", order: "A-1" }));
  const two = await take(words({ name: "Bo Two", order: "A-2" }));
  const customers = await Promise.all(
    [one, two].map(async (made) => (await caseOf(made.caseNumber)).customer),
  );
  expect(customers.map((customer) => customer.name)).toEqual(["Bo One", "Bo Two"]);
  expect(await house.em().count(CustomerAddress, { address: "no-reply@market.example.net" })).toBe(0);
});

test("one that no longer fits is received as it came, and says so", async () => {
  const { caseNumber } = await take(words({}).replace("Order no.", "Purchase:"));
  const open = await caseOf(caseNumber);
  expect(open.forwarder).toBeNull();
  expect(open.messages[0]?.written).toContain("Purchase: QZ-1001");
  expect(open.messages[0]?.doubts).toEqual([
    { kind: "form", words: expect.stringMatching(/does not fit the form of Boat Market: .*Order no\./) },
  ]);
  const soon = await take(words({ deadline: "soon" }));
  expect((await caseOf(soon.caseNumber)).messages.at(-1)?.doubts[0]?.words).toContain("soon");
});

test("off, of another sender, or to another mailbox, it is mail like any other", async () => {
  const isPlain = async (made: { caseNumber: number }) => (await caseOf(made.caseNumber)).forwarded === null;
  expect(await isPlain(await take(words({ order: "P-1" }), null, "jo@other.example.net"))).toBe(true);
  expect(await isPlain(await take(words({ order: "P-2" }), null, "jo@notmarket.example.net"))).toBe(true);
  await switchForwarder(house.em(), lead, id, { on: false, allTheSame: false }, now);
  expect(await isPlain(await take(words({ order: "P-3" })))).toBe(true);
});

test("it is tried on past mail, whole as it came, and is on only when that fits or is wanted", async () => {
  await take(words({ name: "Tried One", order: "T-1" }));
  await take("Your weekly digest");
  const tried = await tryForwarder(house.em(), lead, id, now);
  expect(tried.slice(0, 2)).toMatchObject([
    { read: null, problem: expect.stringContaining("Buyer") },
    { read: { name: "Tried One", reference: "T-1", text: "Is there a lift?" }, problem: null },
  ]);
  await saveForwarder(house.em(), lead, id, { ...input(), name: "Market" }, now);
  expect((await listForwarders(house.em(), lead)).forwarders).toMatchObject([
    { name: "Market", isOn: false },
  ]);
  await expect(switchForwarder(house.em(), lead, id, { on: true, allTheSame: false }, now)).rejects.toThrow(
    "past messages do",
  );
  await switchForwarder(house.em(), lead, id, { on: true, allTheSame: true }, now);
  expect((await exampleOf(house.em(), lead, "@market.example.net")).text.trim()).toBe("Your weekly digest");
  await expect(exampleOf(house.em(), lead, "@nobody.example.net")).rejects.toThrow("No mail of this sender");
});

test("what cannot be read by its own marks is not kept; only leads may", async () => {
  const wrong = { ...input(), marks: { ...input().marks, text: null } };
  await expect(saveForwarder(house.em(), lead, null, wrong, now)).rejects.toThrow("marked");
  const vague = {
    ...input(),
    example: example.replace("25 November 2026, 12:30", "sometime, surely!!!!!!!!"),
  };
  await expect(saveForwarder(house.em(), lead, null, vague, now)).rejects.toThrow("sometime");
  for (const attempt of [
    () => saveForwarder(house.em(), house.maren, null, input(), now),
    () => tryForwarder(house.em(), house.maren, id, now),
    () => removeForwarder(house.em(), house.maren, id),
    () => exampleOf(house.em(), house.maren, "@market.example.net"),
  ])
    await expect(attempt()).rejects.toThrow("lead");
  await removeForwarder(house.em(), lead, id);
  await expect(removeForwarder(house.em(), lead, id)).rejects.toThrow("no such forwarder");
  expect(await house.em().count(Message, { direction: "in" })).toBeGreaterThan(5);
});
