import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { DetailField, DetailSource } from "../db/entities/cases";
import { factsRead } from "#core/checks/facts-read";
import { addFact, setFact } from "../house/facts";
import { readMarkdown } from "#core/formats/markdown";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { query } from "../db/sql";
import { houseRanker } from "../ranking/house-ranker";
import { replyFile } from "../replies/files";
import { uploadFile } from "../replies/uploads";
import { Conflict, NotFound, Unusable } from "../errors";
import { testCase, testHouse, testVersion, type TestHouse } from "../testing";
import { loadDraft, saveDraft, type DraftInput } from "./draft";
import { otherNames } from "./names";
import { readOpenCase } from "./open";
import { keepAddress } from "./recipients";
import { saveSignature } from "../house/signatures";
import { callBack } from "./call-back";
import { send } from "./send";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
  await houseRanker(house.em()).ready();
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");
const later = (seconds: number) => new Date(now.getTime() + seconds * 1000);

const slip = (
  markdown: string,
  changes: Partial<DraftInput["slips"][number]> = {},
): DraftInput["slips"][number] => ({
  uid: "s1",
  versionId: null,
  language: "en",
  document: readMarkdown(markdown).doc,
  values: {},
  ...changes,
});
const draft = (version: number, slips = [slip("Yes.")]): DraftInput => ({
  version,
  language: "en",
  subject: { from: "thread" },
  slips,
});

