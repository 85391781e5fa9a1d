import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { documentText } from "#core/document/walk";
import { readMarkdown } from "#core/formats/markdown";
import type { FilingChange } from "#core/forms/library";
import { query } from "../db/sql";
import { Conflict, NotAllowed, NotFound, Unusable } from "../errors";
import { eventually, testCase, testHouse, type TestHouse } from "../testing";
import { asInput, type ContentInput } from "./content";
import { changeInBulk, undoBulk } from "./filing";
import { latelyChanged } from "./lately";
import { readFilter } from "./filter";
import { replyFile } from "./files";
import { compareVersions, proposalNews, proposals } from "./history";
import { listReplies } from "./list";
import { openReply } from "../writing/open";
import { besideList, orderPins, setPin, withinReach } from "./pins";
import { dropWorking, proposeWorking, publishProposal, publishWorking, sendBack } from "./publishing";
import { ensureOwnShelf, listShelves, orderShelves, removeShelf, saveShelf } from "./shelves";
import { stripReplies } from "../strip/strip";
import { trialCases } from "../writing/trial-cases";
import { uploadFile } from "./uploads";
import { createReply, mergeOnto, saveWorking, workFrom } from "./writing";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
  await ensureOwnShelf(house.em(), house.bram);
  await ensureOwnShelf(house.em(), house.maren);
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
const filter = (text: string) => readFilter(new URLSearchParams(text));
const em = () => house.em();

const content = (markdown: string, changes: Partial<ContentInput> = {}): ContentInput => ({
  title: "The fee for changing",
  useTemplateSubject: false,
  blanks: {},
  passages: {},
  variants: [
    { language: "en", title: null, subject: null, document: readMarkdown(markdown).doc, original: null },
  ],
  files: [],
  ...changes,
});

let made = 0;
/** A reply of a curator's on the shared shelf, published. */
async function published(markdown: string, title = `Reply ${(made += 1)}`): Promise<string> {
  const key = await createReply(
    em(),
    house.maren,
    { shelf: "all", title, part: "answer" },
    { content: content(markdown) },
    now,
  );
  await publishWorking(em(), house.maren, key, { revision: 1, remark: null }, now);
  return key;
}
const titles = async (viewer: TestHouse["maren"], text: string) =>
  (await listReplies(em(), viewer, filter(text))).rows.map((row) => row.title);
const offered = async (viewer: TestHouse["maren"], words: string) =>
  (
    await stripReplies(em(), viewer, {
      query: words,
      inquiry: null,
      channel: "email",
      language: "en",
      limit: 20,
    })
  ).replies.map((reply) => reply.key);
/** Files a reply as a writer does: in a working copy that is published. */
async function file(who: TestHouse["maren"], key: string, filing: FilingChange, at: Date, words?: string) {
  const open = await openReply(em(), who, key, at);
  const { revision, baseId, content: written } = open;
  const said = words === undefined ? asInput(written) : content(words);
  const saved = await saveWorking(em(), who, key, { revision, baseId, content: said, filing }, at);
  return publishWorking(em(), who, key, { revision: saved, remark: null }, at);
}

/** What is found once those who find have heard of what was published. */
const offeredSoon = (viewer: TestHouse["maren"], words: string) =>
  eventually(
    () => offered(viewer, words),
    (keys) => keys.length > 0,
  );

