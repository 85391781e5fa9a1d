import { afterAll, beforeAll, expect, test } from "@jest/globals";
import pg from "pg";
import { readFolder } from "#core/formats/folder";
import { query } from "../db/sql";
import type { Viewer } from "../people/viewer";
import { eventually, testHouse, type TestHouse } from "../testing";
import { changeInBulk } from "./filing";
import { importLibrary } from "./import";
import { openReply } from "../writing/open";
import { publishWorking } from "./publishing";
import { saveShelf } from "./shelves";
import { setPin } from "./pins";
import { stripReplies } from "../strip/strip";
import { saveWorking } from "./writing";

const now = new Date("2026-11-25T10:00:00Z");
let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
  await put("deck", { cabins: "Cabins", wheels: "Bicycles aboard", quay: "Where to wait" }, (key) =>
    key === "wheels" ? "Whoever rides comes early." : "Cars and coaches wait at the gangway.",
  );
});
afterAll(() => house.close());

const em = () => house.em();
const strip = async (words: string, viewer: Viewer = house.bram) => {
  const asked = { query: words, inquiry: null, channel: "email", language: "en", limit: 20 };
  return (await stripReplies(em(), viewer, asked)).replies.map((reply) => reply.key);
};
const until = (words: string, holds: (keys: string[]) => boolean) => eventually(() => strip(words), holds);

/** Puts replies on a new shelf for everyone: titles by key, the same text of each or one of its own. */
async function put(shelf: string, titles: Record<string, string>, text: (key: string) => string) {
  const { library } = readFolder([
    { path: "library.yaml", text: `shelves:\n  - { id: ${shelf}, name: ${shelf}, mark: X }\n` },
    ...Object.entries(titles).flatMap(([key, title]) => [
      { path: `${shelf}/${key}.md`, text: `---\nid: ${key}\ntitle: ${title}\n---\n${text(key)}\n` },
    ]),
  ]);
  await importLibrary(em(), library, () => Promise.reject(new Error("no files here")), now);
}

test("each word may begin one of the reply's, in any of its forms, in any place", async () => {
  expect(await strip("bicycl")).toEqual(["wheels"]);
  expect(await strip("riding bicycle")).toEqual(["wheels"]);
  expect(await strip("deck rides")).toEqual(["wheels"]);
  expect(await strip("hours late")).toEqual(["late"]);
  expect(await strip("bicycle zeppelin")).toEqual([]);
});

test("words in another language are met in its own forms", async () => {
  await query(
    em(),
    `insert into reply_variants (version_id, language, title, subject, document, words, fallback)
     select version_id, 'de', 'Fahrrad an Bord', null, document, E'Fahrrad an Bord\\nDas Fahrrad reist mit.', false
       from reply_variants v join replies r on r.current_version_id = v.version_id where r.key = 'wheels'`,
  );
  expect(await until("Fahrräder", (keys) => keys.length > 0)).toEqual(["wheels"]);
});

test("words that nothing has are taken for those spelled like them", async () => {
  expect(await strip("bycicles")).toEqual(["wheels"]);
  expect(await strip("bycicle")).toEqual(["wheels"]);
  expect(await strip("xyzzy")).toEqual([]);
});

test("one or two letters are looked for in names first, and elsewhere where no name has them", async () => {
  expect(await strip("ca")).toEqual(["cabins"]);
  expect((await strip("co")).sort()).toEqual(["cabins", "fee", "quay", "wheels"]);
});

test("a title that has the words comes before a text that has them", async () => {
  await put("passes", { passes: "Gangway passes" }, () => "They are at the desk.");
  expect((await until("gangway", (keys) => keys.includes("passes")))[0]).toBe("passes");
});