describe("drafts", () => {
  test("are there again as they were saved, with what their replies define", async () => {
    const { number } = await testCase(house.em());
    const late = slip("The ship is {$blank.hours :integer} hours late.", {
      versionId: await testVersion(house.em(), "late"),
      values: { hours: 3 },
    });
    expect(await saveDraft(house.em(), house.maren, number, draft(0, [late]), now)).toBe(1);
    const open = await readOpenCase(house.em(), house.maren, number, 0, now);
    expect(open.draft).toMatchObject({
      version: 1,
      slips: [
        {
          id: "s1",
          reply: "late",
          title: "Running late",
          values: { hours: 3 },
          blanks: { hours: { kind: "number" } },
          versionNumber: 1,
          currentNumber: 1,
        },
      ],
    });
    expect((await readOpenCase(house.em(), house.bram, number, 0, now)).draft).toBeNull();
    expect((await readOpenCase(house.em(), house.bram, number, 0, now)).others).toEqual([
      { name: "Maren Test", here: false },
    ]);
  });

  test("are not overwritten by a window that knows an older state", async () => {
    const { number } = await testCase(house.em());
    await saveDraft(house.em(), house.maren, number, draft(0), now);
    await saveDraft(house.em(), house.maren, number, draft(1, [slip("Newer.")]), now);
    await expect(saveDraft(house.em(), house.maren, number, draft(1, [slip("Older.")]), now)).rejects.toThrow(
      Conflict,
    );
    await expect(saveDraft(house.em(), house.maren, number, draft(0), now)).rejects.toThrow(Conflict);
    const { draft: kept } = await readOpenCase(house.em(), house.maren, number, 0, now);
    expect(JSON.stringify(kept?.slips)).toContain("Newer.");
  });

  test("two first saves at once make one draft", async () => {
    const { number } = await testCase(house.em());
    const saves = await Promise.allSettled([
      saveDraft(house.em(), house.maren, number, draft(0), now),
      saveDraft(house.em(), house.maren, number, draft(0), now),
    ]);
    expect(saves.map((one) => one.status).sort()).toEqual(["fulfilled", "rejected"]);
  });

  test("go when they are emptied, and want a case and visible replies", async () => {
    const { number } = await testCase(house.em());
    await saveDraft(house.em(), house.maren, number, draft(0), now);
    expect(await saveDraft(house.em(), house.maren, number, draft(1, []), now)).toBe(0);
    await expect(saveDraft(house.em(), house.maren, 1, draft(0), now)).rejects.toThrow(NotFound);
    await expect(
      saveDraft(house.em(), house.maren, number, draft(0, [slip("x", { versionId: 123_456 })]), now),
    ).rejects.toThrow(Unusable);
    await query(house.em(), "update shelves set audience = 'owner', owner_id = ?", [house.bram.id]);
    await expect(
      saveDraft(
        house.em(),
        house.maren,
        number,
        draft(0, [slip("x", { versionId: await testVersion(house.em(), "fee") })]),
        now,
      ),
    ).rejects.toThrow(Unusable);
    expect((await readOpenCase(house.em(), house.maren, number, 0, now)).strip.replies).toEqual([]);
    await query(house.em(), "update shelves set audience = 'everyone', owner_id = null");
  });

  test("carry files that their owner brought, in order, alone or with words; what is taken off can be put back", async () => {
    const { number, id } = await testCase(house.em());
    const png = Buffer.from(
      "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==",
      "base64",
    );
    const bring = (content: Buffer, name: string, who = house.maren) =>
      uploadFile(house.em(), who, { name, type: "application/x-msdownload", content }, false);
    const map = await bring(png, "C:\\fake\\map.exe");
    expect(map).toMatchObject({ name: "map.exe", contentType: "image/png", size: png.byteLength });
    await expect(bring(Buffer.alloc(0), "a")).rejects.toThrow(Unusable);
    const form = await bring(Buffer.from("a form"), "form.txt");
    const bramsOwn = await bring(Buffer.from("bram's"), "his.txt", house.bram);
    const save = async (
      version: number,
      files: (typeof map)[] | undefined,
      slips: DraftInput["slips"] = [],
    ) =>
      saveDraft(
        house.em(),
        house.maren,
        number,
        { ...draft(version, slips), ...(files && { files: files.map((file) => Number(file.id)) }) },
        now,
      );
    const names = async () =>
      (await loadDraft(house.em(), house.maren, id))?.attachments.map((file) => file.name) ?? null;

    expect(await save(0, [map])).toBe(1);
    expect(await names()).toEqual(["map.exe"]);
    expect(await save(1, [form, map], [slip("Both.")])).toBe(2);
    expect(await names()).toEqual(["form.txt", "map.exe"]);
    // An older page says nothing of files.
    expect(await save(2, undefined, [slip("Still both.")])).toBe(3);
    expect(await names()).toEqual(["form.txt", "map.exe"]);
    await expect(save(3, [form, bramsOwn], [slip("His.")])).rejects.toThrow(Unusable);
    expect(await names()).toEqual(["form.txt", "map.exe"]);
    // Also what came to the draft by other ways can be looked at and put back; colleagues do not see it.
    await query(house.em(), "delete from file_uploads where person_id = ?", [house.maren.id]);
    expect((await replyFile(house.em(), house.maren, Number(form.id))).name).toBe("form.txt");
    await expect(replyFile(house.em(), house.bram, Number(form.id))).rejects.toThrow(NotFound);
    expect(await save(3, [map], [slip("One.")])).toBe(4);
    expect(await save(4, [map, form], [slip("Back.")])).toBe(5);
    expect(await names()).toEqual(["map.exe", "form.txt"]);
    expect(await save(5, [], [])).toBe(0);
    expect(await names()).toBeNull();
  });
});