describe("working copies", () => {
  test("are saved as one types, by one person, and seen by nobody else", async () => {
    const key = await published("Old words.");
    const { baseId } = await openReply(em(), house.maren, key, now);
    expect(
      await saveWorking(em(), house.maren, key, { revision: 0, baseId, content: content("New words.") }, now),
    ).toBe(1);
    expect(
      await saveWorking(
        em(),
        house.maren,
        key,
        { revision: 1, baseId, content: content("Newer words.") },
        now,
      ),
    ).toBe(2);
    const mine = await openReply(em(), house.maren, key, now);
    expect(mine.revision).toBe(2);
    expect(JSON.stringify(mine.content)).toContain("Newer words.");
    const theirs = await openReply(em(), house.bram, key, now);
    expect(theirs.revision).toBe(0);
    expect(theirs.others).toEqual(["Maren Test"]);
    expect(JSON.stringify(theirs.content)).toContain("Old words.");
    expect(await offered(house.bram, "newer")).toEqual([]);
  });

  test("are not overwritten by a window that knows an older one", async () => {
    const key = await published("Words.");
    const save = (revision: number) =>
      saveWorking(em(), house.maren, key, { revision, baseId: null, content: content("x") }, now);
    const both = await Promise.allSettled([save(0), save(0)]);
    expect(both.map((one) => one.status).sort()).toEqual(["fulfilled", "rejected"]);
    await save(1);
    await expect(save(1)).rejects.toThrow(Conflict);
  });

  test("of two people: the second to publish is shown both, and merges", async () => {
    const key = await published("Words.");
    const { baseId } = await openReply(em(), house.maren, key, now);
    await saveWorking(em(), house.maren, key, { revision: 0, baseId, content: content("Maren's.") }, now);
    const tadeo = { ...house.bram, role: "curator" as const };
    await saveWorking(em(), tadeo, key, { revision: 0, baseId, content: content("Bram's.") }, now);
    expect(await publishWorking(em(), tadeo, key, { revision: 1, remark: null }, now)).toBe(2);
    await expect(publishWorking(em(), house.maren, key, { revision: 1, remark: null }, now)).rejects.toThrow(
      "Somebody published another version meanwhile",
    );
    const open = await openReply(em(), house.maren, key, now);
    expect(open.overtaken).toBe(true);
    const { before, after } = await compareVersions(em(), house.maren, key, open.versions[0]?.id ?? 0, null);
    expect([JSON.stringify(before?.content), JSON.stringify(after.content)]).toEqual([
      expect.stringContaining("Bram's."),
      expect.stringContaining("Maren's."),
    ]);
    await expect(mergeOnto(em(), house.maren, key, baseId ?? 0)).rejects.toThrow(Conflict);
    await mergeOnto(em(), house.maren, key, open.published?.id ?? 0);
    expect(await publishWorking(em(), house.maren, key, { revision: 1, remark: "both" }, now)).toBe(3);
  });

  test("with something wrong are not published, and say what", async () => {
    const key = await createReply(
      em(),
      house.maren,
      { shelf: "all", title: "Wrong", part: "answer" },
      null,
      now,
    );
    await expect(publishWorking(em(), house.maren, key, { revision: 1, remark: null }, now)).rejects.toThrow(
      "Not yet: Nothing is written yet (English)",
    );
    const wrong = content("{$booking.moon} :passage[a]{#b}", { title: "Wrong" });
    await saveWorking(em(), house.maren, key, { revision: 1, baseId: null, content: wrong }, now);
    await expect(publishWorking(em(), house.maren, key, { revision: 2, remark: null }, now)).rejects.toThrow(
      /There is no token “booking.moon” \(English\), and 1 more/,
    );
    await dropWorking(em(), house.maren, key, now);
    expect((await openReply(em(), house.maren, key, now)).state).toBe("retired");
  });

  test("carry files of their own reply and of their author, and nobody else's", async () => {
    const key = await published("Words.");
    const file = await uploadFile(
      em(),
      house.maren,
      { name: "a.txt", type: "text/plain", content: Buffer.from(`form ${key}`) },
      false,
    );
    const save = (viewer: TestHouse["maren"], revision: number) =>
      saveWorking(
        em(),
        viewer,
        key,
        { revision, baseId: null, content: content("x", { files: [file.id] }) },
        now,
      );
    await expect(save(house.bram, 0)).rejects.toThrow(Unusable);
    await expect(replyFile(em(), house.bram, Number(file.id))).rejects.toThrow(NotFound);
    expect((await replyFile(em(), house.maren, Number(file.id))).name).toBe("a.txt");
    await save(house.maren, 0);
    await expect(replyFile(em(), house.bram, Number(file.id))).rejects.toThrow(NotFound);
    expect((await openReply(em(), house.maren, key, now)).content.files).toEqual([file]);
    await expect(
      uploadFile(em(), house.maren, { name: "a.png", type: "image/png", content: Buffer.from("no") }, true),
    ).rejects.toThrow("is no picture");
  });
});

