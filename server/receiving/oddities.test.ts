import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { digestOf } from "../digest";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Mailbox } from "../db/entities/mailboxes";
import { Team } from "../db/entities/people";
import { conversation } from "../cases/conversation";
import { readMail } from "../reading/parse";
import { testCase, testHouse, type TestHouse } from "../testing";
import { acceptMail } from "./accept";

/** Mail that is no person's letter, or more than one: written by hand, as programs write it. */

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");

async function take(lines: string[], to = ["desk@example.com"]) {
  const raw = Buffer.from(lines.join("\r\n"));
  const mail = await readMail({ raw, envelopeFrom: "ana@example.org", trusted: [] });
  return acceptMail(house.em(), mail, { content: raw, sha256: digestOf(raw) }, to, now);
}
const head = (from = "Ana <ana@example.org>", ...more: string[]) => [
  `From: ${from}`,
  "To: desk@example.com",
  "Subject: hello",
  ...more,
];
const caseOf = (id: number) => house.em().findOneOrFail(Case, { id }, { populate: ["mailbox", "customer"] });
async function shown(caseId: number) {
  const { messages } = await conversation(house.em(), await caseOf(caseId), 0);
  return messages.at(-1);
}

describe("what programs write", () => {
  test.each([
    ["automatic", ["Auto-Submitted: auto-replied"]],
    ["list", ["List-Id: The timetable <timetable.example.org>"]],
  ])("is marked as %s and due to nobody, alone or on a case that waits", async (kind, headers) => {
    const alone = await take([...head(`Away <${kind}@example.org>`, ...headers), "", "I am away."]);
    expect(await caseOf(alone.caseId)).toMatchObject({
      status: "set aside",
      waitingSince: null,
      answerBy: null,
    });
    expect(await shown(alone.caseId)).toMatchObject({ kind, written: "I am away." });
    const waiting = await testCase(house.em());
    await house
      .em()
      .nativeUpdate(
        Case,
        { id: waiting.id },
        { status: "waiting on the customer", waitingSince: null, answerBy: null },
      );
    const answer = `In-Reply-To: <in-${waiting.number - 90_000}@example.org>`;
    const joined = await take([...head(`A <${waiting.address}>`, answer, ...headers), "", "I am away."]);
    expect(joined).toMatchObject({ caseId: waiting.id, opened: false });
    expect(await caseOf(waiting.id)).toMatchObject({
      status: "waiting on the customer",
      waitingSince: null,
    });
  });
});

describe("a report of failure", () => {
  async function sent(): Promise<{ letter: number; caseId: number; messageId: string; to: string }> {
    const { id, address } = await testCase(house.em());
    const em = house.em();
    const messageId = `<out-${id}@example.com>`;
    const letter = em.create(Message, {
      case: em.getReference(Case, id),
      direction: "out",
      channel: "email",
      state: "sent",
      fromName: "Maren",
      fromAddress: "desk@example.com",
      toAddress: address,
      subject: "Re: boat",
      text: "Yes.",
      html: null,
      messageId,
      at: now,
      dueAt: now,
      sentAt: now,
    });
    await em.flush();
    await house
      .em()
      .nativeUpdate(Case, { id }, { status: "waiting on the customer", waitingSince: null, answerBy: null });
    return { letter: letter.id, caseId: id, messageId, to: address };
  }
  const report = (recipient: string, messageId: string, action = "failed") => [
    "From: Mail delivery <mailer-daemon@example.net>",
    "To: desk@example.com",
    "Subject: Undelivered",
    'Content-Type: multipart/report; report-type=delivery-status; boundary="b"',
    "MIME-Version: 1.0",
    "",
    "--b",
    "Content-Type: text/plain; charset=utf-8",
    "",
    "Your message could not be delivered.",
    "--b",
    "Content-Type: message/delivery-status",
    "",
    "Reporting-MTA: dns; mx.example.net",
    "",
    `Final-Recipient: rfc822; ${recipient}`,
    `Action: ${action}`,
    "Status: 5.1.1",
    "Diagnostic-Code: smtp; 550 5.1.1 no such mailbox",
    "--b",
    "Content-Type: text/rfc822-headers",
    "",
    "From: desk@example.com",
    `Message-ID: ${messageId}`,
    "--b--",
    "",
  ];

  test("is told on the letter that it is about, whose case waits for us again", async () => {
    const { letter, caseId, messageId, to } = await sent();
    expect(await take(report(to, messageId))).toMatchObject({ caseId, opened: false });
    expect(await house.em().findOneOrFail(Message, { id: letter })).toMatchObject({
      state: "refused",
      refusal: `550 5.1.1 no such mailbox (${to})`,
    });
    // They wait since they wrote, for what never reached them.
    expect(await caseOf(caseId)).toMatchObject({
      status: "open",
      waitingSince: new Date("2026-11-25T09:00:00Z"),
    });
    expect(await shown(caseId)).toMatchObject({ kind: "failure" });
  });

  test("of one that is late, or of a copy alone, leaves the letter as it is, with what was said", async () => {
    const { letter, caseId, messageId, to } = await sent();
    await take(report(to, messageId, "delayed"));
    const copy = await sent();
    await take(report("copied@example.net", copy.messageId));
    for (const id of [letter, copy.letter])
      expect(await house.em().findOneOrFail(Message, { id })).toMatchObject({
        state: "sent",
        refusal: expect.stringContaining("no such mailbox") as unknown,
      });
    expect(await caseOf(caseId)).toMatchObject({ status: "waiting on the customer" });
  });

  test("of a letter that we do not know is set aside", async () => {
    const { caseId, opened } = await take(report("x@example.org", "<unknown@example.com>"));
    expect(opened).toBe(true);
    expect(await caseOf(caseId)).toMatchObject({ status: "set aside" });
  });
});

