import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import { saveDraft } from "../answering/draft";
import { Draft, Slip } from "../db/entities/answering";
import { Case } from "../db/entities/cases";
import { Reply } from "../db/entities/library";
import { Person, Session } from "../db/entities/people";
import { settingsOf } from "../house/settings";
import { query } from "../db/sql";
import { Conflict, NotAllowed, NotFound, Unusable } from "../errors";
import { changePassword } from "../people/account";
import { choosePassword, openLink } from "../people/links";
import { findSession, startSession } from "../people/sessions";
import { signIn } from "../people/sign-in";
import type { Viewer } from "../people/viewer";
import { listShelves } from "../replies/shelves";
import { testCase, testHouse, type TestHouse } from "../testing";
import { invite, listColleagues, readColleague, resetPassword, saveColleague, sendAway } from "./colleagues";
import { listTeams, removeTeam, saveTeam } from "./teams";

let house: TestHouse;
let lead: Viewer;
beforeAll(async () => {
  house = await testHouse();
  await em().nativeUpdate(Person, { id: house.maren.id }, { role: "lead" });
  lead = { ...house.maren, role: "lead" };
});
afterAll(() => house.close());

const em = () => house.em();
const now = new Date("2026-11-25T10:00:00Z");
const after = (days: number) => new Date(now.getTime() + days * 86_400_000);
const base = "https://shelf.example.com";
const nowhere = { browser: null, address: null };
const tokenOf = (url: string) => url.slice(url.lastIndexOf("/") + 1);

let made = 0;

/** A colleague who has just been invited. */
async function invited(role: "agent" | "curator" | "lead" = "agent") {
  made += 1;
  const email = `new${made}@example.com`;
  const input = { name: `New Number${made}`, firstName: "New", email, role, team: lead.teamId };
  return { email, ...(await invite(em(), lead, input, base, now)) };
}

/** A colleague who has chosen a password, as a viewer. */
async function arrived(role: "agent" | "curator" | "lead" = "agent"): Promise<Viewer> {
  const { id, link } = await invited(role);
  const token = await choosePassword(em(), tokenOf(link.url), "three kittiwakes", nowhere, now);
  const session = await findSession(em(), token, now);
  if (session?.viewer.id !== id) throw new Error("The link signed in somebody else");
  return session.viewer;
}

const trying = (email: string, password: string) =>
  signIn(em(), { email, password, address: "192.0.2.7", device: null, browser: null }, now);

describe("an invitation", () => {
  test("is for leads to make, and makes somebody who cannot sign in yet", async () => {
    const input = {
      name: "Ida",
      firstName: "Ida",
      email: "ida@example.com",
      role: "agent",
      team: 1,
    } as const;
    await expect(invite(em(), house.bram, input, base, now)).rejects.toThrow(NotAllowed);
    const { id, email, link } = await invited();
    expect(link).toMatchObject({ expires: after(7).toISOString() });
    expect(await trying(email, "")).toMatchObject({ ok: false });
    const listed = (await listColleagues(em(), lead)).find((one) => one.id === id);
    expect(listed).toMatchObject({ state: "invited", seen: null, role: "agent", team: "Desk" });
    const jobs = await query<{ data: unknown }>(em(), "select data from pgboss.job where name = 'notice'");
    expect(jobs.map((job) => job.data)).toContainEqual({ link: expect.any(Number), base });
    // Nothing that is kept holds what opens the door.
    expect(JSON.stringify(jobs)).not.toContain(tokenOf(link.url).split(".")[1]);
  });

  test("names no address twice, in whatever letter case", async () => {
    const again = {
      name: "B",
      firstName: "B",
      email: "bram@example.com",
      role: "agent",
      team: lead.teamId,
    } as const;
    await expect(invite(em(), lead, again, base, now)).rejects.toMatchObject({
      message: "Bram Test signs in with that address already",
      at: "email",
    });
    await expect(
      invite(em(), lead, { ...again, email: "x@example.com", team: 999 }, base, now),
    ).rejects.toMatchObject({ at: "team" });
  });

  test("lets its person choose a password, once, and signs them in", async () => {
    const { id, email, link } = await invited();
    const token = tokenOf(link.url);
    expect(await openLink(em(), token, now)).toMatchObject({ email, purpose: "invited" });
    await expect(choosePassword(em(), token, "aaaaaaaaaaaa", nowhere, now)).rejects.toThrow(Unusable);
    await expect(choosePassword(em(), token, `${email}!`, nowhere, now)).rejects.toThrow(Unusable);
    const session = await choosePassword(em(), token, "three kittiwakes", nowhere, now);
    expect((await findSession(em(), session, now))?.viewer.id).toBe(id);
    expect(await trying(email, "three kittiwakes")).toMatchObject({ ok: true });
    await expect(openLink(em(), token, now)).rejects.toThrow(NotFound);
    await expect(choosePassword(em(), token, "four kittiwakes", nowhere, now)).rejects.toThrow(NotFound);
    expect((await listColleagues(em(), lead)).find((one) => one.id === id)?.state).toBe("here");
  });

  test("is used by one of two who come at once", async () => {
    const { link } = await invited();
    const both = await Promise.allSettled([
      choosePassword(em(), tokenOf(link.url), "three kittiwakes", nowhere, now),
      choosePassword(em(), tokenOf(link.url), "four kittiwakes", nowhere, now),
    ]);
    expect(both.map((one) => one.status).sort()).toEqual(["fulfilled", "rejected"]);
  });

  test("is good for a week, is no other’s, and not when another was made", async () => {
    const { id, link } = await invited();
    const other = await invited();
    const token = tokenOf(link.url);
    await expect(openLink(em(), token, after(7.1))).rejects.toThrow(NotFound);
    const [number = ""] = token.split(".");
    const [, proof = ""] = tokenOf(other.link.url).split(".");
    for (const forged of [`${number}.${proof}`, number, "", "x".repeat(80), `${number}.${"A".repeat(43)}`])
      await expect(openLink(em(), forged, now)).rejects.toThrow(NotFound);
    const fresh = await resetPassword(em(), lead, id, base, now);
    await expect(openLink(em(), token, now)).rejects.toThrow(NotFound);
    expect(await openLink(em(), tokenOf(fresh.url), now)).toMatchObject({ purpose: "invited" });
  });
});

