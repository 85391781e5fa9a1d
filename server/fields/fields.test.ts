import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import { catalogue } from "#core/tokens/catalogue";
import { newFieldSchema } from "#core/forms/house";
import { saveDraft } from "../answering/draft";
import { readOpenCase } from "../answering/open";
import { send } from "../answering/send";
import { Case } from "../db/entities/cases";
import { Organisation } from "../db/entities/customers";
import { Person } from "../db/entities/people";
import { query } from "../db/sql";
import { NotAllowed, NotFound, Unusable } from "../errors";
import type { Viewer } from "../people/viewer";
import { caseRecord } from "../record/timeline";
import { testCase, testHouse, type TestHouse } from "../testing";
import { addField, changeField, listFields, removeField, retireField } from "./fields";
import { gapsInData, noteLacking } from "./gaps";
import { filledFields, setValues } from "./values";

let house: TestHouse;
let lead: Viewer;
beforeAll(async () => {
  house = await testHouse();
  lead = { ...house.maren, role: "lead" };
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");
const add = (label: string, more: object = {}) =>
  addField(house.em(), lead, newFieldSchema.parse({ label, type: "text", ...more }));
const caseOf = (number: number) =>
  house.em().findOneOrFail(Case, { number }, { populate: ["customer.organisation"] });

describe("fields", () => {
  test("of cases, customers, organisations and colleagues are values of letters at once", async () => {
    const em = house.em();
    const keys = [
      await add("Harbour", { of: "case" }),
      await add("Help aboard", { of: "customer" }),
      await add("Wants invoices", { of: "organisation", type: "choice", options: ["by email", "by post"] }),
      await add("Hours", { of: "agent" }),
    ];
    expect(keys).toEqual(["harbour", "help_aboard", "wants_invoices", "hours"]);
    const one = await testCase(em);
    const subject = await caseOf(one.number);
    const organisation = em.create(Organisation, {
      ...{ name: "Quay School", nameKey: "quay school", kind: "school" },
      ...{ account: null, contractUntil: null },
    });
    await em.flush();
    await query(em, "update customers set organisation_id = ? where id = ?", [
      organisation.id,
      subject.customer.id,
    ]);
    await setValues(em, house.bram, "case", subject.id, { harbour: " Tarn Head " }, now);
    await setValues(em, house.bram, "customer", subject.customer.id, { help_aboard: "a ramp" }, now);
    await setValues(em, house.bram, "organisation", organisation.id, { wants_invoices: "by post" }, now);
    await setValues(em, house.bram, "agent", house.bram.id, { hours: "nine to five" }, now);
    const version = await saveDraft(
      house.em(),
      house.bram,
      one.number,
      {
        ...{ version: 0, language: "en", subject: { from: "thread" as const } },
        slips: [
          {
            ...{ uid: "s1", versionId: null, language: "en", values: {} },
            document: readMarkdown(
              "{$case.harbour}, {$customer.help_aboard}, {$organisation.wants_invoices}, {$agent.hours}.",
            ).doc,
          },
        ],
      },
      now,
    );
    const sent = await send(house.em(), house.bram, one.number, { version, lastMessage: one.message }, now);
    if (!sent.ok) throw new Error(JSON.stringify(sent.checks));
    const [row] = await query<{ text: string }>(em, "select text from messages where id = ?", [sent.message]);
    expect(row?.text).toContain("Tarn Head, a ramp, by post, nine to five.");
    const { entries } = await caseRecord(house.em(), house.bram, one.number);
    expect(entries).toContainEqual(
      expect.objectContaining({ who: "Bram Test", what: "set “Harbour” to “Tarn Head”" }),
    );
  });

  test("renamed, a field goes on being read; retired, it is filled in no more, and replies that read it still do", async () => {
    const key = await add("Deck", { of: "case", required: true, topics: ["bicycles"] });
    const one = await testCase(house.em());
    const subject = await caseOf(one.number);
    await setValues(house.em(), house.bram, "case", subject.id, { [key]: "3" }, now);
    await changeField(house.em(), lead, "case", key, {
      ...{ label: "deck of the bicycle", options: [], topics: ["bicycles"], required: true },
    });
    const ofCase = (topic: string | null) => filledFields(house.em(), "case", subject.id, topic);
    expect(await ofCase("bicycles")).toContainEqual(
      expect.objectContaining({ key, label: "deck of the bicycle", value: "3", required: true }),
    );
    expect((await ofCase(null)).some((field) => field.key === key)).toBe(false);
    await retireField(house.em(), lead, "case", key, true, now);
    expect((await ofCase("bicycles")).some((field) => field.key === key)).toBe(false);
    await expect(setValues(house.em(), house.bram, "case", subject.id, { [key]: "4" }, now)).rejects.toThrow(
      NotFound,
    );
    const open = await readOpenCase(house.em(), house.bram, one.number, 0, now);
    expect(open.context.case[key]).toBe("3");
    expect(open.own.fields.find((field) => field.key === key)).toMatchObject({ retired: true });
    await retireField(house.em(), lead, "case", key, false, now);
    expect((await ofCase("bicycles")).some((field) => field.key === key)).toBe(true);
  });

  test("what reads a field is listed, and keeps it from being removed", async () => {
    const key = await add("Pier", { of: "customer" });
    await query(
      house.em(),
      `update reply_variants set subject = '{$customer.pier}' where version_id = (select current_version_id from replies where key = 'late')`,
    );
    expect((await listFields(house.em())).find((field) => field.key === key)?.uses).toEqual([
      { key: "late", title: "Running late" },
    ]);
    await expect(removeField(house.em(), lead, "customer", key)).rejects.toThrow(Unusable);
    await query(house.em(), "update reply_variants set subject = null where subject = '{$customer.pier}'");
    await removeField(house.em(), lead, "customer", key);
    await expect(
      changeField(house.em(), lead, "customer", key, {
        ...{ label: "x", options: [], topics: [], required: false },
      }),
    ).rejects.toThrow(NotFound);
  });

  test("are a lead’s to define; a choice has two at least, and only its choices are kept", async () => {
    const agent = house.bram;
    await expect(
      addField(house.em(), agent, newFieldSchema.parse({ label: "x", type: "text" })),
    ).rejects.toThrow(NotAllowed);
    await expect(retireField(house.em(), agent, "case", "harbour", true, now)).rejects.toThrow(NotAllowed);
    expect(newFieldSchema.safeParse({ label: "x", type: "choice", options: ["a"] }).success).toBe(false);
    expect(newFieldSchema.safeParse({ label: "x", type: "choice", options: ["a", "a"] }).success).toBe(false);
    const key = await add("Size", { type: "choice", options: ["small", "large"] });
    const one = await testCase(house.em());
    const { id } = await caseOf(one.number);
    const fill = (value: unknown) => setValues(house.em(), agent, "case", id, { [key]: value }, now);
    await expect(fill("huge")).rejects.toThrow("Size");
    await fill("large");
    await fill(null);
    expect((await caseOf(one.number)).details).toEqual({});
    await expect(
      changeField(house.em(), lead, "case", key, {
        label: "Size",
        options: ["a"],
        topics: [],
        required: false,
      }),
    ).rejects.toThrow(Unusable);
  });

  test("one value that cannot be read keeps the others from being kept; of colleagues only leads fill in", async () => {
    const amount = await add("Amount", { type: "number" });
    const words = await add("Words");
    const one = await testCase(house.em());
    const { id } = await caseOf(one.number);
    await expect(
      setValues(house.em(), house.bram, "case", id, { [words]: "kept?", [amount]: "many" }, now),
    ).rejects.toMatchObject({ at: `values.${amount}` });
    expect((await caseOf(one.number)).details).toEqual({});
    await expect(
      setValues(house.em(), house.bram, "agent", house.maren.id, { hours: "never" }, now),
    ).rejects.toThrow(NotAllowed);
    await setValues(house.em(), lead, "agent", house.bram.id, { hours: "always" }, now);
    expect((await house.em().findOneOrFail(Person, { id: house.bram.id })).details).toEqual({
      hours: "always",
    });
    await expect(setValues(house.em(), lead, "customer", 999_999, {}, now)).rejects.toThrow(NotFound);
  });
});

describe("gaps in the data", () => {
  test("are looked for where each value stands, whatever replies print", async () => {
    const em = house.em();
    const names = [...catalogue().keys()].filter((name) => /^(?:customer|organisation|agent)\./.test(name));
    await query(
      em,
      `update reply_variants set document = ?, subject = ? where version_id = (select current_version_id from replies where key = 'fee')`,
      [
        JSON.stringify(readMarkdown(names.map((name) => `{$${name}}`).join(", ")).doc),
        "{$customer.since} {$agent.title :text fallback=|x|}",
      ],
    );
    const gaps = await gapsInData(house.em(), lead, now);
    expect(gaps.map(({ name }) => name)).toEqual(
      expect.arrayContaining(["customer.phone", "agent.department"]),
    );
    // Whoever works here has a name, an address and a team.
    for (const name of ["agent.name", "agent.email", "agent.team"])
      expect(gaps.map((gap) => gap.name)).not.toContain(name);
  });

  test("are values that replies print and some lack, by how many letters they stopped", async () => {
    const em = house.em();
    const floor = await add("Floor", { of: "customer" });
    await query(
      em,
      `update reply_variants set document = ? where version_id = (select current_version_id from replies where key = 'fee')`,
      [
        JSON.stringify(
          readMarkdown(
            "On {$customer.floor}, {$customer.phone :text fallback=|none|}, {$customer.first_name}.",
          ).doc,
        ),
      ],
    );
    const [one, other] = [await testCase(em), await testCase(em)];
    const subject = await caseOf(one.number);
    await setValues(em, house.bram, "customer", subject.customer.id, { [floor]: "2" }, now);
    await noteLacking(em, house.bram, other.number, ["customer.floor", "customer.floor"], now);
    await noteLacking(em, house.bram, other.number, ["customer.floor"], now);
    await noteLacking(em, house.maren, other.number, ["customer.floor"], new Date("2026-01-01T00:00:00Z"));
    const gaps = await gapsInData(house.em(), lead, now);
    const gap = gaps.find(({ name }) => name === "customer.floor");
    expect(gaps[0]).toBe(gap);
    const [all] = await query<{ n: number }>(em, "select count(*)::int as n from customers");
    expect(gap).toMatchObject({ label: "Floor", of: "customer", lacking: (all?.n ?? 0) - 1, stopped: 1 });
    expect(gap?.replies).toEqual([{ key: "fee", title: "The fee for changing" }]);
    expect(gap?.some.map(({ id }) => id)).not.toContain(subject.customer.id);
    // What has other words for where it lacks, and what nobody lacks, is no gap.
    expect(gaps.map(({ name }) => name)).not.toContain("customer.phone");
    expect(gaps.map(({ name }) => name)).not.toContain("customer.first_name");
    await expect(gapsInData(house.em(), house.bram, now)).rejects.toThrow(NotAllowed);
    await expect(noteLacking(em, house.bram, 1, ["customer.floor"], now)).rejects.toThrow(NotFound);
  });
});