describe("proposals", () => {
  test("of a change wait, are compared, and published over what they were compared with", async () => {
    const key = await published("It costs five.");
    const { baseId, published: current } = await openReply(em(), house.bram, key, now);
    await saveWorking(em(), house.bram, key, { revision: 0, baseId, content: content("It costs six.") }, now);
    await expect(publishWorking(em(), house.bram, key, { revision: 1, remark: null }, now)).rejects.toThrow(
      NotAllowed,
    );
    expect(await proposeWorking(em(), house.bram, key, { revision: 1, remark: "new price" }, now)).toBe(2);
    const [waiting] = (await proposals(em(), house.maren)).filter((one) => one.key === key);
    expect(waiting).toMatchObject({
      author: "Bram Test",
      remark: "new price",
      fresh: false,
      overtaken: false,
    });
    const version = waiting?.version ?? 0;
    await expect(publishProposal(em(), house.maren, key, version, null, null, now)).rejects.toThrow(Conflict);
    await expect(
      publishProposal(em(), house.bram, key, version, current?.id ?? 0, null, now),
    ).rejects.toThrow(NotAllowed);
    expect(await publishProposal(em(), house.maren, key, version, current?.id ?? 0, "thanks", now)).toBe(2);
    expect(JSON.stringify((await openReply(em(), house.bram, key, now)).content)).toContain("It costs six.");
    await expect(sendBack(em(), house.maren, key, version, "no", now)).rejects.toThrow(Conflict);
  });

  test("of a new reply are for nobody to use until published; sent back they can be taken up", async () => {
    const key = await createReply(
      em(),
      house.bram,
      { shelf: "all", title: "Umbrellas on deck", part: "answer" },
      { content: content("Umbrellas are lent at the café.") },
      now,
    );
    expect(await titles(house.maren, "q=umbrellas")).toEqual(["Umbrellas on deck"]);
    await proposeWorking(em(), house.bram, key, { revision: 1, remark: null }, now);
    expect(await offered(house.bram, "umbrellas")).toEqual([]);
    const [{ version } = { version: 0 }] = (await proposals(em(), house.maren)).filter(
      (one) => one.key === key,
    );
    await expect(sendBack(em(), house.maren, key, version, " ", now)).rejects.toThrow(
      "Say what is to be changed",
    );
    await sendBack(em(), house.maren, key, version, "Say how many", now);
    expect((await proposals(em(), house.bram)).find((one) => one.key === key)).toMatchObject({
      state: "sent back",
      decision: "Say how many",
    });
    await workFrom(em(), house.bram, key, version, false, later(1));
    const open = await openReply(em(), house.bram, key, now);
    expect(open).toMatchObject({ state: "draft", revision: 1 });
    await proposeWorking(em(), house.bram, key, { revision: 1, remark: null }, later(2));
    const [again] = (await proposals(em(), house.maren)).filter((one) => one.key === key);
    await publishProposal(em(), house.maren, key, again?.version ?? 0, null, null, later(3));
    expect(await offeredSoon(house.bram, "umbrellas")).toEqual([key]);
  });
});

describe("history", () => {
  test("lists every version with who and why, and an old one can be put back", async () => {
    const key = await published("First.");
    const { baseId } = await openReply(em(), house.maren, key, now);
    await saveWorking(em(), house.maren, key, { revision: 0, baseId, content: content("Second.") }, now);
    await publishWorking(em(), house.maren, key, { revision: 1, remark: "shorter" }, later(1));
    const { versions } = await openReply(em(), house.bram, key, now);
    expect(versions.map(({ number, state, author, remark }) => [number, state, author, remark])).toEqual([
      [2, "published", "Maren Test", "shorter"],
      [1, "superseded", "Maren Test", null],
    ]);
    const first = versions[1]?.id ?? 0;
    await workFrom(em(), house.maren, key, first, false, later(2));
    await expect(workFrom(em(), house.maren, key, first, false, later(2))).rejects.toThrow(Conflict);
    await publishWorking(em(), house.maren, key, { revision: 1, remark: "back" }, later(3));
    expect(JSON.stringify((await openReply(em(), house.bram, key, now)).content)).toContain("First.");
  });

  test("shows nobody the working copies and proposals of others", async () => {
    const key = await published("Shared.");
    const { baseId } = await openReply(em(), house.maren, key, now);
    await saveWorking(em(), house.maren, key, { revision: 0, baseId, content: content("Secret.") }, now);
    const mine = (await openReply(em(), house.maren, key, now)).versions[0]?.id ?? 0;
    await expect(compareVersions(em(), house.bram, key, mine, null)).rejects.toThrow(NotFound);
    await expect(workFrom(em(), house.bram, key, mine, true, now)).rejects.toThrow(NotFound);
  });
});