describe("a password", () => {
  test("that a lead takes away is good no more, and nobody is signed in by it", async () => {
    const colleague = await arrived();
    const session = await startSession(em(), colleague.id, now);
    await expect(resetPassword(em(), house.bram, colleague.id, base, now)).rejects.toThrow(NotAllowed);
    await expect(resetPassword(em(), lead, lead.id, base, now)).rejects.toThrow(Unusable);
    const { url, expires } = await resetPassword(em(), lead, colleague.id, base, now);
    expect(expires).toBe(after(1).toISOString());
    expect(await findSession(em(), session, now)).toBeNull();
    expect(await trying(colleague.email, "three kittiwakes")).toMatchObject({ ok: false });
    await choosePassword(em(), tokenOf(url), "four kittiwakes", nowhere, now);
    expect(await trying(colleague.email, "four kittiwakes")).toMatchObject({ ok: true });
  });

  test("is changed by whoever knows it, and ends what is open elsewhere", async () => {
    const colleague = await arrived();
    const here = await findSession(em(), await startSession(em(), colleague.id, now), now);
    const elsewhere = await startSession(em(), colleague.id, now);
    const change = (old: string, password: string) =>
      changePassword(em(), colleague, { old, password }, here?.id ?? 0);
    await expect(change("wrong", "five kittiwakes")).rejects.toMatchObject({ at: "old" });
    await expect(change("three kittiwakes", "three kittiwakes")).rejects.toMatchObject({ at: "password" });
    await change("three kittiwakes", "five kittiwakes");
    expect(await findSession(em(), elsewhere, now)).toBeNull();
    expect(await em().count(Session, { person: colleague.id })).toBe(1);
    expect(await trying(colleague.email, "five kittiwakes")).toMatchObject({ ok: true });
  });

  test("that was printed for the first lead asks for one of their own", async () => {
    const colleague = await arrived();
    await em().nativeUpdate(Person, { id: colleague.id }, { mustChangePassword: true });
    const seen = async () =>
      (await findSession(em(), await startSession(em(), colleague.id, now), now))?.viewer.mustChangePassword;
    expect(await seen()).toBe(true);
    await changePassword(em(), colleague, { old: "three kittiwakes", password: "six kittiwakes" }, null);
    expect(await seen()).toBe(false);
  });
});

