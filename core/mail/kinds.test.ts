import { describe, expect, test } from "@jest/globals";
import { failureWords, readFailure } from "./failure";
import { kindOf, sealOf } from "./kind";

const headers = (...lines: string[]) =>
  lines.map((line) => ({
    name: line.slice(0, line.indexOf(":")).toLowerCase(),
    value: line.slice(line.indexOf(":") + 1),
  }));

describe("what a message is", () => {
  test.each([
    [["Subject: hello"], "message"],
    [["Auto-Submitted: no"], "message"],
    [["Auto-Submitted: auto-replied; owner-email=a@example.org"], "automatic"],
    [["Auto-Submitted: AUTO-GENERATED"], "automatic"],
    [["Precedence: auto_reply"], "automatic"],
    [["X-Autoreply: yes"], "automatic"],
    [["Content-Type: multipart/report; report-type=disposition-notification"], "automatic"],
    [["List-Id: The timetable <timetable.example.org>"], "list"],
    [["List-Unsubscribe: <mailto:leave@example.org>"], "list"],
    [["Precedence: bulk"], "list"],
    [["Content-Type: multipart/digest; boundary=x"], "list"],
    [["List-Id: <x.example.org>", "Auto-Submitted: auto-replied"], "automatic"],
  ])("%j is %s", (lines, kind) => expect(kindOf(headers(...lines), false)).toBe(kind));

  test("a report of failure is that, whatever else it says", () => {
    expect(kindOf(headers("Auto-Submitted: auto-replied"), true)).toBe("failure");
  });

  test.each([
    [
      'Content-Type: multipart/signed; protocol="application/pkcs7-signature"',
      "",
      { kind: "signed", by: "S/MIME" },
    ],
    [
      'Content-Type: multipart/signed; protocol="application/pgp-signature"',
      "",
      { kind: "signed", by: "OpenPGP" },
    ],
    [
      'Content-Type: multipart/encrypted; protocol="application/pgp-encrypted"',
      "",
      { kind: "encrypted", by: "OpenPGP" },
    ],
    [
      "Content-Type: application/pkcs7-mime; smime-type=enveloped-data",
      "",
      { kind: "encrypted", by: "S/MIME" },
    ],
    ["Content-Type: application/x-pkcs7-mime; smime-type=signed-data", "", { kind: "signed", by: "S/MIME" }],
    ["Content-Type: text/plain", "-----BEGIN PGP MESSAGE-----\n\nx", { kind: "encrypted", by: "OpenPGP" }],
    ["Content-Type: text/plain", "-----BEGIN PGP SIGNED MESSAGE-----\n", { kind: "signed", by: "OpenPGP" }],
    ["Content-Type: text/plain", "hello", null],
  ])("%s with %j is sealed as %j", (line, text, seal) => expect(sealOf(headers(line), text)).toEqual(seal));
});

describe("a report of failure", () => {
  const status = [
    "Reporting-MTA: dns; mx.example.net",
    "",
    "Final-Recipient: rfc822; Ana@Example.org",
    "Action: failed",
    "Status: 5.1.1 (no such mailbox)",
    "Diagnostic-Code: smtp; 550 5.1.1 <ana@example.org>:",
    "  no such mailbox",
  ];

  test("says whom it is about, why, and which letter", () => {
    const failure = readFailure(
      status.join("\r\n"),
      "From: desk@example.com\r\nMessage-ID: <a1@example.com>\r\n",
    );
    expect(failure).toEqual({
      recipient: "ana@example.org",
      action: "failed",
      status: "5.1.1",
      words: "550 5.1.1 <ana@example.org>: no such mailbox",
      messageId: "<a1@example.com>",
    });
    expect(failure && failureWords(failure)).toBe("550 5.1.1 <ana@example.org>: no such mailbox");
    expect(
      failureWords({
        recipient: "a@example.org",
        action: "failed",
        status: "5.2.2",
        words: null,
        messageId: null,
      }),
    ).toBe("5.2.2 (a@example.org)");
  });

  test("that is only late says so; of several the worst counts; one that arrived is none", () => {
    const late = status.map((line) => line.replace("failed", "Delayed").replace("5.1.1 (", "4.4.1 ("));
    expect(readFailure(late.join("\n"), "")).toMatchObject({
      action: "delayed",
      status: "4.4.1",
      messageId: null,
    });
    expect(readFailure([...late, "", ...status.slice(2)].join("\n"), "")).toMatchObject({ action: "failed" });
    expect(readFailure(status.join("\n").replace("failed", "delivered"), "")).toBeNull();
    expect(readFailure("", "")).toBeNull();
  });
});