describe("sending", () => {
  async function ready(words = "Yes.") {
    const made = await testCase(house.em());
    await saveDraft(house.em(), house.maren, made.number, draft(0, [slip(words)]), now);
    return made;
  }

  test("names the team in the letter’s language, and reads the house’s facts and signature in it", async () => {
    await query(house.em(), `update teams set names = '{"de": "Schalter"}' where id = ?`, [
      house.maren.teamId,
    ]);
    await saveSignature(house.em(), house.maren, null, readMarkdown("Regards, {$agent.team}").doc);
    await saveSignature(house.em(), house.maren, null, readMarkdown("Grüße, {$agent.team}").doc, "de");
    const { number, message } = await testCase(house.em());
    await saveDraft(house.em(), house.maren, number, { ...draft(0, [slip("Ja.")]), language: "de" }, now);
    const sent = await send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now);
    if (!sent.ok) throw new Error(JSON.stringify(sent.checks));
    const stored = await house.em().findOneOrFail(Message, { id: sent.message });
    expect(stored).toMatchObject({ fromName: "Maren Test, Schalter", text: "Ja.\n\nGrüße, Schalter" });
    await saveSignature(house.em(), house.maren, null, null);
  });

  test("stores letter, trace and message with its fixed Message-ID, and queues the delivery for when it is due", async () => {
    const { number, message, address } = await ready("Hello {$customer.first_name}, yes.");
    const sent = await send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now);
    expect(sent).toMatchObject({ ok: true, dueAt: later(10).toISOString(), to: address });
    if (!sent.ok) return;
    const stored = await house.em().findOneOrFail(Message, { id: sent.message });
    expect(stored).toMatchObject({
      state: "due",
      text: "Hello Ana, yes.",
      toAddress: address,
      fromAddress: "desk@example.com",
      fromName: "Maren Test, Desk",
      references: [expect.stringMatching(/^<in-\d+@example\.org>$/)],
    });
    expect(stored.messageId).toMatch(/^<[0-9a-f]{32}@example\.com>$/);
    const jobs = await query<{ data: unknown; start_after: string }>(
      house.em(),
      "select data, start_after from pgboss.job where name = 'send' and data->>'message' = ?",
      [String(sent.message)],
    );
    expect(jobs).toHaveLength(1);
    expect(new Date(jobs[0]?.start_after ?? 0).getTime()).toBe(later(10).getTime());
    const open = await readOpenCase(house.em(), house.maren, number, 0, later(1));
    expect(open).toMatchObject({ status: "waiting on the customer", draft: null, answerBy: null });
    expect(open.history[0]).toMatchObject({
      who: "Maren Test",
      what: expect.stringContaining("sent an answer"),
    });
  });

  test("is refused with its findings while something stops it, and nothing is stored", async () => {
    const fields = house.em();
    fields.create(DetailField, {
      ...{ key: "sails_at", label: "sailing", type: "datetime", example: "2026-11-27T07:40:00Z" },
      ...{ short: null, usual: null, path: "$.sails_at" },
      source: fields.create(DetailSource, {
        ...{ key: "bookings", name: "Bookings", address: "https://example.com/{reference}" },
        ...{ pattern: null },
      }),
    });
    await fields.flush();
    const { number, message } = await ready("At {$booking.sails_at}.");
    const before = await house.em().count(Message, {});
    expect(
      await send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now),
    ).toMatchObject({ ok: false, checks: [{ code: "token-missing" }] });
    expect(await house.em().count(Message, {})).toBe(before);
    expect((await readOpenCase(house.em(), house.maren, number, 0, now)).draft).not.toBeNull();
  });

  test("twice at once sends once", async () => {
    const { number, message } = await ready();
    const both = await Promise.allSettled(
      [1, 2].map(() => send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now)),
    );
    expect(both.map((one) => one.status).sort()).toEqual(["fulfilled", "rejected"]);
    expect(await house.em().count(Message, { case: { number }, direction: "out" })).toBe(1);
  });

  test("goes although the house learned something meanwhile, unless its words read just that", async () => {
    const lead = { ...house.maren, role: "lead" as const };
    const fact = { type: "text" as const, changedBy: "lead" as const };
    const put = (key: string, value: string, at: Date) =>
      setFact(house.em(), lead, key, { value, texts: {} }, null, at);
    const read = await addFact(house.em(), lead, { ...fact, label: "Quay", value: "Osmer" }, now);
    const other = await addFact(house.em(), lead, { ...fact, label: "Tune", value: "Reel" }, now);
    const { number } = await testCase(house.em());
    const slips = [slip(`Come to {$house.${read}}.`)];
    const version = await saveDraft(house.em(), house.maren, number, draft(0, slips), now);
    const open = await readOpenCase(house.em(), house.maren, number, 0, later(40));
    const facts = factsRead(open.draft?.slips ?? [], open.context);
    const seen = { version, lastMessage: open.lastMessage, seen: open.seen, facts };
    await put(other, "Jig", later(50));
    await put(read, "Tarn Head", later(51));
    await expect(send(house.em(), house.maren, number, seen, later(60))).rejects.toThrow(
      "What the letter says of this case changed meanwhile",
    );
    await put(read, "Osmer", later(52));
    expect(await send(house.em(), house.maren, number, seen, later(60))).toMatchObject({ ok: true });
  });

  test("does not follow a colleague's answer, or a message, that was not seen", async () => {
    const { number, message, id } = await ready();
    await saveDraft(house.em(), house.bram, number, draft(0), now);
    await send(house.em(), house.bram, number, { version: 1, lastMessage: message }, now);
    await expect(
      send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now),
    ).rejects.toThrow("Bram Test answered this case meanwhile");
    const em = house.em();
    const again = em.create(Message, {
      case: em.getReference(Case, id),
      direction: "in",
      channel: "email",
      state: "received",
      fromName: null,
      fromAddress: "a@example.org",
      toAddress: "desk@example.com",
      subject: "",
      text: "and?",
      html: null,
      language: null,
      messageId: null,
      person: null,
      at: now,
    });
    await em.flush();
    await expect(
      send(house.em(), house.maren, number, { version: 1, lastMessage: again.id - 1 }, now),
    ).rejects.toThrow("The customer wrote again meanwhile");
    expect(
      await send(house.em(), house.maren, number, { version: 1, lastMessage: again.id }, now),
    ).toMatchObject({ ok: true });
  });

  test("with a reply that was sent before, and with another customer's name, says so", async () => {
    const { number, message } = await testCase(house.em());
    const other = await testCase(house.em());
    const name = `Ana Number${other.number - 90_000}`;
    expect(
      await otherNames(
        house.em(),
        `I told ${name} so.`,
        (await house.em().findOneOrFail(Case, { number })).customer.id,
      ),
    ).toEqual([name]);
    expect(
      await otherNames(
        house.em(),
        `I told ${name} so.`,
        (await house.em().findOneOrFail(Case, { number: other.number })).customer.id,
      ),
    ).toEqual([]);
    const fee = slip("A change costs {$house.fee}.", { versionId: await testVersion(house.em(), "fee") });
    await saveDraft(house.em(), house.maren, number, draft(0, [fee]), now);
    const sent = await send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now);
    expect((await readOpenCase(house.em(), house.maren, number, 0, now)).sentReplies).toEqual(["fee"]);
    expect(sent.ok && (await house.em().findOneOrFail(Message, { id: sent.message })).text).toBe(
      "A change costs €6.00.",
    );
  });
});

