import { describe, expect, test } from "@jest/globals";
import { readMarkdown } from "../formats/markdown";
import { toPlainText } from "../document/text";
import { compose } from "./compose";
import { secondLook } from "../checks/second-look";
import { guessLanguage } from "../language/guess";
import { testInput, testSlip } from "./testing";

const narrow = (markdown: string) => toPlainText(readMarkdown(markdown).doc.content, "narrow");

describe("words for a channel without formatting", () => {
  test.each([
    ["See [the timetable](https://example.org/t).", "See the timetable: https://example.org/t."],
    ["[https://example.org/t](https://example.org/t)", "https://example.org/t"],
    ["Write to [us](mailto:desk@example.com).", "Write to us: desk@example.com."],
    ["**Bold**, *slanted* and `so`.", "Bold, slanted and so."],
    ["## Heading\n\n- one\n- two\n  1. three\n  2. four", "Heading\n\n- one\n- two\n  1. three\n  2. four"],
    [
      "| Harbour | Ticket hall |\n|---|---|\n| Osmer Quay | 05:30 to 22:00 |\n| Tarn Head | [ask](https://example.org) |",
      "Osmer Quay: 05:30 to 22:00\nTarn Head: ask: https://example.org",
    ],
    [
      "| Ship | Sails | Fare |\n|---|---|---|\n| Kittiwake | 07:40 | 36 € |\n| Old Meridian | 10:20 | 53 € |",
      "Ship, Sails, Fare\nKittiwake, 07:40, 36 €\nOld Meridian, 10:20, 53 €",
    ],
  ])("%j reads %j", (markdown, text) => expect(narrow(markdown)).toBe(text));

  test.each(["chat", "sms"])(
    "a letter by %s has no HTML, no subject and places that are its own",
    (channel) => {
      const slip = testSlip("**Hello** {$customer.first_name}, see [here](https://example.org/a). TODO");
      const input = { ...testInput([slip]), channel };
      const letter = compose(input);
      expect(letter).toMatchObject({ html: null, subject: "" });
      expect(letter.text).toBe("Hello Ottoline, see here: https://example.org/a. TODO");
      expect(letter.pieces.map((piece) => piece.text).join("")).toBe(letter.text);
      const [finding] = secondLook({
        ...input,
        letter,
        recipient: channel === "sms" ? "+447700900461" : "Ana",
        otherNames: [],
        sentReplies: [],
        standing: { is: "known", news: null, confirmed: false },
        languageOf: guessLanguage,
      }).filter((one) => one.code === "unfinished");
      expect(letter.text.slice(finding?.at?.start, finding?.at?.end)).toContain("TODO");
    },
  );

  test("a short message leaves files here and says so; a chat takes them along", () => {
    const file = { id: "1", name: "form.pdf", contentType: "application/pdf", size: 10 };
    const slip = { ...testSlip("The form is attached."), attachments: [file] };
    const codes = (channel: string, recipient: string) => {
      const input = { ...testInput([slip]), channel };
      const letter = compose(input);
      return [
        letter.attachments.length,
        ...secondLook({
          ...input,
          letter,
          recipient,
          otherNames: [],
          sentReplies: [],
          standing: { is: "known", news: null, confirmed: false },
          languageOf: guessLanguage,
        }).map((one) => one.code),
      ];
    };
    expect(codes("sms", "+44 7700 900461")).toEqual([0, "attachment-left-out", "attachment-missing"]);
    expect(codes("sms", "desk")).toContain("no-recipient");
    expect(codes("chat", "Ana")).toEqual([1]);
  });
});