describe("what is in a message", () => {
  test("an invitation is told with its day, place and organiser", async () => {
    const { caseId } = await take([
      ...head("Jo <jo.inv@example.org>", "MIME-Version: 1.0", 'Content-Type: multipart/mixed; boundary="b"'),
      "",
      "--b",
      "Content-Type: text/plain",
      "",
      "Can you come?",
      "--b",
      'Content-Type: text/calendar; method=REQUEST; charset=utf-8; name="invite.ics"',
      "",
      "BEGIN:VCALENDAR",
      "VERSION:2.0",
      "METHOD:REQUEST",
      "BEGIN:VEVENT",
      "UID:1@example.org",
      "SUMMARY:Look at the",
      "  gangway",
      "LOCATION:Tarn Head",
      "DTSTART:20261201T090000Z",
      "DTEND:20261201T100000Z",
      "ORGANIZER:mailto:jo.inv@example.org",
      "END:VEVENT",
      "END:VCALENDAR",
      "--b--",
    ]);
    expect((await shown(caseId))?.parts).toEqual([
      {
        kind: "invitation",
        method: "REQUEST",
        what: "Look at the gangway",
        where: "Tarn Head",
        from: "2026-12-01T09:00:00.000Z",
        to: "2026-12-01T10:00:00.000Z",
        organiser: "jo.inv@example.org",
      },
    ]);
  });

  test("a signature and encrypted words are told of; a calendar that cannot be read is a file", async () => {
    const signed = await take([
      ...head("Sig <sig@example.org>", "MIME-Version: 1.0"),
      'Content-Type: multipart/signed; protocol="application/pgp-signature"; boundary="b"',
      "",
      "--b",
      "Content-Type: text/plain",
      "",
      "Signed words.",
      "--b",
      "Content-Type: application/pgp-signature",
      "",
      "x",
      "--b--",
    ]);
    expect(await shown(signed.caseId)).toMatchObject({
      written: "Signed words.",
      parts: [{ kind: "signed", by: "OpenPGP" }],
    });
    const sealed = await take([
      ...head("Enc <enc@example.org>", "MIME-Version: 1.0"),
      "Content-Type: application/pkcs7-mime; smime-type=enveloped-data; name=smime.p7m",
      "Content-Transfer-Encoding: base64",
      "",
      "AAAA",
    ]);
    expect(await shown(sealed.caseId)).toMatchObject({ parts: [{ kind: "encrypted", by: "S/MIME" }] });
    const broken = await take([
      ...head("Cal <cal@example.org>"),
      "Content-Type: text/calendar",
      "",
      "BEGIN:NOTHING",
    ]);
    expect(await shown(broken.caseId)).toMatchObject({
      parts: [],
      files: [{ contentType: "text/calendar" }],
    });
  });

  test("whom it went to besides is told", async () => {
    const { caseId } = await take([
      "From: Ana <ana.copies@example.org>",
      "To: desk@example.com, Jo <Jo@example.org>",
      "Cc: otto@example.net",
      "Subject: all of you",
      "",
      "hello",
    ]);
    expect((await shown(caseId))?.copies).toEqual({
      to: ["jo@example.org"],
      cc: ["otto@example.net"],
      bcc: [],
      replyTo: null,
    });
  });
});

test("mail to a further mailbox of a team is a case of that team that goes on from there", async () => {
  const team = await house.em().findOneOrFail(Team, { name: "Desk" });
  const em = house.em();
  em.create(Mailbox, { address: "groups@example.com", name: "Groups", team: em.getReference(Team, team.id) });
  await em.flush();
  const { caseId } = await take(head("Ana <ana.groups@example.org>").concat("", "We are 31."), [
    "groups@example.com",
  ]);
  expect((await caseOf(caseId)).mailbox?.address).toBe("groups@example.com");
});
