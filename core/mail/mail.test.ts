import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { flowed, flowOf, unflowed } from "./flowed";
import { splitQuoted } from "./quoting";
import { answerSubject, bareSubject, caseNumberIn, withCaseNumber } from "./subject";
import { answeredIds, referencesFor } from "./threading";

describe("subjects", () => {
  test("answers keep the thread's words under one Re: and one case number", () => {
    expect(answerSubject("AW: Re: RE[2]: Fwd: friday boat?? [SF-20417]", "SF-20417")).toBe(
      "Re: friday boat?? [SF-20417]",
    );
    expect(answerSubject("", "SF-1")).toBe("Re: your message [SF-1]");
    expect(bareSubject("Regarding: x")).toBe("Regarding: x");
  });

  test("stay on one line whatever they are made of", () => {
    expect(withCaseNumber("a\r\nBcc: b@example.org", "SF-1")).toBe("a Bcc: b@example.org [SF-1]");
    fc.assert(
      fc.property(fc.string(), (subject) => {
        expect(answerSubject(subject, "SF-1")).not.toMatch(/[\u0000-\u001f\u007f]/);
        expect(answerSubject(answerSubject(subject, "SF-1"), "SF-1")).toBe(answerSubject(subject, "SF-1"));
      }),
    );
  });

  test("name their case", () => {
    expect(caseNumberIn("Re: x [SF-20417]", "SF")).toBe(20417);
    expect(caseNumberIn("about sf-12", "SF")).toBe(12);
    expect(caseNumberIn("ASF-12 and SF-x", "SF")).toBeNull();
  });
});

describe("quoted history", () => {
  test.each([
    [
      "Yes please.\n\nOn Mon, 23 Nov 2026 at 09:12, Maren <desk@example.com> wrote:\n> Hello\n> again",
      "Yes please.",
    ],
    ["Ja.\n\nAm 23.11.26 um 09:12 schrieb Maren:\n> Hallo", "Ja."],
    ["Oui\n\nLe lun. 23 nov. 2026 à 09:12, Passenger desk <desk@example.com>\na écrit :\n\n> Bonjour", "Oui"],
    ["ok\n\n-----Original Message-----\nFrom: desk@example.com\nhello", "ok"],
    ["Thanks\n\nFrom: Desk <desk@example.com>\nSent: Monday\nTo: Ana\nSubject: Re: x\n\nHello", "Thanks"],
    ["fine\n> old\n> older\n", "fine"],
  ])("is split off %j", (text, written) => {
    const split = splitQuoted(text);
    expect(split.written).toBe(written);
    expect(split.quoted).not.toBe("");
  });

  test.each([
    ["> when do we sail?\nThat is what I ask.\n> and who pays?\nMe?"],
    ["From: nowhere\nI wrote this myself."],
  ])("stays where the writer answers between it: %j", (text) => {
    expect(splitQuoted(text)).toEqual({ written: text, quoted: "" });
  });

  test("loses no line", () => {
    const line = fc.constantFrom(
      "hello",
      "> quoted",
      "",
      "On Monday, Ana Brandt wrote:",
      "From: a",
      "To: b",
      "Subject: c",
      "-----Original Message-----",
    );
    fc.assert(
      fc.property(fc.array(line), (lines) => {
        const { written, quoted } = splitQuoted(lines.join("\n"));
        expect(
          [written, quoted]
            .join("\n")
            .split("\n")
            .filter((one) => one !== ""),
        ).toEqual(lines.filter((one) => one !== ""));
      }),
    );
  });
});

describe("threading", () => {
  test("the nearest message comes first", () => {
    expect(answeredIds("<c@x>", "<a@x> <b@x>\r\n <c@x>")).toEqual(["<c@x>", "<b@x>", "<a@x>"]);
    expect(answeredIds(undefined, undefined)).toEqual([]);
  });
  test("an answer refers to the thread's first and latest messages", () => {
    expect(referencesFor({ messageId: "<b>", references: ["<a>"] })).toEqual(["<a>", "<b>"]);
    const long = referencesFor({
      messageId: "<z>",
      references: Array.from({ length: 50 }, (_, index) => `<${index}>`),
    });
    expect([long.length, long[0], long.at(-1)]).toEqual([30, "<0>", "<z>"]);
  });
});

describe("format=flowed", () => {
  test("breaks long lines softly and stuffs what would be misread", () => {
    const text = `${"word ".repeat(30).trim()}\n> quoted\nFrom here\n  indented`;
    const lines = flowed(text).split("\n");
    expect(Math.max(...lines.map((line) => line.length))).toBeLessThanOrEqual(73);
    expect(lines).toContain(" From here");
    expect(unflowed(flowed(text))).toBe(text);
  });
  test("reads back as the same text", () => {
    const line = fc
      .array(fc.constantFrom("a", "word", "From", ">", "longer-than-most"), { maxLength: 40 })
      .map((words) => words.join(" "));
    fc.assert(
      fc.property(fc.array(line), (lines) => {
        const text = lines.join("\n");
        expect(unflowed(flowed(text))).toBe(text);
      }),
    );
  });
});

test("a raw message tells whether and how its text flows", () => {
  expect(
    flowOf("From: a\r\nContent-Type: text/plain; charset=utf-8;\r\n format=flowed; delsp=yes\r\n\r\nx"),
  ).toEqual({ deleteSpace: true });
  expect(
    flowOf("Content-Type: multipart/mixed\r\n\r\n--b\r\nContent-Type: text/plain; format=flowed\r\n"),
  ).toEqual({ deleteSpace: false });
  expect(flowOf("Content-Type: text/html; format=flowed\r\n")).toBeNull();
  expect(unflowed("a \nb", true)).toBe("ab");
});
