import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { Reply, Shelf } from "../db/entities/library";
import { Person, Team } from "../db/entities/people";
import { NotAllowed, NotFound } from "../errors";
import type { Viewer } from "../people/viewer";
import { readFilter } from "../replies/filter";
import { listReplies } from "../replies/list";
import { listShelves } from "../replies/shelves";
import { testHouse, type TestHouse } from "../testing";
import { findReply, findReplyToKeep, findShelf, findShelfToPut, visibleVersions } from "./replies";
import { usableReplies } from "./usable";

let house: TestHouse;
let viewers: Record<"agent" | "curator" | "otherTeam" | "otherCurator", Viewer>;

/** Shelves of every audience, each with a reply in every state, some of them an agent's. */
beforeAll(async () => {
  house = await testHouse();
  const em = house.em();
  const other = em.create(Team, { name: "Freight", mailbox: "freight@example.com", answerWithin: 60 });
  await em.flush();
  viewers = {
    agent: house.bram,
    curator: house.maren,
    otherTeam: {
      ...house.bram,
      id: house.maren.id,
      teamId: other.id,
      teams: [other.id],
      teamName: "Freight",
    },
    otherCurator: { ...house.maren, teamId: other.id, teams: [other.id], teamName: "Freight" },
  };
  const desk = em.getReference(Team, house.bram.teamId);
  const shelves = [
    { key: "desk", audience: "teams", teams: [desk], owner: null },
    { key: "freight", audience: "teams", teams: [other], owner: null },
    { key: "own-bram", audience: "owner", teams: [], owner: em.getReference(Person, house.bram.id) },
  ] as const;
  for (const { key, audience, teams, owner } of shelves) {
    const shelf = em.create(Shelf, { key, name: key, mark: "X", audience, owner });
    shelf.teams.set([...teams]);
    for (const state of ["draft", "ready to check", "shelved", "retired"] as const)
      for (const whose of ["bram", "nobody"] as const)
        em.create(Reply, {
          key: `${key} ${state} ${whose}`.replaceAll(" ", "-"),
          shelf,
          title: `${key} ${state} ${whose}`,
          part: "answer",
          state,
          channels: ["email"],
          owner: whose === "bram" ? em.getReference(Person, house.bram.id) : null,
        });
  }
  await em.flush();
});
afterAll(() => house.close());

const found = async <Answer>(work: Promise<Answer>): Promise<Answer | null> => {
  try {
    return await work;
  } catch (error) {
    if (error instanceof NotFound) return null;
    throw error;
  }
};
const who = ["agent", "curator", "otherTeam", "otherCurator"] as const;

describe("who may read", () => {
  test.each(who)("%s finds alone just the shelves and replies that lists show", async (name) => {
    const em = house.em();
    const viewer = viewers[name];
    const shelves = new Set((await listShelves(em, viewer)).map(({ key }) => key));
    for (const { key } of await em.find(Shelf, {}))
      expect([key, (await found(findShelf(em, viewer, key)))?.key]).toEqual([
        key,
        shelves.has(key) ? key : undefined,
      ]);
    const { rows } = await listReplies(em, viewer, readFilter(new URLSearchParams("state=any")));
    const replies = new Set(rows.map(({ key }) => key));
    for (const { key } of await em.find(Reply, {}))
      expect([key, (await found(findReply(em, viewer, key)))?.key]).toEqual([
        key,
        replies.has(key) ? key : undefined,
      ]);
  });

  test.each<[(typeof who)[number], string[]]>([
    ["agent", ["all", "desk", "own-bram"]],
    ["curator", ["all", "desk", "freight"]],
    ["otherTeam", ["all", "freight"]],
    ["otherCurator", ["all", "desk", "freight"]],
  ])("%s reads the shelves %j", async (name, shelves) => {
    const read = (await listShelves(house.em(), viewers[name])).map(({ key }) => key);
    expect(read.sort()).toEqual(shelves);
  });

  test("before it was ever published only its owner and curators read a reply", async () => {
    const read = (name: (typeof who)[number], key: string) =>
      found(findReply(house.em(), viewers[name], key));
    expect(await read("agent", "desk-draft-bram")).not.toBeNull();
    expect(await read("agent", "desk-draft-nobody")).toBeNull();
    expect(await read("curator", "desk-draft-bram")).not.toBeNull();
    expect(await read("agent", "desk-retired-nobody")).not.toBeNull();
    expect(await read("curator", "own-bram-shelved-bram")).toBeNull();
  });

  test("a reply comes with its shelf and with what may be done with it", async () => {
    expect(await findReply(house.em(), house.bram, "own-bram-shelved-bram")).toMatchObject({
      state: "shelved",
      ownerId: house.bram.id,
      shelf: { key: "own-bram", audience: "owner", ownerId: house.bram.id },
      mayPublish: true,
    });
    expect(await findReply(house.em(), house.bram, "fee")).toMatchObject({ mayPublish: false });
  });
});

test("what a unit of work holds already is read anew", async () => {
  const em = house.em();
  await em.find(Shelf, {}, { populate: ["teams"] });
  const change = house.em();
  const shelf = await change.findOneOrFail(Shelf, { key: "desk" });
  shelf.name = "The desk’s own";
  await change.flush();
  expect((await findShelf(em, house.bram, "desk")).name).toBe("The desk’s own");
});

test("who may not keep a reply, or put one on a shelf, is told so", async () => {
  const toKeep = (viewer: Viewer) => house.em().transactional((em) => findReplyToKeep(em, viewer, "fee"));
  await expect(toKeep(house.bram)).rejects.toThrow(NotAllowed);
  expect((await toKeep(house.maren)).key).toBe("fee");
  expect((await findShelfToPut(house.em(), house.bram, "desk")).key).toBe("desk");
  await expect(findShelfToPut(house.em(), house.bram, "freight")).rejects.toThrow(NotFound);
});

test("used are the shelved replies of shelves that are one’s own to use, and words of those versions", async () => {
  const answers = async (name: (typeof who)[number], channel = "email") =>
    [...(await usableReplies(house.em(), viewers[name], channel)).answers]
      .filter((key) => key.includes("-"))
      .sort();
  expect(await answers("agent")).toEqual([
    "desk-shelved-bram",
    "desk-shelved-nobody",
    "own-bram-shelved-bram",
    "own-bram-shelved-nobody",
  ]);
  // A curator keeps the shelves of other teams, and uses only those of hers.
  expect(await answers("curator")).toEqual(["desk-shelved-bram", "desk-shelved-nobody"]);
  expect(await answers("agent", "sms")).toEqual([]);
  const { currentVersionId } = await house.em().findOneOrFail(Reply, { key: "fee" });
  const ids = [currentVersionId ?? 0, 999_999];
  expect(await visibleVersions(house.em(), house.bram, ids)).toEqual(new Set([currentVersionId]));
});