test("another name of the shelf is found at once, the old one no more; retired replies neither", async () => {
  const shelf = { name: "Promenade", mark: "P", audience: "everyone" as const, teams: [] };
  await saveShelf(em(), house.maren, "deck", shelf);
  expect((await until("promenade", (keys) => keys.length > 0)).sort()).toEqual(["cabins", "quay", "wheels"]);
  expect(await strip("deck")).toEqual([]);
  await changeInBulk(em(), house.maren, { keys: ["cabins"] }, { what: "retire" }, now);
  expect((await until("promenade", (keys) => !keys.includes("cabins"))).sort()).toEqual(["quay", "wheels"]);
  await until("cabins", (keys) => keys.length === 0);
});

test("who finds is told of what is published, and of nothing while somebody only writes", async () => {
  const client = new pg.Client({ connectionString: house.database.url });
  await client.connect();
  try {
    const heard: string[] = [];
    client.on("notification", ({ payload }) => heard.push(payload ?? ""));
    await client.query("listen plain_shelf_replies");
    const { baseId, content } = await openReply(em(), house.maren, "wheels", now);
    const { pictures: _none, ...kept } = content;
    const variants = content.variants.map((one) => ({ ...one, title: "Tandems" }));
    const changed = { ...kept, variants, files: [] };
    await saveWorking(em(), house.maren, "wheels", { revision: 0, baseId, content: changed }, now);
    await client.query("select pg_notify('plain_shelf_replies', 'written')");
    expect(heard).toEqual(["written"]);
    await publishWorking(em(), house.maren, "wheels", { revision: 1, remark: null }, now);
    await client.query("select pg_notify('plain_shelf_replies', 'published')");
    expect(heard).toEqual(["written", "", "published"]);
  } finally {
    await client.end();
  }
  expect(await until("tandems", (keys) => keys.length > 0)).toEqual(["wheels"]);
});

test("what stands on others' shelves hides nothing, however much of it there is", async () => {
  const many = Object.fromEntries(Array.from({ length: 450 }, (_, at) => [`hidden-${at}`, `Lifeboat ${at}`]));
  await put("crew", { ...many, seen: "Safety" }, () => "Every lifeboat is looked after.");
  await query(
    em(),
    "update replies set shelf_id = (select id from shelves where key = 'all') where key = 'seen'",
  );
  await query(em(), "update shelves set audience = 'owner', owner_id = ? where key = 'crew'", [
    house.maren.id,
  ]);
  expect(await until("lifeboat", (keys) => keys.length > 0)).toEqual(["seen"]);
  expect(await strip("lifeboat", house.maren)).toHaveLength(20);
});

test("what a person has at hand comes after the close fits, and before others that are searched for", async () => {
  await put(
    "hand",
    { "hand-a": "Lanterns lent", "hand-b": "Lanterns sold", "hand-c": "Lanterns lost" },
    (key) =>
      key === "hand-c" ? "A lantern that is lost is looked for at the pier." : "A lantern is at the pier.",
  );
  const found = await until("lantern pier", (keys) => keys.length === 3);
  const last = found.at(-1) ?? "";
  await setPin(em(), house.bram, last, true);
  expect((await strip("lantern pier"))[0]).toBe(last);
  // A colleague has other things at hand.
  expect(await strip("lantern pier", house.maren)).toEqual(found);
  const inquiry = {
    ...{
      id: "x",
      channel: "email",
      subject: "My bicycle",
      body: "Does my bicycle ride free of charge on deck two?",
    },
  };
  const offered = async () => {
    const asked = { query: "", inquiry, channel: "email", language: "en", limit: 20 };
    return (await stripReplies(em(), house.bram, asked)).replies;
  };
  const replies = await eventually(offered, (all) => all.some((one) => one.hand !== null));
  const at = replies.findIndex((one) => one.key === last);
  expect(replies[at]?.hand).toBe("within reach");
  expect(replies[0]?.key).toBe("wheels");
  // Before it stand only the best, what answers a second question, and close fits.
  for (const [index, one] of replies.slice(0, at).entries())
    expect(index === 0 || one.also !== null || (one.fit ?? 0) >= 0.7).toBe(true);
  await setPin(em(), house.bram, last, false);
});