describe("a personal shelf", () => {
  let key = "";
  beforeAll(async () => {
    key = await createReply(
      em(),
      house.bram,
      { shelf: `own-${house.bram.id}`, title: "Bram's zeppelin", part: "answer" },
      { content: content("Zeppelins do not sail.") },
      now,
    );
    await publishWorking(em(), house.bram, key, { revision: 1, remark: null }, now);
  });

  test("is there for everyone, and its owner publishes on it", async () => {
    expect((await listShelves(em(), house.bram)).at(-1)).toMatchObject({
      mine: true,
      mayPublish: true,
      replies: 1,
    });
    expect(await offeredSoon(house.bram, "zeppelins")).toEqual([key]);
    await expect(proposeWorking(em(), house.bram, key, { revision: 1, remark: null }, now)).rejects.toThrow(
      NotAllowed,
    );
  });

  test("is its owner's alone, whatever another's role and way", async () => {
    for (const role of ["agent", "curator", "lead"] as const) {
      const other = { ...house.maren, role };
      const shelf = `own-${house.bram.id}`;
      await expect(openReply(em(), other, key, now)).rejects.toThrow(NotFound);
      await expect(
        saveWorking(em(), other, key, { revision: 0, baseId: null, content: content("x") }, now),
      ).rejects.toThrow(NotFound);
      await expect(
        createReply(em(), other, { shelf: "all", title: "Copy", part: "answer" }, { reply: key }, now),
      ).rejects.toThrow(NotFound);
      await expect(
        createReply(em(), other, { shelf, title: "Theirs", part: "answer" }, null, now),
      ).rejects.toThrow(NotFound);
      await expect(setPin(em(), other, key, true)).rejects.toThrow(NotFound);
      expect(await titles(other, "q=zeppelins&state=any")).toEqual([]);
      expect(await titles(other, `shelf=${shelf}`)).toEqual([]);
      expect(await offered(other, "zeppelins")).toEqual([]);
      expect((await listShelves(em(), other)).map((one) => one.key)).not.toContain(shelf);
      const bulk = await changeInBulk(em(), other, { keys: [key] }, { what: "retire" }, now);
      expect(bulk).toMatchObject({ changed: 0, refused: 1 });
    }
  });
});

describe("a translation", () => {
  test("is offered as behind its original once that reads otherwise, until it follows it again", async () => {
    const document = (words: string) => readMarkdown(words).doc;
    const translated = (english: string, original: string): ContentInput => ({
      ...content(english),
      variants: [
        { language: "en", title: null, subject: null, document: document(english), original: null },
        {
          language: "de",
          title: null,
          subject: null,
          document: document("Gletscher sind geschlossen."),
          original: { subject: null, document: document(original) },
        },
      ],
    });
    const staleIn = async (language: string) => {
      const ask = { inquiry: null, channel: "email", limit: 10, language, query: "glaciers" };
      const { replies } = await eventually(
        () => stripReplies(em(), house.maren, ask),
        (offer) => offer.replies.length > 0,
      );
      return replies.map((reply) => [reply.language, reply.stale]);
    };
    const key = await createReply(
      em(),
      house.maren,
      { shelf: "all", title: "Glaciers", part: "answer" },
      { content: translated("Glaciers are closed.", "Glaciers are closed.") },
      now,
    );
    await publishWorking(em(), house.maren, key, { revision: 1, remark: null }, now);
    expect([await staleIn("de"), await staleIn("en")]).toEqual([[["de", false]], [["en", false]]]);
    const { baseId } = await openReply(em(), house.maren, key, now);
    const changed = translated("Glaciers are open.", "Glaciers are closed.");
    await saveWorking(em(), house.maren, key, { revision: 0, baseId, content: changed }, now);
    await publishWorking(em(), house.maren, key, { revision: 1, remark: null }, now);
    expect([await staleIn("de"), await staleIn("en")]).toEqual([[["de", true]], [["en", false]]]);
  });
});

describe("how proposals stand", () => {
  test("is told to who made them, with what was said, and counted for curators", async () => {
    const propose = async (words: string) => {
      const key = await published("Before.");
      const { baseId } = await openReply(em(), house.bram, key, now);
      await saveWorking(em(), house.bram, key, { revision: 0, baseId, content: content(words) }, now);
      await proposeWorking(em(), house.bram, key, { revision: 1, remark: null }, now);
      const { versions, published: over } = await openReply(em(), house.bram, key, now);
      return {
        key,
        version: versions.find((one) => one.state === "proposed")?.id ?? 0,
        over: over?.id ?? null,
      };
    };
    const before = await proposalNews(em(), house.maren);
    const [waiting, back, taken] = [await propose("One."), await propose("Two."), await propose("Three.")];
    await sendBack(em(), house.maren, back.key, back.version, "Say which deck.", new Date());
    await publishProposal(em(), house.maren, taken.key, taken.version, taken.over, "Thanks.", new Date());
    const news = await proposalNews(em(), house.bram);
    expect(news).toMatchObject({ toCheck: 0, waiting: expect.any(Number) });
    expect(news.back[0]).toMatchObject({
      key: back.key,
      decision: "Say which deck.",
      decidedBy: "Maren Test",
    });
    expect(news.published[0]).toMatchObject({ key: taken.key, decision: "Thanks." });
    expect((await proposalNews(em(), house.maren)).toCheck).toBe(before.toCheck + 1);
    expect((await proposalNews(em(), house.maren)).back).toEqual([]);
    // What was taken up again is news no more.
    await workFrom(em(), house.bram, back.key, back.version, false, new Date(Date.now() + 1000));
    expect((await proposalNews(em(), house.bram)).back.map(({ key }) => key)).not.toContain(back.key);
    expect(waiting.version).toBeGreaterThan(0);
  });
});

