import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import type { MailboxInput } from "#core/forms/mailboxes";
import { saveDraft } from "../answering/draft";
import { readOpenCase } from "../answering/open";
import { send } from "../answering/send";
import { Case } from "../db/entities/cases";
import { Stationery } from "../db/entities/library";
import { Mailbox } from "../db/entities/mailboxes";
import { Message } from "../db/entities/messages";
import { Team } from "../db/entities/people";
import { testCase, testHouse, type TestHouse } from "../testing";
import { listMailboxes, removeMailbox, saveMailbox } from "./mailboxes";
import { saveTeam } from "./teams";

const now = new Date("2026-11-25T10:00:00Z");
let house: TestHouse;
let team = 0;
const lead = () => ({ ...house.maren, role: "lead" as const });
beforeAll(async () => {
  house = await testHouse();
  team = (await house.em().findOneOrFail(Team, { name: "Desk" })).id;
});
afterAll(() => house.close());

const box = (changes: Partial<MailboxInput> = {}): MailboxInput => ({
  address: "groups@example.com",
  name: "Groups",
  team,
  stationery: null,
  opening: "",
  closing: "",
  quotes: false,
  ...changes,
});
const rows = async () => (await listMailboxes(house.em(), lead())).mailboxes;

describe("mailboxes", () => {
  test("of their own every team has one, which goes along with its address", async () => {
    expect(await rows()).toMatchObject([{ address: "desk@example.com", name: "Desk", isOwn: true }]);
    const input = { name: "Desk", names: {}, answerWithin: 240 };
    await saveTeam(house.em(), lead(), team, { ...input, mailbox: "counter@example.com" }, now);
    expect(await rows()).toMatchObject([{ address: "counter@example.com", isOwn: true }]);
    await saveTeam(house.em(), lead(), team, { ...input, mailbox: "desk@example.com" }, now);
  });

  test("are made, changed and taken away by leads, each address once", async () => {
    await expect(saveMailbox(house.em(), house.maren, null, box())).rejects.toThrow();
    const id = await saveMailbox(house.em(), lead(), null, box());
    await expect(saveMailbox(house.em(), lead(), null, box())).rejects.toThrow(/Desk/);
    await expect(saveMailbox(house.em(), lead(), id, box({ opening: "bye" }))).rejects.toThrow(
      /team can use/,
    );
    await expect(saveMailbox(house.em(), lead(), id, box({ team: 999 }))).rejects.toThrow(/no such team/i);
    await saveMailbox(house.em(), lead(), id, box({ opening: "hello", quotes: true }));
    expect((await rows()).at(-1)).toMatchObject({ id, opening: "hello", quotes: true, isOwn: false });
    const own = (await rows())[0];
    const changed = { ...box(), address: "other@example.com", name: "x" };
    await expect(saveMailbox(house.em(), lead(), own?.id ?? 0, changed)).rejects.toThrow(/own address/);
    await expect(removeMailbox(house.em(), lead(), own?.id ?? 0)).rejects.toThrow(/own address/);
    await removeMailbox(house.em(), lead(), id);
    await expect(removeMailbox(house.em(), lead(), id)).rejects.toThrow(/no such mailbox/i);
  });

  test("give their cases their address, paper, opening and closing, and quote what is answered", async () => {
    const em = house.em();
    const paper = em.create(Stationery, {
      team: em.getReference(Team, team),
      name: "Groups’ paper",
      accent: "#112233",
      header: null,
      footer: readMarkdown("Groups travel cheaper.").doc,
    });
    await em.flush();
    const id = await saveMailbox(
      house.em(),
      lead(),
      null,
      box({ closing: "bye", quotes: true, stationery: paper.team.id }),
    );
    const {
      number,
      message,
      id: caseId,
    } = await testCase(house.em(), "We are 31 & late.\n\nAna\n\nOn 1 May Jo wrote:\n> old");
    await house.em().nativeUpdate(Case, { id: caseId }, { mailbox: house.em().getReference(Mailbox, id) });
    const open = await readOpenCase(house.em(), house.maren, number, 0, now);
    expect(open.from).toBe("Maren Test, Desk <groups@example.com>");
    expect([open.stationery?.name, open.usual.opening[0]?.key, open.usual.closing[0]?.key]).toEqual([
      "Groups’ paper",
      "hello",
      "bye",
    ]);
    const slips = [
      { uid: "s", versionId: null, language: "en", document: readMarkdown("Yes.").doc, values: {} },
    ];
    const draft = { version: 0, language: "en", subject: { from: "thread" as const }, slips, files: [] };
    await saveDraft(house.em(), house.maren, number, draft, now);
    const sent = await send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now);
    if (!sent.ok) throw new Error(JSON.stringify(sent.checks));
    const letter = await house.em().findOneOrFail(Message, { id: sent.message });
    expect(letter.fromAddress).toBe("groups@example.com");
    expect(letter.text).toMatch(
      /^Yes\.\n\nGroups travel cheaper\.\n\nAna Number\d+, November 25, 2026:\n> We are 31 & late\.\n>\n> Ana$/,
    );
    expect(letter.html).toContain(
      "We are 31 &amp; late.<br>\n<br>\nAna</blockquote></td></tr>\n</table></body></html>",
    );
  });
});
