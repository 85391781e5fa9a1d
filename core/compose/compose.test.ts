import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { writtenIn } from "../language/written";
import { readMarkdown } from "../formats/markdown";
import { compose } from "./compose";
import { testContext, testInput, testSlip } from "./testing";

const text = (markdown: string, changes = {}, input = {}) =>
  compose(testInput([testSlip(markdown, changes)], input)).text;

describe("filling", () => {
  test("tokens take this case's values in the letter's language and the house's time zone", () => {
    const source =
      "The {$booking.sails_at :time precision=minute} from {$booking.from} on {$booking.sails_at :date length=long} costs {$booking.fare}.";
    expect(text(source)).toBe("The 7:40 AM from Tarn Head on November 27, 2026 costs €118.00.");
    expect(text(source, {}, { language: "de", context: testContext({ time_zone: "Europe/Berlin" }) })).toBe(
      "The 08:40 from Tarn Head on 27. November 2026 costs 118,00 €.".replaceAll("00 €", "00\u00a0€"),
    );
  });

  test("a missing value takes its fallback, and without one leaves a gap that is reported with its place", () => {
    const context = testContext({ customer: {} });
    expect(text("Hello {$customer.first_name :text fallback=there},", {}, { context })).toBe("Hello there,");
    const letter = compose(testInput([testSlip("Hello {$customer.first_name},")], { context }));
    expect(letter.text).toBe("Hello [first name],");
    expect(letter.problems).toEqual([
      expect.objectContaining({
        code: "token-missing",
        at: { in: "body", start: 6, end: 18, source: { slip: "s1", from: 7, to: 8 } },
      }),
    ]);
    expect(letter.trace).toContainEqual({
      kind: "token",
      slip: "s1",
      name: "customer.first_name",
      value: null,
      why: "the customer is not known",
    });
  });

  test("a value of nothing but white space is missing, not printed", () => {
    const context = testContext({ customer: { first_name: " \u200b\t ".replace("\u200b", "") } });
    expect(text("Hello {$customer.first_name :text fallback=there},", {}, { context })).toBe("Hello there,");
  });

  test("blanks print what was filled in, several choices joined", () => {
    const blanks = {
      harbour: {
        kind: "choice" as const,
        options: ["Osmer Quay", "Tarn Head", "Pellick"],
        many: true,
        required: true,
        printed: true,
      },
      hours: { kind: "number" as const, required: true, printed: true },
    };
    const values = { harbour: ["Osmer Quay", "Pellick"], hours: 3 };
    expect(text("At {$blank.harbour} for {$blank.hours} hours.", { blanks, values })).toBe(
      "At Osmer Quay and Pellick for 3 hours.",
    );
    const empty = compose(testInput([testSlip("For {$blank.hours} hours.", { blanks })]));
    expect(empty.text).toBe("For [hours] hours.");
    expect(empty.problems.map((problem) => problem.code)).toEqual(["blank-empty"]);
  });

  test("an empty blank that is not required leaves no gap and no doubled space", () => {
    const blanks = { extra: { kind: "text" as const, required: false, printed: true } };
    expect(text("We sail {$blank.extra} tomorrow. {$blank.extra}", { blanks })).toBe("We sail tomorrow.");
    expect(text("{$blank.extra}\n\nSee you.", { blanks })).toBe("See you.");
  });

  test("a blank's default may be a token", () => {
    const blanks = {
      name: {
        kind: "text" as const,
        required: true,
        printed: true,
        default: "{$customer.first_name :text fallback=|dear guest|}",
      },
    };
    expect(text("Hello {$blank.name}", { blanks })).toBe("Hello Ottoline");
    expect(text("Hello {$blank.name}", { blanks }, { context: testContext({ customer: {} }) })).toBe(
      "Hello dear guest",
    );
  });
});