describe("shelves", () => {
  test("are made, ordered and taken away by curators", async () => {
    const input = { name: "Lost things", mark: "L", audience: "everyone" as const, teams: [] };
    await expect(saveShelf(em(), house.bram, null, input)).rejects.toThrow(NotAllowed);
    const key = await saveShelf(em(), house.maren, null, input);
    expect(key).toBe("lost-things");
    expect(await saveShelf(em(), house.maren, null, input)).toBe("lost-things-2");
    await orderShelves(em(), house.maren, ["lost-things-2", "all", "lost-things"]);
    expect((await listShelves(em(), house.bram)).map((one) => one.key).slice(0, 3)).toEqual([
      "lost-things-2",
      "all",
      "lost-things",
    ]);
    await expect(orderShelves(em(), house.maren, ["all"])).rejects.toThrow(Conflict);
    await removeShelf(em(), house.maren, "lost-things-2");
    await expect(removeShelf(em(), house.maren, "all")).rejects.toThrow(/stands? on “All”/);
  });

  test("for other teams are kept by curators and used by nobody else", async () => {
    const [{ id } = { id: 0 }] = await query<{ id: number }>(
      em(),
      "insert into teams (name, mailbox, answer_within) values ('Freight', 'freight@example.com', 60) returning id",
    );
    await expect(
      saveShelf(em(), house.maren, null, { name: "F", mark: "F", audience: "teams", teams: [] }),
    ).rejects.toThrow(Unusable);
    const shelf = await saveShelf(em(), house.maren, null, {
      name: "Freight",
      mark: "F",
      audience: "teams",
      teams: [id],
    });
    const key = await createReply(
      em(),
      house.maren,
      { shelf, title: "Lorries", part: "answer" },
      { content: content("Lorries queue in lane nine.") },
      now,
    );
    await publishWorking(em(), house.maren, key, { revision: 1, remark: null }, now);
    expect(await titles(house.maren, "q=lorries")).toEqual(["Lorries"]);
    expect(await offered(house.maren, "lorries")).toEqual([]);
    expect(await titles(house.bram, "q=lorries")).toEqual([]);
    expect(await offeredSoon({ ...house.bram, teamId: id, teams: [id] }, "lorries")).toEqual([key]);
  });
});

describe("the list", () => {
  beforeAll(async () => {
    await published("Bicycles ride free on deck two.", "Bicycles aboard");
    const key = await published("Winter timetable from November.", "Winter sailings");
    const { filing } = await openReply(em(), house.maren, key, now);
    await file(
      house.maren,
      key,
      {
        ...filing,
        tags: ["timetable"],
        seasonFrom: "2020-11-01",
        seasonUntil: "2021-03-01",
        reviewBy: "2021-01-01",
        owner: house.bram.id,
      },
      now,
    );
  });

  test("finds words in the forms of their language, typos, tags, shelves and blanks", async () => {
    expect(await titles(house.bram, "q=riding bicycle")).toEqual(["Bicycles aboard"]);
    expect(await titles(house.bram, "q=bycicles")).toEqual(["Bicycles aboard"]);
    expect(await titles(house.bram, "q=timetab november")).toEqual(["Winter sailings"]);
    expect(await titles(house.bram, "q=hours late")).toEqual(["Running late"]);
    expect(await titles(house.bram, "q=xyzzy")).toEqual([]);
    const { rows, alike } = await listReplies(em(), house.bram, filter("q=ride"));
    expect(alike).toBe(false);
    expect(rows[0]?.snippet).toEqual(expect.arrayContaining([{ text: "ride", found: true }]));
  });

  test("combines filters, and says what is out of season", async () => {
    expect(await titles(house.bram, "season=out&review=due&tag=timetable&owner=me")).toEqual([
      "Winter sailings",
    ]);
    expect(await titles(house.maren, "season=out&owner=me")).toEqual([]);
    const ask = { inquiry: null, channel: "email", language: "en", limit: 40 };
    const unasked = await stripReplies(em(), house.bram, { ...ask, query: "" });
    expect(unasked.replies.map((reply) => reply.title)).not.toContain("Winter sailings");
    const searched = await stripReplies(em(), house.bram, { ...ask, query: "winter" });
    expect(searched.replies.map((reply) => reply.why)).toEqual([
      "out of season: from 2020-11-01 until 2021-03-01",
    ]);
    expect(await titles(house.bram, "part=closing")).toEqual(["Bye"]);
    expect((await listReplies(em(), house.bram, filter("q=winter"))).rows[0]?.season).toEqual({
      from: "2020-11-01",
      until: "2021-03-01",
      out: true,
    });
  });

  test("ignores what it cannot read in an address", async () => {
    expect(await titles(house.bram, "part=middle&page=-3&owner=x&sort=moon&q=bicycles")).toEqual([
      "Bicycles aboard",
    ]);
  });

  test("sorts by any column, both ways", async () => {
    const up = await titles(house.bram, "sort=title");
    expect(await titles(house.bram, "sort=title&down=true")).toEqual([...up].reverse());
    for (const sort of ["shelf", "part", "state", "owner", "uses", "used", "review", "changed"])
      expect((await titles(house.bram, `sort=${sort}&down=true`)).length).toBe(up.length);
  });
});

