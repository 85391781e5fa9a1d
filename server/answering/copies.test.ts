import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { noCopies, type Copies } from "#core/mail/copies";
import { readMarkdown } from "#core/formats/markdown";
import { CustomerAddress, Organisation, Customer } from "../db/entities/customers";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { testCase, testHouse, type TestHouse } from "../testing";
import { draftSchema, saveDraft } from "./draft";
import { readOpenCase } from "./open";
import { findPeople } from "./people";
import { callBack } from "./call-back";
import { send } from "./send";

const now = new Date("2026-11-25T10:00:00Z");
let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());

const slips = [{ uid: "s", versionId: null, language: "en", document: readMarkdown("Yes.").doc, values: {} }];
async function drafted(copies: Copies) {
  const made = await testCase(house.em());
  const draft = {
    version: 0,
    language: "en",
    subject: { from: "thread" as const },
    slips,
    files: [],
    copies,
  };
  await saveDraft(house.em(), house.maren, made.number, draft, now);
  return made;
}
const sending = (number: number, message: number) =>
  send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now);

describe("whom a letter goes to besides", () => {
  const copies = {
    ...noCopies,
    cc: ["bram@example.com", "stranger@example.net"],
    bcc: ["maren@example.com"],
  };

  test("is kept with the draft and the letter, and comes back when that is called back", async () => {
    const { number, message } = await drafted(copies);
    expect((await readOpenCase(house.em(), house.maren, number, 0, now)).draft?.copies).toEqual(copies);
    const sent = await sending(number, message);
    if (!sent.ok) throw new Error(JSON.stringify(sent.checks));
    expect((await house.em().findOneOrFail(Message, { id: sent.message })).copies).toEqual(copies);
    await callBack(house.em(), house.maren, sent.message, now);
    expect((await readOpenCase(house.em(), house.maren, number, 0, now)).draft?.copies).toEqual(copies);
  });

  test("is told where it is somebody new: neither of ours, nor the customer’s, nor known from the case", async () => {
    const { number, id, address } = await drafted(copies);
    const em = house.em();
    const subject = await em.findOneOrFail(Case, { id }, { populate: ["customer"] });
    const organisation = em.create(Organisation, {
      name: "Wharf",
      nameKey: "wharf",
      kind: null,
      account: null,
      contractUntil: null,
    });
    subject.customer.organisation = organisation;
    const colleague = em.create(Customer, {
      displayName: "Ola",
      firstName: "Ola",
      lastName: null,
      nameKey: null,
      language: null,
      timeZone: null,
      phone: null,
      since: null,
      organisation,
    });
    em.create(CustomerAddress, { channel: "email", address: "ola@example.org", customer: colleague });
    await em.flush();
    const { familiar, ours } = await readOpenCase(house.em(), house.maren, number, 0, now);
    expect(familiar).toEqual(
      expect.arrayContaining(["bram@example.com", address, "ola@example.org", "desk@example.com"]),
    );
    expect(familiar).not.toContain("stranger@example.net");
    expect(ours).toEqual(["desk@example.com"]);
  });

  test("takes addresses alone", () => {
    const draft = { version: 0, language: "en", subject: { from: "thread" }, slips: [] };
    expect(draftSchema.safeParse({ ...draft, copies }).success).toBe(true);
    expect(draftSchema.safeParse({ ...draft, copies: { cc: ["x"] } }).success).toBe(false);
  });
});

test("people are found by their names, addresses and organisations, colleagues first", async () => {
  expect((await findPeople(house.em(), "bram")).map((one) => [one.address, one.is, one.of])).toEqual([
    ["bram@example.com", "colleague", "Desk"],
  ]);
  expect(await findPeople(house.em(), "wharf")).toMatchObject([
    { is: "customer", of: "Wharf" },
    { address: "ola@example.org", name: "Ola" },
  ]);
  expect(await findPeople(house.em(), "%")).toEqual([]);
  expect(await findPeople(house.em(), "  ")).toEqual([]);
});
