import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import { query } from "../db/sql";
import { ownTokens, settingsOf, stationeryOf } from "./settings";
import { NotAllowed, NotFound, Unusable } from "../errors";
import { readOwn, saveOwn } from "../people/account";
import { Person } from "../db/entities/people";
import type { Viewer } from "../people/viewer";
import { uploadFile } from "../replies/uploads";
import { testCase, testHouse, type TestHouse } from "../testing";
import { addFact, describeFact, dropPlanned, factUses, listFacts, openFact, setFact } from "./facts";
import type { NewField } from "#core/forms/house";
import { addField, listFields, removeField } from "../fields/fields";
import { ownContext } from "./own-context";
import { lackingDetails, readSignatures, saveSignature } from "./signatures";
import type { StationeryInput } from "#core/forms/papers";
import { allStationery, saveStationery } from "./stationery";
import { setUsual, usualReplies } from "./usual";
import { listWriters } from "./writers";
import { startOfDay } from "./zone";
import { readHouse, saveHouse } from "./house";
import { doStep, nextStep, readSteps, skipStep } from "./steps";

let house: TestHouse;
let lead: Viewer;
beforeAll(async () => {
  house = await testHouse();
  lead = { ...house.maren, role: "lead" };
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");
const em = () => house.em();
const doc = (markdown: string) => readMarkdown(markdown).doc;

/** A value in one language. */
const only = (value: unknown) => ({ value, texts: {} });

describe("house facts", () => {
  test("hold from now or from the beginning of a day, and keep what they were", async () => {
    const before = await openFact(em(), house.maren, "fee", now);
    expect(before.fact).toMatchObject({ value: { amount: 6, currency: "EUR" }, next: null, uses: 1 });
    await setFact(em(), house.maren, "fee", only({ amount: "7.50", currency: "eur" }), "2026-12-01", now);
    const planned = await openFact(em(), house.maren, "fee", now);
    expect(planned.fact.value).toEqual({ amount: 6, currency: "EUR" });
    expect(planned.fact.next).toEqual({
      value: { amount: 7.5, currency: "EUR" },
      from: "2026-12-01T00:00:00.000Z",
    });
    expect(planned.values.map((one) => [one.state, one.by])).toEqual([
      ["planned", "Maren Test"],
      ["now", null],
    ]);
    // What letters print follows by itself when the day has come.
    expect((await ownTokens(em(), new Date("2026-11-30T23:59:59Z"))).facts.fee).toMatchObject({ amount: 6 });
    expect((await ownTokens(em(), new Date("2026-12-01T00:00:00Z"))).facts.fee).toMatchObject({
      amount: 7.5,
    });
    const later = await openFact(em(), house.maren, "fee", new Date("2026-12-02T00:00:00Z"));
    expect(later.values.map((one) => one.state)).toEqual(["now", "past"]);
    const [plan] = planned.values;
    await expect(
      dropPlanned(em(), house.maren, "fee", plan?.id ?? 0, new Date("2026-12-02T00:00:00Z")),
    ).rejects.toThrow(Unusable);
    await dropPlanned(em(), house.maren, "fee", plan?.id ?? 0, now);
    expect((await openFact(em(), house.maren, "fee", now)).fact.next).toBeNull();
  });

  test("are changed by those who may, to values of their kind", async () => {
    await expect(
      setFact(em(), house.bram, "fee", only({ amount: 1, currency: "EUR" }), null, now),
    ).rejects.toThrow("changed by a curator");
    await expect(describeFact(em(), house.bram, "fee", { label: "x", changedBy: "agent" })).rejects.toThrow(
      NotAllowed,
    );
    await describeFact(em(), house.maren, "fee", { label: "fee", changedBy: "agent" });
    await setFact(em(), house.bram, "fee", only({ amount: 8, currency: "EUR" }), null, now);
    expect((await openFact(em(), house.bram, "fee", now)).fact.value).toEqual({ amount: 8, currency: "EUR" });
    for (const bad of ["eight", { amount: "much", currency: "EUR" }, { amount: 1, currency: "EURO" }, null])
      await expect(setFact(em(), house.maren, "fee", only(bad), null, now)).rejects.toThrow(Unusable);
    await expect(
      setFact(em(), house.maren, "fee", only({ amount: 1, currency: "EUR" }), "2026-11-25", now),
    ).rejects.toThrow("has begun");
    await expect(setFact(em(), house.maren, "nothing", only("x"), null, now)).rejects.toThrow(NotFound);
  });

  test("are added under a name of their own, and refused with what is wrong", async () => {
    const add = (label: string, type: "link" | "date" | "text", value: unknown) =>
      addFact(em(), house.maren, { label, type, value, changedBy: "curator" }, now);
    expect(await add("Fähre, Auskunft!", "link", "https://example.org/hilfe")).toBe("fahre_auskunft");
    expect(await add("Fee", "text", "six")).toBe("fee_2");
    // The house's own name is a value of every house.
    expect(await add("Name", "text", "x")).toBe("name_2");
    await expect(add("page", "link", "javascript:alert(1)")).rejects.toThrow("Write an address");
    await expect(add("day", "date", "2026-02-30")).rejects.toThrow("Write a date");
    await expect(
      addFact(em(), house.bram, { label: "x", type: "text", value: "x", changedBy: "agent" }, now),
    ).rejects.toThrow(NotAllowed);
    expect((await listFacts(em(), house.bram, now)).map((fact) => fact.key)).not.toContain("day");
  });

  test("show before a change how replies, signatures and stationery will read", async () => {
    await saveSignature(em(), lead, lead.teamId, doc("{$agent.name}, changes cost {$house.fee}"));
    const uses = await factUses(em(), house.maren, "fee", only({ amount: 9, currency: "EUR" }), now);
    expect(uses.map((use) => [use.key, use.title])).toEqual([
      ["fee", "The fee for changing"],
      [null, "Signature of Desk"],
    ]);
    const side = (which: "added" | "removed", at: number) =>
      (uses[at]?.words ?? [])
        .filter((piece) => piece.kind === "same" || piece.kind === which)
        .map((piece) => piece.text)
        .join("");
    expect(side("removed", 0)).toBe("A change costs €8.00.");
    expect(side("added", 0)).toBe("A change costs €9.00.");
    expect(side("added", 1)).toContain("changes cost €9.00");
    await expect(factUses(em(), house.maren, "fee", only("nine"), now)).rejects.toThrow(Unusable);
    expect(await listFacts(em(), house.maren, now)).toContainEqual(
      expect.objectContaining({ key: "fee", uses: 1, papers: 1 }),
    );
    await saveSignature(em(), lead, lead.teamId, null);
  });

  test("that are words read in each language of the house, in letters too", async () => {
    const key = await addFact(
      em(),
      house.maren,
      { label: "hours", type: "text", value: "from seven", changedBy: "curator" },
      now,
    );
    const written = async () => (await ownTokens(em(), now)).written;
    // What the house writes in first is what a new text is in.
    expect(await written()).toMatchObject({ "house.hours": { language: "en", others: {} } });
    const texts = { de: " ab sieben ", fr: "", en: "not another one of its own" };
    await setFact(em(), house.maren, key, { value: "from seven", texts }, null, now);
    expect((await written())["house.hours"]).toEqual({
      language: "en",
      others: { de: " ab sieben ".trim() },
    });
    const { fact, values } = await openFact(em(), house.maren, key, now);
    expect(fact).toMatchObject({ language: "en", texts: { de: "ab sieben" } });
    expect(values[0]).toMatchObject({ value: "from seven", texts: { de: "ab sieben" } });
    await describeFact(em(), house.maren, key, { label: "hours", changedBy: "curator", language: null });
    expect((await written())["house.hours"]?.language).toBeNull();
    // An amount is no words: it has no language to say.
    await describeFact(em(), house.maren, "fee", { label: "fee", changedBy: "agent", language: "en" });
    expect(await written()).not.toHaveProperty("house.fee");
    expect((await openFact(em(), house.maren, "fee", now)).fact.language).toBeNull();
  });

  test("show before a change how each language of what uses them will read", async () => {
    const german = doc("Offen {$house.hours}");
    await saveSignature(em(), lead, lead.teamId, doc("Open {$house.hours}"));
    await saveSignature(em(), lead, lead.teamId, german, "de");
    await describeFact(em(), house.maren, "hours", { label: "hours", changedBy: "curator", language: "en" });
    const next = { value: "from six", texts: { de: "ab sechs" } };
    const uses = await factUses(em(), house.maren, "hours", next, now);
    const after = uses.map((use) => [
      use.language,
      use.words.flatMap((piece) => (piece.kind === "removed" ? [] : [piece.text])).join(""),
    ]);
    expect(after).toEqual([
      ["de", "Offen ab sechs"],
      ["en", "Open from six"],
    ]);
    await saveSignature(em(), lead, lead.teamId, null);
  });

  test("days begin where the house is, over the change of clocks too", () => {
    expect(startOfDay("2026-12-01", "Europe/Berlin").toISOString()).toBe("2026-11-30T23:00:00.000Z");
    expect(startOfDay("2026-03-29", "Europe/Berlin").toISOString()).toBe("2026-03-28T23:00:00.000Z");
    expect(startOfDay("2026-10-26", "Europe/Berlin").toISOString()).toBe("2026-10-25T23:00:00.000Z");
    expect(startOfDay("2026-07-01", "America/St_Johns").toISOString()).toBe("2026-07-01T02:30:00.000Z");
  });
});

describe("signatures", () => {
  test("are each person's own; a team's is imposed by leads alone", async () => {
    await saveSignature(em(), house.bram, null, doc("{$agent.first_name}, {$agent.phone}"));
    expect(await readSignatures(em(), house.maren)).toMatchObject({ own: null });
    expect((await readSignatures(em(), house.bram)).own).not.toBeNull();
    await expect(saveSignature(em(), house.maren, lead.teamId, doc("x"))).rejects.toThrow(NotAllowed);
    await expect(saveSignature(em(), lead, 999, doc("x"))).rejects.toThrow(NotFound);
    // An empty one is none.
    await saveSignature(em(), house.maren, null, doc("Maren"));
    await saveSignature(em(), house.maren, null, doc(""));
    expect((await readSignatures(em(), house.maren)).own).toBeNull();
  });

  test("have a text for each language, after the first; without that there is none", async () => {
    const own = async () => (await readSignatures(em(), house.maren)).own;
    await expect(saveSignature(em(), house.maren, null, doc("Grüße"), "de")).rejects.toThrow(
      "Write it in English first",
    );
    await saveSignature(em(), house.maren, null, doc("Regards"), "en");
    await saveSignature(em(), house.maren, null, doc("Grüße"), "de");
    expect(await own()).toEqual({ language: "en", text: doc("Regards"), others: { de: doc("Grüße") } });
    expect((await settingsOf(em())).signatures.ofPerson.get(house.maren.id)?.others).toEqual({
      de: doc("Grüße"),
    });
    await saveSignature(em(), house.maren, null, doc(""), "de");
    expect((await own())?.others).toEqual({});
    await saveSignature(em(), house.maren, null, doc("Grüße"), "de");
    await saveSignature(em(), house.maren, null, null, "en");
    expect(await own()).toBeNull();
  });

  test("are known with those whose letters they stand in: everybody’s to curators, one’s own to agents", async () => {
    const all = await listWriters(em(), house.maren);
    expect(all.map((one) => [one.name, one.signs, one.lacks.includes("phone")])).toEqual([
      ["Bram Test", true, true],
      ["Maren Test", false, true],
    ]);
    expect(all.every((one) => one.teams.includes(house.maren.teamId))).toBe(true);
    expect((await listWriters(em(), house.bram)).map((one) => one.name)).toEqual(["Bram Test"]);
  });

  test("say who lacks what they print", async () => {
    const lacks = async () => {
      const people = await em().find(Person, {}, { populate: ["team"], orderBy: { name: "asc" } });
      const found = await lackingDetails(em(), people);
      return Object.fromEntries(people.map((one) => [one.name, found.lacks.get(one.id)]));
    };
    // Bram's own signature prints his phone number; Maren has no signature.
    expect(await lacks()).toEqual({ "Bram Test": ["phone"], "Maren Test": [] });
    await saveSignature(em(), lead, lead.teamId, doc("{$agent.name}, {$agent.department}"));
    expect(await lacks()).toEqual({ "Bram Test": ["department"], "Maren Test": ["department"] });
    await saveOwn(em(), house.bram, { ...(await readOwn(em(), house.bram)), department: "Desk" });
    expect(await lacks()).toEqual({ "Bram Test": [], "Maren Test": ["department"] });
    expect((await ownContext(em(), house.bram, now)).context.agent).toMatchObject({ department: "Desk" });
  });
});

describe("stationery", () => {
  const paper = (changes: Partial<StationeryInput> = {}): StationeryInput => ({
    team: house.maren.teamId,
    name: "Desk",
    header: doc("**{$house.name}**"),
    footer: null,
    accent: "#0d5a45",
    textColour: "#111111",
    background: "#fffff0",
    texts: {},
    logo: null,
    logoAlt: "",
    ...changes,
  });

  test("is kept by curators, with a logo of their own", async () => {
    await expect(saveStationery(em(), house.bram, paper())).rejects.toThrow(NotAllowed);
    await expect(saveStationery(em(), house.maren, paper({ team: 999 }))).rejects.toThrow(NotFound);
    await saveStationery(em(), house.maren, paper());
    expect(await stationeryOf(em(), house.maren.teamId)).toMatchObject({
      background: "#fffff0",
      logo: null,
    });
    const dot = Buffer.from(
      "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==",
      "base64",
    );
    const picture = await uploadFile(
      em(),
      house.maren,
      { name: "logo.png", type: "image/png", content: dot },
      true,
    );
    const text = await uploadFile(
      em(),
      house.maren,
      { name: "a.txt", type: "text/plain", content: Buffer.from("words") },
      false,
    );
    await expect(saveStationery(em(), house.maren, paper({ logo: text.id }))).rejects.toThrow(
      "no picture of yours",
    );
    await expect(
      saveStationery(em(), { ...house.bram, role: "curator" }, paper({ logo: picture.id })),
    ).rejects.toThrow("no picture of yours");
    await saveStationery(em(), house.maren, paper({ logo: picture.id, logoAlt: "A ship" }));
    expect((await allStationery(em()))[0]?.paper?.logo).toEqual({
      id: picture.id,
      name: "logo.png",
      contentType: "image/png",
      size: dot.length,
      alt: "A ship",
    });
    // It stays when the next curator changes something else.
    await saveStationery(em(), { ...house.bram, role: "curator" }, paper({ logo: picture.id, name: "New" }));
    expect((await stationeryOf(em(), house.maren.teamId))?.logo?.id).toBe(picture.id);
  });
});

describe("stationery in several languages", () => {
  test("has header and footer of its own in each, and is kept with them", async () => {
    const texts = { de: { header: doc("Amt"), footer: null } };
    const input = {
      team: house.maren.teamId,
      name: "Desk",
      header: doc("Office"),
      footer: doc("Foot"),
      texts,
    };
    const colours = { accent: "#0d5a45", textColour: "#111111", background: "#fffff0" };
    await saveStationery(em(), house.maren, { ...input, ...colours, logo: null, logoAlt: "" });
    expect(await stationeryOf(em(), house.maren.teamId)).toMatchObject({
      header: { language: "en", text: doc("Office"), others: { de: doc("Amt") } },
      footer: { language: "en", text: doc("Foot"), others: {} },
    });
  });
});

describe("usual openings and closings", () => {
  test("are chosen by curators among what the team can use there", async () => {
    const team = house.maren.teamId;
    const row = async (channel: string, part: string) =>
      (await usualReplies(em())).find((one) => one.channel === channel && one.part === part);
    expect(await row("email", "opening")).toMatchObject({
      chosen: "hello",
      offered: [{ key: "hello", title: "Hello", prints: [] }],
    });
    const emails = { team, channel: "email", part: "opening" } as const;
    await expect(setUsual(em(), house.bram, { ...emails, reply: null })).rejects.toThrow(NotAllowed);
    await expect(setUsual(em(), house.maren, { ...emails, reply: "fee" })).rejects.toThrow(Unusable);
    await expect(setUsual(em(), house.maren, { ...emails, channel: "sms", reply: "hello" })).rejects.toThrow(
      Unusable,
    );
    await setUsual(em(), house.maren, { ...emails, reply: null });
    expect(await row("email", "opening")).toMatchObject({ chosen: null });
    await setUsual(em(), house.maren, { ...emails, reply: "hello" });
    expect(await row("email", "opening")).toMatchObject({ chosen: "hello" });
    await query(em(), "update replies set state = 'retired' where key = 'hello'");
    expect(await row("email", "opening")).toMatchObject({ offered: [] });
    await expect(setUsual(em(), house.maren, { ...emails, reply: "hello" })).rejects.toThrow(Unusable);
  });
});

const aField = (label: string, type: NewField["type"], of: NewField["of"]): NewField => ({
  ...{ label, type, of },
  ...{ options: [], topics: [], required: false },
});

describe("case fields", () => {
  test("are values of replies as soon as a lead adds them, and stay while one reads them", async () => {
    await expect(addField(em(), house.maren, aField("x", "text", "case"))).rejects.toThrow(NotAllowed);
    expect(await addField(em(), lead, aField("Goodwill given", "money", "case"))).toBe("goodwill_given");
    // A case has a number already.
    expect(await addField(em(), lead, aField("Number", "text", "case"))).toBe("number_2");
    expect((await ownTokens(em(), now)).fields.map((field) => field.key)).toEqual([
      "goodwill_given",
      "number_2",
    ]);
    await query(em(), "update reply_variants set subject = '{$case.goodwill_given}' where title is null");
    await expect(removeField(em(), lead, "case", "goodwill_given")).rejects.toThrow("first");
    await expect(removeField(em(), house.maren, "case", "number_2")).rejects.toThrow(NotAllowed);
    await removeField(em(), lead, "case", "number_2");
    await expect(removeField(em(), lead, "case", "number_2")).rejects.toThrow(NotFound);
    expect((await listFields(em())).map((field) => field.key)).toEqual(["goodwill_given"]);
  });
});

describe("the house", () => {
  const input = {
    name: "Lanterns",
    casePrefix: "LN",
    timeZone: "Europe/Berlin",
    languages: ["de", "en"],
    region: "AT",
  };

  test("is changed by leads, with the zone of those who had its own; its numbers stay once customers have them", async () => {
    await expect(saveHouse(em(), house.maren, input, now)).rejects.toThrow(NotAllowed);
    expect(await readHouse(em(), lead)).toMatchObject({ hasCases: false, casePrefix: "SF" });
    await saveHouse(em(), lead, input, now);
    expect(await readHouse(em(), lead)).toEqual({ ...input, hasCases: false });
    expect((await settingsOf(em())).house).toMatchObject({ language: "de-AT", timeZone: "Europe/Berlin" });
    expect((await readOwn(em(), house.bram)).timeZone).toBe("Europe/Berlin");
    await testCase(em());
    await expect(saveHouse(em(), lead, { ...input, casePrefix: "XX" }, now)).rejects.toMatchObject({
      at: "casePrefix",
    });
    await saveHouse(em(), lead, { ...input, name: "Lamps" }, now);
    expect((await readHouse(em(), lead)).name).toBe("Lamps");
  });

  test("has steps that are done by what is there, or by hand, or skipped by a lead", async () => {
    const states = async () =>
      Object.fromEntries((await readSteps(em())).map((one) => [one.name, one.state]));
    // Two colleagues, a shared shelf and replies are there; the house was just saved.
    expect(await states()).toEqual({
      ...{ house: "done", team: "open", people: "done", shelf: "done", reply: "done", mail: "open" },
    });
    expect(await nextStep(em())).toBe("team");
    await expect(skipStep(em(), house.maren, "team", now)).rejects.toThrow(NotAllowed);
    await skipStep(em(), lead, "team", now);
    await skipStep(em(), lead, "house", now);
    expect(await states()).toMatchObject({ team: "skipped", house: "done" });
    await doStep(em(), lead, "team", now);
    await doStep(em(), lead, "mail", now);
    expect(await states()).toMatchObject({ team: "done", mail: "done" });
    expect(await nextStep(em())).toBeNull();
  });
});
