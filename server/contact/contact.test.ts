import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import express from "express";
import type { Server } from "node:http";
import { nameOfField, ownFields as names, type ContactFormInput } from "#core/forms/contact";
import { openForm, firstForm, listForms, removeForm, saveForm, saveOrigins } from "./forms";
import { contactFromElsewhere } from "./elsewhere";
import { openedAt, submitForm, type FormProblems } from "./submit";
import { Attachment } from "../db/entities/answering";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Team } from "../db/entities/people";
import { testHouse, type TestHouse } from "../testing";

const now = new Date("2026-11-25T10:00:00Z");
let house: TestHouse;
const lead = () => ({ ...house.maren, role: "lead" as const });
let base: ContactFormInput;
let address = 0;

beforeAll(async () => {
  house = await testHouse();
  const [team] = await house.em().find(Team, {});
  base = {
    key: "contact",
    title: "Write to us",
    intro: "",
    team: team?.id ?? 0,
    topics: ["A refund", "Something else"],
    fields: [
      { label: "Harbour", kind: "choice", required: true, options: ["Osmer Quay", "Tarn Head"] },
      { label: "Day", kind: "date", required: false, options: [] },
    ],
    asksBooking: true,
    takesFiles: true,
    thanks: "Thank you.",
    firstMail: "Hello {$customer.first_name :text fallback=there}, your number is **{$case.number}**.",
    isOn: true,
  };
  await saveForm(house.em(), lead(), null, base);
});
afterAll(() => house.close());

function filled(changes: Record<string, string | File> = {}): FormData {
  const form = new FormData();
  const said = {
    [names.email]: "Ana@Example.org",
    [names.name]: "Ana Brandt",
    [names.booking]: "qw7-k2m",
    [names.topic]: "A refund",
    [names.message]: "Do I get my money back?",
    [nameOfField(0)]: "Tarn Head",
    [names.opened]: openedAt(new Date(now.getTime() - 10_000)),
    ...changes,
  };
  for (const [name, value] of Object.entries(said)) form.append(name, value);
  return form;
}

async function submit(changes: Record<string, string | File> = {}, at = now, from = `10.0.0.${++address}`) {
  const form = await openForm(house.em(), "contact");
  return submitForm(house.em(), form, filled(changes), { address: from, fromElsewhere: false, now: at });
}
const problemsOf = async (changes: Record<string, string | File>): Promise<FormProblems> => {
  const done = await submit(changes);
  return done.ok ? {} : done.problems;
};

describe("a form that was filled in", () => {
  test("is a case of its team by mail, with what was asked and its files, and its first mail goes out", async () => {
    const done = await submit({ [names.files]: new File(["%PDF-1.4 x"], "ticket.pdf") });
    if (!done.ok) throw new Error(JSON.stringify(done.problems));
    const number = Number(done.caseNumber.split("-")[1]);
    const subject = await house.em().findOneOrFail(Case, { number }, { populate: ["customer"] });
    expect(subject).toMatchObject({
      channel: "email",
      status: "new",
      topic: "A refund",
      subject: "A refund",
      customer: { firstName: "Ana", lastName: "Brandt" },
    });
    const [inbound, first] = await house.em().find(Message, { case: subject }, { orderBy: { id: "asc" } });
    expect(inbound).toMatchObject({
      direction: "in",
      fromAddress: "ana@example.org",
      text: "Do I get my money back?\n\nBooking reference: QW7-K2M\nHarbour: Tarn Head",
      doubts: [{ kind: "form" }],
    });
    const [file] = await house.em().find(Attachment, { message: inbound?.id ?? 0 });
    expect(file).toMatchObject({ name: "ticket.pdf", contentType: "application/pdf" });
    expect(first).toMatchObject({
      direction: "out",
      kind: "automatic",
      state: "due",
      toAddress: "ana@example.org",
      subject: `Re: A refund [${done.caseNumber}]`,
    });
    expect(first?.text).toBe(`Hello Ana, your number is ${done.caseNumber}.`);
    expect(first?.html).toContain(`<strong>${done.caseNumber}</strong>`);
    // Another one of the same about the same joins it, and gets no second first mail.
    await submit({ [names.message]: "Still nothing." });
    expect(await house.em().count(Message, { case: subject })).toBe(3);
  });

  test.each([
    [{ [names.email]: "ana" }, names.email, /email address/],
    [{ [names.message]: "  " }, names.message, /what it is about/],
    [{ [names.message]: "x".repeat(20_001) }, names.message, /20,000/],
    [{ [names.topic]: "Another" }, names.topic, /one of the list/],
    [{ [nameOfField(0)]: "" }, nameOfField(0), /Fill this in/],
    [{ [nameOfField(0)]: "Atlantis" }, nameOfField(0), /one of the list/],
    [{ [nameOfField(1)]: "soon" }, nameOfField(1), /date/],
    [{ [names.files]: new File([new Uint8Array(20 * 1024 * 1024 + 1)], "x.bin") }, names.files, /20 MB/],
    [{ [names.trap]: "https://example.net" }, "form", /nobody sees/],
    [{ [names.message]: "http://a http://b www.c http://d http://e" }, "form", /4 links/],
    [{ [names.opened]: openedAt(now) }, "form", /fast/],
    [{ [names.opened]: openedAt(new Date(now.getTime() - 25 * 3_600_000)) }, "form", /too long/],
    [{ [names.opened]: `${now.getTime().toString(36)}.${"x".repeat(24)}` }, "form", /too long/],
    [{ [names.opened]: "" }, "form", /too long/],
  ])("%j is told at its field, and is no case", async (changes, field, problem) => {
    const before = await house.em().count(Message);
    expect(await problemsOf(changes)).toEqual({ [field]: expect.stringMatching(problem) as unknown });
    expect(await house.em().count(Message)).toBe(before);
  });

  test("again and again from one address is slowed down", async () => {
    const outcomes = [];
    for (let count = 0; count < 10; count += 1)
      outcomes.push((await submit({ [names.email]: `n${count}@example.org` }, now, "10.9.9.9")).ok);
    expect(outcomes.filter((ok) => ok)).toHaveLength(8);
  });
});