describe("changes in bulk", () => {
  let keys: string[] = [];
  beforeEach(async () => {
    keys = [await published("One."), await published("Two.")];
  });

  test("touch what the viewer may change, and can be undone", async () => {
    const result = await changeInBulk(
      em(),
      house.maren,
      { keys: [...keys, "nowhere"] },
      { what: "tag", tag: "sale" },
      now,
    );
    expect(result).toMatchObject({ changed: 2, refused: 1, words: "Tagged sale: 2 replies" });
    expect(await titles(house.bram, "tag=sale")).toHaveLength(2);
    expect(await undoBulk(em(), house.maren, result.id ?? 0, now)).toEqual({ undone: 2, stay: 0 });
    expect(await titles(house.bram, "tag=sale")).toEqual([]);
    await expect(undoBulk(em(), house.maren, result.id ?? 0, now)).rejects.toThrow(Conflict);
    await expect(undoBulk(em(), house.bram, result.id ?? 0, now)).rejects.toThrow(NotFound);
    const [last] = await latelyChanged(em(), house.maren);
    expect(last).toMatchObject({ id: result.id, undone: true, words: expect.stringContaining("2 replies") });
    expect((await latelyChanged(em(), house.bram)).map(({ id }) => id)).not.toContain(result.id);
    expect(await changeInBulk(em(), house.bram, { keys }, { what: "retire" }, now)).toMatchObject({
      changed: 0,
      refused: 2,
    });
  });

  test("undone leave alone what was changed since", async () => {
    const retired = await changeInBulk(em(), house.maren, { keys }, { what: "retire" }, now);
    await changeInBulk(em(), house.maren, { keys: keys.slice(0, 1) }, { what: "restore" }, now);
    expect(await undoBulk(em(), house.maren, retired.id ?? 0, now)).toEqual({ undone: 1, stay: 1 });
    for (const key of keys) expect((await openReply(em(), house.maren, key, now)).state).toBe("shelved");
  });

  test.each([
    [{ what: "owner", owner: null } as const],
    [{ what: "review", by: "2027-01-01" } as const],
    [{ what: "untag", tag: "nothing" } as const],
    [{ what: "move", shelf: "all" } as const],
  ])("%j goes through and back", async (change) => {
    const before = await openReply(em(), house.maren, keys[0] ?? "", now);
    const result = await changeInBulk(em(), house.maren, { keys }, change, now);
    if (result.id !== null) await undoBulk(em(), house.maren, result.id, now);
    const after = await openReply(em(), house.maren, keys[0] ?? "", now);
    expect({ ...after.filing, changed: "" }).toEqual({ ...before.filing, changed: "" });
  });

  test("reach all that a filter finds, across pages", async () => {
    const result = await changeInBulk(
      em(),
      house.maren,
      { filter: filter("part=answer") },
      { what: "review", by: "2030-01-01" },
      now,
    );
    expect(result.changed).toBeGreaterThan(4);
    await undoBulk(em(), house.maren, result.id ?? 0, now);
  });
});