describe("a colleague", () => {
  test("is changed by a lead, and in several teams has the cases and shelves of each", async () => {
    const colleague = await arrived();
    const freight = await saveTeam(
      em(),
      lead,
      null,
      {
        name: "Freight",
        mailbox: "freight@example.com",
        names: {},
        answerWithin: 60,
      },
      now,
    );
    const read = async () => readColleague(em(), lead, colleague.id, now);
    const { name, firstName, email, role, title, phone, team } = await read();
    const input = {
      name,
      firstName,
      email,
      role,
      title,
      phone,
      team,
      department: "Quay",
      furtherTeams: [freight, team],
    };
    await expect(saveColleague(em(), house.bram, colleague.id, input)).rejects.toThrow(NotAllowed);
    await saveColleague(em(), lead, colleague.id, input);
    expect(await read()).toMatchObject({ department: "Quay", team, furtherTeams: [freight] });
    const session = await findSession(em(), await startSession(em(), colleague.id, now), now);
    expect(session?.viewer).toMatchObject({ teamId: team, teams: [team, freight] });
    await query(
      em(),
      "insert into shelves (key, name, mark, audience) values ('freight-only', 'Freight only', 'F', 'teams')",
    );
    await query(em(), "insert into shelf_teams select s.id, ? from shelves s where s.key = 'freight-only'", [
      freight,
    ]);
    const shelves = async (viewer: Viewer) => (await listShelves(em(), viewer)).map((one) => one.key);
    expect(await shelves(session?.viewer ?? colleague)).toContain("freight-only");
    expect(await shelves(colleague)).not.toContain("freight-only");
    await expect(
      saveColleague(em(), lead, colleague.id, { ...input, email: "bram@example.com" }),
    ).rejects.toMatchObject({ at: "email" });
    await expect(saveColleague(em(), lead, 999_999, input)).rejects.toThrow(NotFound);
    await expect(removeTeam(em(), lead, freight)).rejects.toThrow("Colleagues are of Freight");
  });

  test("who is the only lead stays one, also when two take the role from each other at once", async () => {
    const only = await readColleague(em(), lead, lead.id, now);
    expect(only.isLastLead).toBe(true);
    await expect(
      saveColleague(em(), lead, lead.id, inputOf({ ...only, role: "agent" })),
    ).rejects.toMatchObject({
      at: "role",
    });
    const second = await arrived("lead");
    const other = await readColleague(em(), lead, second.id, now);
    const both = await Promise.allSettled([
      saveColleague(em(), second, lead.id, inputOf({ ...only, role: "agent" })),
      saveColleague(em(), lead, second.id, inputOf({ ...other, role: "agent" })),
    ]);
    expect(both.map((one) => one.status).sort()).toEqual(["fulfilled", "rejected"]);
    await em().nativeUpdate(Person, { id: lead.id }, { role: "lead" });
    await em().nativeUpdate(Person, { id: second.id }, { role: "agent" });
  });
});

function inputOf(one: Awaited<ReturnType<typeof readColleague>>) {
  const { name, firstName, email, role, title, department, phone, team, furtherTeams } = one;
  return { name, firstName, email, role, title, department, phone, team, furtherTeams };
}