describe("passages", () => {
  const passages = { car: { when: { value: "booking.vehicle", is: "present" as const } } };
  const noCar = { context: testContext({ booking: { from: "Pellick" } }) };

  test("a block, a list item and a table row stand only when their condition holds", () => {
    const source = [
      "One.",
      "",
      ":::passage{#car}",
      "Keep to lane 4.",
      ":::",
      "",
      "1. First",
      "2. :passage[Vehicle]{#car}",
      "3. Last",
      "",
      "| Part | Paid |",
      "|---|---|",
      "| People | yes |",
      "| :row{#car} Vehicle | yes |",
    ].join("\n");
    expect(text(source, { passages })).toBe(
      "One.\n\nKeep to lane 4.\n\n1. First\n2. Vehicle\n3. Last\n\nPart     Paid\n-------  ----\nPeople   yes\nVehicle  yes",
    );
    expect(text(source, { passages }, noCar)).toBe(
      "One.\n\n1. First\n2. Last\n\nPart    Paid\n------  ----\nPeople  yes",
    );
  });

  test("a table whose rows all go goes with its heading; a list without items goes", () => {
    const source =
      "Before.\n\n| Part | Paid |\n|---|---|\n| :row{#car} Vehicle | yes |\n\n- :passage[Lane 4]{#car}\n\nAfter.";
    expect(text(source, { passages }, noCar)).toBe("Before.\n\nAfter.");
  });

  test("otherwise stands when the condition does not hold, nested passages need every condition", () => {
    const source = ":::passage{#car}\nWith a car.\n:::\n\n:::passage{#car otherwise}\nOn foot.\n:::";
    expect(text(source, { passages })).toBe("With a car.");
    expect(text(source, { passages }, noCar)).toBe("On foot.");
    const nested = {
      ...passages,
      far: { when: { value: "booking.to", is: "equals" as const, to: "Pellick" } },
    };
    const deep = "::::passage{#car}\nA.\n\n:::passage{#far}\nB.\n:::\n::::";
    expect(text(deep, { passages: nested })).toBe("A.\n\nB.");
    expect(
      text(
        deep,
        { passages: nested },
        { context: testContext({ booking: { vehicle: "van", to: "Tarn Head" } }) },
      ),
    ).toBe("A.");
  });

  test("words under a passage go without a trace of space", () => {
    const source = "Come early :passage[with your car]{#car}, please. :passage[Lane 4.]{#car}";
    expect(text(source, { passages })).toBe("Come early with your car, please. Lane 4.");
    expect(text(source, { passages }, noCar)).toBe("Come early, please.");
  });

  test("a paragraph that the writer left empty stays", () => {
    const slip = testSlip("A");
    slip.document.content.push(
      { type: "paragraph", attrs: { passages: [] }, content: [] },
      { type: "paragraph", attrs: { passages: [] }, content: [{ type: "text", text: "B" }] },
    );
    expect(compose(testInput([slip])).text).toBe("A\n\n\n\nB");
  });

  test("each decision is in the trace, with the values that decided", () => {
    const letter = compose(testInput([testSlip(":::passage{#car}\nLane 4.\n:::", { passages })], noCar));
    expect(letter.trace).toContainEqual({
      kind: "passage",
      slip: "s1",
      name: "car",
      value: "out",
      why: "vehicle is known (booking.vehicle: missing)",
    });
  });

  test("a passage without a condition stands, and is reported", () => {
    const letter = compose(testInput([testSlip(":::passage{#boat}\nWords.\n:::")]));
    expect(letter.text).toBe("Words.");
    expect(letter.problems.map((problem) => problem.code)).toEqual(["passage-unknown"]);
  });
});

describe("values are data", () => {
  const nasty = fc.oneof(
    fc.string({ unit: "grapheme" }),
    fc.constantFrom(
      "{$case.number}",
      "{{x}}",
      "<b>&amp;</b>",
      "a\r\nBcc: x@example.org",
      "|{$customer.email}|",
      "\\{",
      "]{#car}",
      "\u202eevil",
      "'\"><script>",
    ),
  );
  const letterFor = (name: string) =>
    compose(
      testInput(
        [
          testSlip("Hello {$customer.first_name :text fallback=there}!", {
            subject: "For {$customer.first_name :text fallback=you}",
          }),
        ],
        {
          context: testContext({ customer: { first_name: name } }),
          subject: { from: "reply" },
        },
      ),
    );

  test("a value is printed once as it is, and never read again as a token", () => {
    fc.assert(
      fc.property(nasty, (name) => {
        const { text: body } = letterFor(name);
        const said = /^Hello ([\s\S]*)!$/.exec(body)?.[1] ?? "";
        const plain = name
          .replace(/\r\n?|[\u0085\u2028\u2029]/g, "\n")
          .replaceAll("\t", " ")
          .replace(/[\u0000-\u0009\u000b-\u001f\u007f-\u009f\u202a-\u202e\u2066-\u2069\ufeff]/g, "")
          .replace(/\s*\n\s*/g, " ")
          .trim();
        expect(said).toBe(plain === "" ? "there" : plain);
      }),
    );
  });

  test("a value cannot add markup to the HTML", () => {
    fc.assert(
      fc.property(nasty, (name) => {
        const tags = (html: string | null) => html?.match(/<[^>]*>/g)?.length ?? 0;
        expect(tags(letterFor("Ana").html)).toBeGreaterThan(5);
        expect(tags(letterFor(name).html)).toBe(tags(letterFor("Ana").html));
      }),
    );
  });

  test("a value cannot add a header or a line to the subject", () => {
    fc.assert(
      fc.property(nasty, (name) => {
        expect(letterFor(name).subject).not.toMatch(/[\u0000-\u001f\u007f]/);
        expect(letterFor(name).subject).toMatch(/^For .* \[SF-20417\]$/u);
      }),
    );
  });

  test("composing is repeatable and never throws, whatever the blanks hold", () => {
    const blanks = {
      note: { kind: "long_text" as const, required: true, printed: true },
      count: { kind: "number" as const, required: true, printed: true },
    };
    fc.assert(
      fc.property(fc.anything(), fc.anything(), (note, count) => {
        const input = testInput([
          testSlip("{$blank.note} {$blank.count}", { blanks, values: { note, count } as never }),
        ]);
        expect(compose(input)).toEqual(compose(input));
      }),
    );
  });
});