describe("calling back", () => {
  test("makes the letter a draft again, and the case waits as before", async () => {
    const { number, message } = await testCase(house.em());
    await saveDraft(house.em(), house.maren, number, draft(0, [slip("Wait.")]), now);
    const sent = await send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now);
    if (!sent.ok) throw new Error("not sent");
    await expect(callBack(house.em(), house.bram, sent.message, later(5))).rejects.toThrow(NotFound);
    expect(await callBack(house.em(), house.maren, sent.message, later(5))).toBe(number);
    const open = await readOpenCase(house.em(), house.maren, number, 0, later(6));
    expect(open).toMatchObject({
      status: "open",
      answerBy: "2026-11-25T13:00:00.000Z",
      draft: { slips: [{ id: "s1" }] },
    });
    expect(open.messages.map((one) => one.direction)).toEqual(["in"]);
    await expect(callBack(house.em(), house.maren, sent.message, later(7))).rejects.toThrow(Conflict);
  });

  test("comes too late once the letter is due", async () => {
    const { number, message } = await testCase(house.em());
    await saveDraft(house.em(), house.maren, number, draft(0), now);
    const sent = await send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now);
    if (!sent.ok) throw new Error("not sent");
    await expect(callBack(house.em(), house.maren, sent.message, later(10))).rejects.toThrow(
      "It is too late",
    );
    expect((await house.em().findOneOrFail(Message, { id: sent.message })).state).toBe("due");
  });
});

describe("the strip", () => {
  test("finds by title, tag, text and near spelling, and says why", async () => {
    const { number } = await testCase(house.em(), "what is the fee for a change of date");
    const open = await readOpenCase(house.em(), house.maren, number, 0, now);
    expect(open.strip.replies[0]).toMatchObject({ key: "fee", why: expect.stringContaining("“change”") });
    expect(open.usual).toMatchObject({ opening: [{ key: "hello" }], closing: [{ key: "bye" }] });
  });
});