describe("filing", () => {
  test("is written like the words: used by nobody before it is published, and then on record", async () => {
    const key = await published("Filed.");
    const { content: written, filed, published: before } = await openReply(em(), house.maren, key, now);
    const save = { revision: 0, baseId: before?.id ?? null, content: asInput(written) };
    const filing = { tags: ["sale"], note: "ask first", shelf: `own-${house.maren.id}` };
    await saveWorking(em(), house.maren, key, { ...save, filing }, later(1));
    const open = await openReply(em(), house.maren, key, later(1));
    expect([open.filing, open.filed, open.revision]).toEqual([{ ...filed, ...filing }, filed, 1]);
    expect(open.onShelf).toEqual(written);
    expect(await titles(house.maren, "tag=sale")).toEqual([]);
    // Words that are on the shelf already are no other version.
    const number = await publishWorking(em(), house.maren, key, { revision: 1, remark: null }, later(2));
    expect(number).toBe(before?.number);
    const after = await openReply(em(), house.maren, key, later(2));
    expect(after).toMatchObject({ filing: { ...filed, ...filing }, revision: 0, onShelf: null });
    expect(after.versions).toHaveLength(1);
    expect(after.events.map(({ words, person }) => [words, person])).toEqual([
      ["changed note and tags", "Maren Test"],
      ["moved to My own", "Maren Test"],
    ]);
  });

  test("goes along with other words, and with a proposal that is published", async () => {
    const key = await published("Once.");
    await file(house.maren, key, { tags: ["twice"] }, later(1), "Twice.");
    const open = await openReply(em(), house.maren, key, later(1));
    expect([open.versions.length, open.filed.tags]).toEqual([2, ["twice"]]);
  });

  test("is refused to agents on shared shelves, and where it makes no sense", async () => {
    const key = await published("Filed.");
    await expect(file(house.bram, key, { tags: ["mine"] }, later(1))).rejects.toThrow(NotAllowed);
    await expect(file(house.maren, key, { owner: 123_456 }, later(1))).rejects.toThrow(Unusable);
    await file(house.maren, key, { seasonUntil: "2027-01-01" }, later(2));
    await expect(file(house.maren, key, { seasonFrom: "2027-02-01" }, later(3))).rejects.toThrow(
      "The season ends before it begins",
    );
  });

  test("of what nobody uses yet is at once, and on no record", async () => {
    const key = await createReply(
      em(),
      house.bram,
      { shelf: "all", title: "Young", part: "answer" },
      { content: content("Young.") },
      now,
    );
    const save = { revision: 1, baseId: null, content: content("Young.") };
    await saveWorking(em(), house.bram, key, { ...save, filing: { tags: ["young"] } }, later(1));
    const open = await openReply(em(), house.bram, key, later(1));
    expect([open.filed.tags, open.filing.tags, open.events]).toEqual([["young"], ["young"], []]);
  });

  test("in bulk is on each reply’s record, taken back too", async () => {
    const key = await published("Bulk.");
    const done = await changeInBulk(em(), house.maren, { keys: [key] }, { what: "retire" }, later(1));
    await undoBulk(em(), house.maren, done.id ?? 0, later(2));
    const { events } = await openReply(em(), house.maren, key, later(2));
    expect(events.map(({ words }) => words)).toEqual(["undone: Retired", "retired"]);
  });
});

describe("within reach", () => {
  test("is the viewer's own order", async () => {
    for (const key of ["fee", "late", "hello"]) await setPin(em(), house.bram, key, true);
    await orderPins(em(), house.bram, ["late", "hello", "fee"]);
    expect((await withinReach(em(), house.bram)).map((one) => one.key)).toEqual(["late", "hello", "fee"]);
    await setPin(em(), house.bram, "hello", false);
    expect((await withinReach(em(), house.bram)).map((one) => one.key)).toEqual(["late", "fee"]);
    expect(await withinReach(em(), house.maren)).toEqual([]);
    const beside = await besideList(em(), house.bram);
    expect(beside.reach.map((one) => one.key)).toEqual(["late", "fee"]);
    expect(beside.recentlyUsed).toEqual([]);
    expect(beside.owners.map((one) => one.name)).toEqual(["Bram Test", "Maren Test"]);
    await query(em(), "update people set active = false where id = ?", [house.bram.id]);
    expect((await besideList(em(), house.maren)).owners.map((one) => one.name)).toEqual(["Maren Test"]);
    await query(em(), "update people set active = true where id = ?", [house.bram.id]);
  });
});

test("a copy knows where it came from, and has its words", async () => {
  const key = await createReply(
    em(),
    house.bram,
    { shelf: `own-${house.bram.id}`, title: "My fee", part: "answer" },
    { reply: "fee" },
    now,
  );
  const open = await openReply(em(), house.bram, key, now);
  expect(open).toMatchObject({ key: "my-fee", copiedFrom: { key: "fee" }, filing: { tags: ["change"] } });
  expect(JSON.stringify(open.content)).toContain("house.fee");
});