describe("the letter as a whole", () => {
  const signature = writtenIn("en", readMarkdown("{$agent.name}\n\n{$agent.department}").doc);
  const stationery = {
    name: "Passenger desk",
    header: writtenIn("en", readMarkdown("Sollen Sound Ferries").doc),
    footer: writtenIn("en", readMarkdown("Osmer Quay 1").doc),
    accent: "#0d5a45",
  };

  test("signature, footer and facts read in the letter’s language, those of a slip in the slip’s", () => {
    const inTwo = (english: string, german: string) => ({
      language: "en",
      text: readMarkdown(english).doc,
      others: { de: readMarkdown(german).doc },
    });
    const context = testContext({
      house: { hours: "from seven" },
      written: { "house.hours": { language: "en", others: { de: "ab sieben" } } },
    });
    const letter = compose(
      testInput(
        [
          testSlip("Auf: {$house.hours}", { language: "de" }),
          testSlip("Open: {$house.hours}", { id: "s2", language: "en" }),
        ],
        {
          context,
          language: "de",
          signature: inTwo("Regards", "Grüße"),
          stationery: {
            name: "Desk",
            accent: "#000000",
            header: null,
            footer: inTwo("Open {$house.hours}", "Offen {$house.hours}"),
          },
        },
      ),
    );
    expect(letter.text.split("\n\n")).toEqual([
      "Auf: ab sieben",
      "Open: from seven",
      "Grüße",
      "Offen ab sieben",
    ]);
    expect(
      compose(testInput([testSlip("x")], { language: "fr", signature: inTwo("Regards", "Grüße") })).text,
    ).toContain("Regards");
  });

  test("the signature stands once at the end, however many slips are stacked", () => {
    const slips = [
      testSlip("Hello.", { id: "a", part: "opening" }),
      testSlip("Yes.", { id: "b" }),
      testSlip("Safe travels,", { id: "c", part: "closing" }),
    ];
    const letter = compose(testInput(slips, { signature, stationery }));
    expect(letter.text).toBe(
      "Hello.\n\nYes.\n\nSafe travels,\n\nMaren Oduya\n\nPassenger desk\n\nOsmer Quay 1",
    );
    expect(letter.html).toContain("Sollen Sound Ferries");
  });

  test("only emails carry stationery and a subject", () => {
    const letter = compose(testInput([testSlip("Yes.")], { channel: "chat", stationery }));
    expect(letter.text).toBe("Yes.");
    expect(letter.subject).toBe("");
  });

  test("the subject stays the thread's unless the agent agrees to the reply's", () => {
    const slip = testSlip("Yes.", { subject: "Your sailing from {$booking.from}" });
    expect(compose(testInput([slip])).subject).toBe("Re: friday boat?? [SF-20417]");
    expect(compose(testInput([slip], { threadSubject: "AW: Re: friday boat?? [SF-20417]" })).subject).toBe(
      "Re: friday boat?? [SF-20417]",
    );
    expect(compose(testInput([slip], { subject: { from: "reply" } })).subject).toBe(
      "Your sailing from Tarn Head [SF-20417]",
    );
    expect(compose(testInput([slip], { subject: { from: "own", text: "Other\nthing" } })).subject).toBe(
      "Other thing [SF-20417]",
    );
    expect(compose(testInput([slip], { threadSubject: null })).subject).toBe(
      "Your sailing from Tarn Head [SF-20417]",
    );
  });

  test("a picture stands inline by Content-ID and is not attached again", () => {
    const map = { id: "map.png", name: "map.png", contentType: "image/png", size: 10 };
    const form = { id: "form.pdf", name: "form.pdf", contentType: "application/pdf", size: 10 };
    const slip = testSlip("Here: ![The quay](map.png)", { attachments: [map, form] });
    const letter = compose(testInput([slip], { contentId: (id) => `${id}@example.org` }));
    expect(letter.html).toContain('<img src="cid:map.png@example.org" alt="The quay"');
    expect(letter.text).toBe("Here: [The quay]");
    expect(letter.pictures).toEqual([map]);
    expect(letter.attachments).toEqual([form]);
  });

  test("a link's address takes values, encoded", () => {
    const letter = compose(
      testInput([
        testSlip("[Change it](https://example.org/c?ref={$booking.reference}&name={$customer.full_name})"),
      ]),
    );
    expect(letter.text).toBe("Change it <https://example.org/c?ref=QW7-K2M&name=Ottoline%20Achterberg>");
  });
});