describe("to whom", () => {
  const stranger = async (number: number, id: number, address: string) => {
    const em = house.em();
    em.create(Message, {
      case: em.getReference(Case, id),
      direction: "in",
      channel: "email",
      state: "received",
      fromName: "Jo",
      fromAddress: address,
      toAddress: "desk@example.com",
      subject: "Fwd: boat",
      text: "She sent me this. When do we sail?",
      html: null,
      language: "en",
      messageId: `<jo-${number}@example.net>`,
      person: null,
      at: later(1),
    });
    await em.flush();
    return (await readOpenCase(house.em(), house.maren, number, 0, now)).lastMessage;
  };

  test("a letter goes to the customer's own address, whoever wrote last", async () => {
    const { number, id, address } = await testCase(house.em());
    const lastMessage = await stranger(number, id, `jo${number}@example.net`);
    const open = await readOpenCase(house.em(), house.maren, number, 0, now);
    expect(open.context.message.subject).toBe("Fwd: boat");
    await saveDraft(house.em(), house.maren, number, draft(0), now);
    expect(await send(house.em(), house.maren, number, { version: 1, lastMessage }, now)).toMatchObject({
      ok: true,
      to: address,
    });
  });

  test("another address stops sending until it is confirmed, or kept as the customer's", async () => {
    const { number, id } = await testCase(house.em());
    const to = `jo${number}@example.net`;
    const lastMessage = await stranger(number, id, to);
    const sendTo = async (version: number, confirmed: boolean) => {
      await saveDraft(
        house.em(),
        house.maren,
        number,
        { ...draft(version), to: { address: to, confirmed } },
        now,
      );
      return send(house.em(), house.maren, number, { version: version + 1, lastMessage }, now);
    };
    expect(await sendTo(0, false)).toMatchObject({ ok: false, checks: [{ code: "recipient-unknown" }] });
    const sent = await sendTo(1, true);
    expect(sent).toMatchObject({ ok: true, to });
    if (sent.ok) await callBack(house.em(), house.maren, sent.message, now);
    expect((await readOpenCase(house.em(), house.maren, number, 0, now)).draft?.to).toEqual({
      address: to,
      confirmed: true,
    });
    await keepAddress(house.em(), house.maren, number, to, now);
    expect((await readOpenCase(house.em(), house.maren, number, 0, now)).recipients).toContainEqual({
      address: to,
      is: "known",
      news: null,
    });
    await expect(keepAddress(house.em(), house.maren, number, "elsewhere@example.net", now)).rejects.toThrow(
      Unusable,
    );
  });

  test("a letter to a mailbox of ours stops, confirmed or not", async () => {
    const { number, id, message } = await testCase(house.em());
    await stranger(number, id, "desk@example.com");
    const toAddress = (version: number, address: string) =>
      saveDraft(
        house.em(),
        house.maren,
        number,
        { ...draft(version), to: { address, confirmed: true } },
        now,
      );
    await toAddress(0, "desk@example.com");
    const { lastMessage } = await readOpenCase(house.em(), house.maren, number, 0, now);
    expect(lastMessage).toBeGreaterThan(message);
    expect(await send(house.em(), house.maren, number, { version: 1, lastMessage }, now)).toMatchObject({
      ok: false,
      checks: [{ code: "recipient-ours" }],
    });
  });
});

describe("saves of one window", () => {
  const by = (sequence: number, version: number, words: string): DraftInput => ({
    ...draft(version, [slip(words)]),
    writer: "window-1",
    sequence,
  });
  test("hold in the order in which they were made, whichever comes first", async () => {
    const { number } = await testCase(house.em());
    await saveDraft(house.em(), house.maren, number, by(1, 0, "One."), now);
    // The page went away while its second save was on the way: the third overtakes it.
    await saveDraft(house.em(), house.maren, number, by(3, 1, "Three."), now);
    await saveDraft(house.em(), house.maren, number, by(2, 1, "Two."), now);
    const { draft: kept } = await readOpenCase(house.em(), house.maren, number, 0, now);
    expect(JSON.stringify(kept?.slips)).toContain("Three.");
    await expect(
      saveDraft(house.em(), house.maren, number, { ...by(4, 1, "Other."), writer: "window-2" }, now),
    ).rejects.toThrow(Conflict);
  });
});