describe("forms", () => {
  test("are kept by leads, each under an address of its own, and can be switched off", async () => {
    await expect(saveForm(house.em(), house.maren, null, base)).rejects.toThrow();
    await expect(saveForm(house.em(), lead(), null, base)).rejects.toThrow(/Another form/);
    const other = { ...base, key: "lost" };
    const choice = { label: "Which", kind: "choice" as const, required: false, options: [] };
    await expect(saveForm(house.em(), lead(), null, { ...other, fields: [choice] })).rejects.toThrow(
      /choose from/,
    );
    const twice = { label: "A", kind: "text" as const, required: false, options: [] };
    await expect(
      saveForm(house.em(), lead(), null, { ...other, fields: [twice, { ...twice, label: "a" }] }),
    ).rejects.toThrow(/called the same/);
    const id = await saveForm(house.em(), lead(), null, other);
    expect(await firstForm(house.em())).toBe("contact");
    await saveForm(house.em(), lead(), id, { ...other, isOn: false });
    await expect(openForm(house.em(), "lost")).rejects.toThrow(/no such form/);
    expect((await listForms(house.em(), lead())).forms.map((one) => one.key)).toEqual(["contact", "lost"]);
    await removeForm(house.em(), lead(), id);
    await expect(removeForm(house.em(), lead(), id)).rejects.toThrow(/no such form/);
  });
});

describe("on another site’s page", () => {
  let server: Server;
  let url = "";
  beforeAll(async () => {
    await saveOrigins(house.em(), lead(), ["https://www.example.com/contact", "https://www.example.com"]);
    const app = express();
    app.use(
      /^\/contact\/([a-z0-9-]{1,40})$/,
      contactFromElsewhere(() => house.em()),
    );
    app.use((_request, response) => void response.status(418).end());
    server = app.listen(0, "127.0.0.1");
    await new Promise((resolve) => server.once("listening", resolve));
    const at = server.address();
    url = `http://127.0.0.1:${at !== null && typeof at === "object" ? at.port : 0}/contact`;
  });
  afterAll(() => void server.close());
  const post = (headers: Record<string, string>, changes = {}, key = "contact", method = "POST") =>
    fetch(`${url}/${key}`, {
      method,
      redirect: "manual",
      headers,
      ...(method === "POST" ? { body: filled({ [names.opened]: "", ...changes }) } : {}),
    });
  const ours = { Origin: "https://www.example.com" };

  test("a form is taken where the house lets it stand, by its page or by a script", async () => {
    expect((await listForms(house.em(), lead())).origins).toEqual(["https://www.example.com"]);
    const asked = await post(ours, {}, "contact", "OPTIONS");
    expect([asked.status, asked.headers.get("access-control-allow-origin")]).toEqual([204, ours.Origin]);
    const page = await post(ours, { [names.email]: "p@example.org" });
    expect([page.status, page.headers.get("location")]).toEqual([
      303,
      expect.stringMatching(/^\/contact\/contact\?sent=SF-\d+$/) as unknown,
    ]);
    const script = await post({ ...ours, Accept: "application/json" }, { [names.email]: "s@example.org" });
    expect(await script.json()).toEqual({
      case: expect.stringMatching(/^SF-/) as unknown,
      thanks: "Thank you.",
    });
  });

  test("what is wrong is told, others’ pages are let pass to be refused", async () => {
    const page = await post(ours, { [names.email]: "x" });
    expect([page.status, await page.text()]).toEqual([
      400,
      expect.stringMatching(/email address[^]*Go back/) as unknown,
    ]);
    const script = await post({ ...ours, Accept: "application/json" }, { [names.email]: "x" });
    expect([script.status, Object.keys(((await script.json()) as { problems: object }).problems)]).toEqual([
      400,
      [names.email],
    ]);
    expect((await post(ours, {}, "nowhere")).status).toBe(404);
    expect((await post({ Origin: "https://other.example.net" })).status).toBe(418);
    expect((await post({})).status).toBe(418);
    await expect(saveOrigins(house.em(), lead(), ["ftp://x"])).rejects.toThrow(/no site/);
  });
});