describe("cases to try on", () => {
  test("are none in an empty house", async () => {
    expect(await trialCases(em(), house.maren, [5], now)).toEqual([]);
  });

  test("are the latest and the awkward ones, with their values; a chosen one however old", async () => {
    const made = [];
    for (let count = 0; count < 12; count += 1) made.push(await testCase(em()));
    const [old, nameless, foreign] = made;
    await query(em(), "update cases set opened_at = opened_at - interval '2 days' where id = any(?)", [
      [old?.id, nameless?.id, foreign?.id],
    ]);
    await query(
      em(),
      "update customers set first_name = null, language = 'de' where id = (select customer_id from cases where id = ?)",
      [nameless?.id],
    );
    await query(em(), "update messages set language = 'fr' where case_id = ?", [foreign?.id]);
    await query(em(), "update cases set language = 'fr' where id = ?", [foreign?.id]);
    const cases = await trialCases(em(), house.maren, [], now);
    const numbers = cases.map((one) => one.number);
    expect(numbers).toContain(nameless?.number);
    expect(cases.find((one) => one.number === foreign?.number)?.language).toMatch(/^fr/);
    expect(cases.find((one) => one.number === nameless?.number)?.context.customer).toMatchObject({
      first_name: null,
    });
    expect(cases.find((one) => one.number === nameless?.number)?.context.agent).toMatchObject({
      name: "Maren Test",
    });
    const pinned = await trialCases(em(), house.maren, [old?.number ?? 0], now);
    expect(pinned.map((one) => one.number)).toContain(old?.number);
  });
});

describe("rights are read when nothing can change them any more", () => {
  test("an agent who files and publishes at once never publishes to a shared shelf", async () => {
    for (let round = 0; round < 15; round += 1) {
      const own = `own-${house.bram.id}`;
      const key = await createReply(
        em(),
        house.bram,
        { shelf: own, title: `Mine ${round}`, part: "answer" },
        {
          content: content("Mine."),
        },
        now,
      );
      const { filing } = await openReply(em(), house.bram, key, now);
      await Promise.allSettled([
        saveWorking(
          em(),
          house.bram,
          key,
          { revision: 1, baseId: null, content: content("Mine."), filing: { ...filing, shelf: "all" } },
          later(1),
        ),
        publishWorking(em(), house.bram, key, { revision: 1, remark: null }, later(1)),
      ]);
      const [row] = await query<{ shelf: string; state: string }>(
        em(),
        "select s.key as shelf, r.state from replies r join shelves s on s.id = r.shelf_id where r.key = ?",
        [key],
      );
      expect([row?.shelf, row?.state]).not.toEqual(["all", "shelved"]);
    }
  });

  test("a reply is not begun from what a colleague is still writing", async () => {
    const key = await createReply(
      em(),
      house.bram,
      { shelf: "all", title: "Not ready", part: "answer" },
      { content: content("Secret so far.") },
      now,
    );
    const from = () =>
      createReply(em(), house.maren, { shelf: "all", title: "A copy", part: "answer" }, { reply: key }, now);
    await expect(from()).rejects.toThrow(Unusable);
    await proposeWorking(em(), house.bram, key, { revision: 1, remark: null }, now);
    expect(await from()).toMatch(/^a-copy/);
  });
});

test("a channel reads the text of its own, in every place: the strip, the version, the search", async () => {
  const wanted = content("Bring **both** papers.");
  const [variant] = wanted.variants;
  if (!variant) throw new Error("There is no variant");
  const sms = readMarkdown("Quokka papers: both.").doc;
  const key = await createReply(
    em(),
    house.maren,
    { shelf: "all", title: "Papers", part: "answer" },
    {
      content: { ...wanted, variants: [{ ...variant, texts: { sms } }] },
    },
    now,
  );
  await publishWorking(em(), house.maren, key, { revision: 1, remark: null }, now);
  await query(em(), "update replies set channels = '{email,sms}' where key = ?", [key]);
  const read = async (channel: string) => {
    const { replies } = await stripReplies(em(), house.bram, {
      query: "quokka",
      inquiry: null,
      channel,
      language: "en",
      limit: 5,
    });
    const found = replies.find((one) => one.key === key);
    return found && documentText(found.document);
  };
  expect([await read("email"), await read("sms")]).toEqual(["Bring both papers.", "Quokka papers: both."]);
  expect((await openReply(em(), house.maren, key, now)).content.variants).toEqual([
    { ...variant, texts: { sms } },
  ]);
});