describe("who is sent away", () => {
  const words = (text: string) => ({
    version: 0,
    language: "en",
    subject: { from: "thread" as const },
    slips: [{ uid: "own", versionId: null, language: "en", document: readMarkdown(text).doc, values: {} }],
  });

  test("leaves cases, drafts and replies to a colleague, and their name on what they wrote", async () => {
    const leaver = await arrived();
    const heir = await arrived();
    const [alone, both] = [await testCase(em()), await testCase(em())];
    await em().nativeUpdate(Case, { id: { $in: [alone.id, both.id] } }, { assignee: leaver.id });
    await saveDraft(em(), leaver, alone.number, words("The first"), now);
    await saveDraft(em(), leaver, both.number, words("Theirs"), now);
    await saveDraft(em(), heir, both.number, words("Ours"), now);
    await em().nativeUpdate(Reply, { key: "fee" }, { owner: leaver.id });
    await em().nativeUpdate(Reply, { key: "late" }, { owner: leaver.id });
    await query(
      em(),
      "update replies set shelf_id = (select id from shelves where owner_id = ?) where key = 'late'",
      [leaver.id],
    );
    const session = await startSession(em(), leaver.id, now);
    const { belongings } = await readColleague(em(), lead, leaver.id, now);
    expect(belongings).toEqual({ cases: 2, drafts: 2, own: 1, owned: 1 });

    await expect(sendAway(em(), house.bram, leaver.id, heir.id, now)).rejects.toThrow(NotAllowed);
    await expect(sendAway(em(), lead, leaver.id, leaver.id, now)).rejects.toMatchObject({ at: "successor" });
    await expect(sendAway(em(), lead, lead.id, heir.id, now)).rejects.toThrow(Unusable);
    expect(await sendAway(em(), lead, leaver.id, heir.id, now)).toEqual(belongings);

    expect(await findSession(em(), session, now)).toBeNull();
    expect(await trying(leaver.email, "three kittiwakes")).toMatchObject({ ok: false });
    expect((await readColleague(em(), lead, heir.id, now)).belongings).toEqual(belongings);
    // The case that both wrote on has one draft: the heir's words, then the leaver's.
    const draft = await em().findOneOrFail(Draft, { case: both.id });
    const slips = await em().find(Slip, { draft: draft.id }, { orderBy: { position: "asc" } });
    expect(draft.person.id).toBe(heir.id);
    expect(slips.map((slip) => JSON.stringify(slip.document).includes("Ours"))).toEqual([true, false]);
    expect(new Set(slips.map((slip) => slip.uid)).size).toBe(2);
    const reply = await em().findOneOrFail(Reply, { key: "late" }, { populate: ["shelf"] });
    expect(reply).toMatchObject({
      owner: { id: heir.id },
      shelf: { audience: "owner", owner: { id: heir.id } },
    });
    const events = await query<{ kind: string; person_id: number }>(
      em(),
      "select kind, person_id from case_events where case_id = ? and kind = 'handed over'",
      [alone.id],
    );
    expect(events).toEqual([{ kind: "handed over", person_id: lead.id }]);
    expect((await listColleagues(em(), lead)).at(-1)).toMatchObject({ state: "left", name: leaver.name });
    await expect(sendAway(em(), lead, leaver.id, heir.id, now)).rejects.toThrow(Conflict);
    await expect(sendAway(em(), lead, heir.id, leaver.id, now)).rejects.toMatchObject({ at: "successor" });

    // They come back by another link.
    const { url } = await resetPassword(em(), lead, leaver.id, base, now);
    await choosePassword(em(), tokenOf(url), "back with kittiwakes", nowhere, now);
    expect(await trying(leaver.email, "back with kittiwakes")).toMatchObject({ ok: true });
  });

  test("is never the only lead", async () => {
    const second = await arrived("lead");
    await em().nativeUpdate(Person, { id: lead.id }, { role: "agent" });
    await expect(sendAway(em(), lead, second.id, house.bram.id, now)).rejects.toThrow("only lead");
    await em().nativeUpdate(Person, { id: lead.id }, { role: "lead" });
    await sendAway(em(), lead, second.id, house.bram.id, now);
  });
});

describe("teams", () => {
  const input = { name: "Lost things", mailbox: "lost@example.com", names: {}, answerWithin: 240 };

  test("are made, changed and removed by leads, each with a name and an address of its own", async () => {
    await expect(saveTeam(em(), house.bram, null, input, now)).rejects.toThrow(NotAllowed);
    const id = await saveTeam(em(), lead, null, input, now);
    await expect(
      saveTeam(em(), lead, null, { ...input, mailbox: "b@example.com" }, now),
    ).rejects.toMatchObject({
      at: "name",
    });
    await expect(saveTeam(em(), lead, null, { ...input, name: "Found" }, now)).rejects.toMatchObject({
      message: "That is the address of Lost things",
    });
    await saveTeam(em(), lead, id, { ...input, name: "Lost and found", names: { de: "Fundbüro" } }, now);
    expect((await settingsOf(em())).teams.get(id)).toEqual({
      language: "en",
      text: "Lost and found",
      others: { de: "Fundbüro" },
    });
    expect((await listTeams(em())).find((one) => one.id === id)).toMatchObject({
      name: "Lost and found",
      people: 0,
      cases: 0,
    });
    await removeTeam(em(), lead, id);
    await expect(removeTeam(em(), lead, id)).rejects.toThrow(NotFound);
  });

  test("stay while they have cases", async () => {
    const id = await saveTeam(em(), lead, null, input, now);
    const { id: subject } = await testCase(em());
    await em().nativeUpdate(Case, { id: subject }, { team: id });
    await expect(removeTeam(em(), lead, id)).rejects.toThrow("has cases");
  });
});
