import { describe, expect, test } from "@jest/globals";
import { ferryDetails } from "../../demo/details";
import { writtenIn } from "../language/written";
import { guessLanguage } from "../language/guess";
import { compose } from "../compose/compose";
import { testContext, testInput, testSlip } from "../compose/testing";
import { readMarkdown } from "../formats/markdown";
import { catalogue } from "../tokens/catalogue";
import type { CheckInput } from "./check";
import { findName, nameCandidates } from "./names";
import { secondLook, stopsSending } from "./second-look";

interface Given {
  slip?: Parameters<typeof testSlip>[1];
  input?: Parameters<typeof testInput>[1];
  check?: Partial<CheckInput>;
}

function look(markdown: string, { slip, input, check }: Given = {}) {
  const composed = testInput([testSlip(markdown, slip)], input);
  const letter = compose(composed);
  const checks = secondLook({ ...checkInput(composed), letter, ...check });
  return {
    letter,
    checks,
    codes: checks.map(({ severity, code }) => `${severity}: ${code}`),
    words: checks.map(({ at }) =>
      at ? (at.in === "body" ? letter.text : letter.subject).slice(at.start, at.end) : null,
    ),
  };
}

const file = (name: string, size = 1000) => ({ id: name, name, contentType: "application/pdf", size });

describe("files that go along", () => {
  test("a program is worth a look, of the agent's own and of a reply's; a plain file is not", () => {
    const attached = look("The form is attached.", {
      slip: { attachments: [file("form.pdf"), file("fares.xlsm")] },
      input: { attachments: [file("setup.exe")] },
    });
    expect(attached.codes).toEqual(["look: attachment-risky", "look: attachment-risky"]);
    expect(attached.checks.map(({ message }) => message)).toEqual([
      expect.stringMatching(/^“fares\.xlsm” holds macros/),
      expect.stringMatching(/^“setup\.exe” is a program/),
    ]);
  });

  test("a picture says what it shows", () => {
    const input = { attachments: [{ ...file("7"), contentType: "image/png" }] };
    expect(look("![the ramp](7)", { input }).codes).toEqual([]);
    expect(look("Here: ![](7)", { input }).codes).toEqual(["look: picture-without-words"]);
  });
});

test("a letter in order has nothing to see to", () => {
  expect(
    look("Hello {$customer.first_name},\n\nyour {$booking.vehicle} has a place.\n\nKind regards,").codes,
  ).toEqual([]);
});

describe("stops sending", () => {
  test.each([[null], ["  "], ["ottoline at example.org"], ["a@b@c.example"]])(
    "no usable recipient: %j",
    (recipient) => {
      expect(look("Yes.", { check: { recipient } }).codes).toEqual(["stop: no-recipient"]);
    },
  );

  test("a required blank that is empty, a token without value, both at their words", () => {
    const result = look("At {$blank.hour} on {$booking.new_ship}.", {
      slip: { blanks: { hour: { kind: "time", required: true, printed: true } } },
    });
    expect(result.codes).toEqual(["stop: blank-empty", "stop: token-missing"]);
    expect(result.words).toEqual(["[hour]", "[ship of the new sailing]"]);
    expect(stopsSending(result.checks)).toBe(true);
  });

  test("braces that somebody typed, but not those in a customer's own name", () => {
    expect(look("Case {$case.number and {customer.name}").codes).toEqual([
      "stop: leftover-braces",
      "stop: leftover-braces",
    ]);
    const context = testContext({ customer: { first_name: "{$case.number}", full_name: "{$case.number}" } });
    expect(look("Hello {$customer.first_name},", { input: { context } }).codes).toEqual([]);
  });

  test("nothing to say, even under a signature", () => {
    expect(
      look("", { input: { signature: writtenIn("en", readMarkdown("{$agent.name}").doc) } }).codes,
    ).toEqual(["stop: nothing-to-say"]);
  });

  test("attachments over the limit, all taken together", () => {
    const attachments = [file("a.pdf", 12 * 1024 * 1024), file("b.pdf", 9 * 1024 * 1024)];
    expect(look("Both are attached.", { input: { attachments } }).codes).toEqual([
      "stop: attachments-too-large",
      "look: attachment-risky",
    ]);
  });
});

describe("worth a look", () => {
  test("another customer of ours", () => {
    const result = look("I wrote to Halvard Moe about it.", { check: { otherNames: ["Halvard Moe"] } });
    expect(result.codes).toEqual(["look: other-customer"]);
    expect(result.words).toEqual(["Halvard Moe"]);
  });

  test.each([
    "Hello Ana,",
    "Dear Mrs Brandt,",
    "Hallo Herr Petersen,",
    "Bonjour Inès,",
    "Hola Ana:",
    "Good morning Ana Maria",
  ])("a greeting by another name: %s", (greeting) => {
    expect(look(`${greeting}\n\nyes.`).codes).toEqual(["look: other-greeting"]);
  });

  test.each([
    "Hello Ottoline,",
    "Dear Ms Achterberg,",
    "Hello there,",
    "Hello and thank you,",
    "Dear all,",
    "Hi Ottoline Achterberg!",
    "Sehr geehrte Damen und Herren,",
    "{$customer.first_name}, hello",
  ])("a fitting greeting: %s", (greeting) => {
    expect(look(`${greeting}\n\nyes.`).codes).toEqual([]);
  });

  test("a sign-off that stands twice, by its words or by the agent's name", () => {
    expect(look("Yes.\n\nKind regards,\n\nBest wishes,").words).toEqual(["Best wishes,"]);
    const signature = writtenIn("en", readMarkdown("{$agent.name}").doc);
    expect(look("Yes.\n\nMaren Oduya", { input: { signature } }).codes).toEqual(["look: sign-off-twice"]);
  });

  test("a paragraph that stands twice, but not a short line or what the house says below", () => {
    const long = "Dogs are welcome on deck 3 and in the aft lounge, on a lead.";
    const twice = look(`${long}\n\nYes.\n\n${long}`);
    expect(twice.codes).toEqual(["look: said-twice"]);
    expect(twice.checks[0]?.message).toBe("“Dogs are welcome on deck 3 and in the af…” is said twice.");
    expect(twice.checks[0]?.at?.start).toBe(twice.letter.text.lastIndexOf("Dogs are"));
    expect(look("Yes, do.\n\nYes, do.").codes).toEqual([]);
    expect(look(long, { input: { signature: writtenIn("en", readMarkdown(long).doc) } }).codes).toEqual([]);
  });

  test("an attachment that is named and missing, and the reverse", () => {
    expect(look("The form is attached.").words).toEqual(["attached"]);
    expect(look("Das Formular finden Sie anbei.").codes).toEqual(["look: attachment-missing"]);
    expect(look("Here you are.", { input: { attachments: [file("form.pdf")] } }).codes).toEqual([
      "look: attachment-unmentioned",
    ]);
    expect(look("The form is attached.", { input: { attachments: [file("form.pdf")] } }).codes).toEqual([]);
  });

  test("a subject that is no longer the thread's", () => {
    expect(look("Yes.", { input: { subject: { from: "own", text: "Refund" } } }).codes).toEqual([
      "look: subject-changed",
    ]);
    expect(
      look("Yes.", { input: { subject: { from: "own", text: "AW: Friday boat??".toLowerCase() } } }).codes,
    ).toEqual([]);
  });

  test("a reply that this case had before, an unfinished mark, a link to elsewhere", () => {
    expect(look("Yes.", { check: { sentReplies: ["put-off"] } }).codes).toEqual(["look: sent-before"]);
    expect(look("Sail at TODO, or …fill this.").words).toEqual(["TODO", "…fill"]);
    const result = look(
      "See [www.example.org](https://example.net/claims) and [our page](https://example.net) and [example.org](https://www.example.org/a).",
    );
    expect(result.codes).toEqual(["look: link-differs"]);
    expect(result.words).toEqual(["www.example.org"]);
  });
});

test("a finding points into the slip that the words came from", () => {
  const { checks } = look("Fine.\n\nHello **Ana** and all.");
  expect(checks[0]?.at?.source).toEqual({ slip: "s1", from: 14, to: 25 });
});

describe("names", () => {
  test("stretches that may be names are keys to look up, across scripts", () => {
    expect(nameCandidates("Please ask Halvard Moe, not 李 小龍.")).toEqual(
      expect.arrayContaining(["halvard moe", "李 小龍"]),
    );
    expect(nameCandidates("no capital letters here")).toEqual([]);
  });
  test("are found as whole words only", () => {
    expect(findName("Anna Moerk and Anna Moe.", "anna moe")).toEqual({ start: 15, end: 23 });
    expect(findName("Anna Moerk", "Anna Moe")).toBeNull();
  });
});

describe("braces", () => {
  test("those that the writer escaped are sent; those that were left over stop sending, however they are formatted", () => {
    expect(look("Write \\{$case.number\\} or \\{\\{name\\}\\}.").codes).toEqual([]);
    expect(look("Write \\{$case.number\\}.").letter.text).toBe("Write {$case.number}.");
    expect(look("Write {$case.**number**, please.").codes).toEqual(["stop: leftover-braces"]);
  });
});

describe("blanks that nobody answered", () => {
  const passages = {
    refund: { when: { value: "blank.refund", is: "equals" as const, to: true } },
    van: {
      when: {
        all: [
          { value: "booking.vehicle", is: "equals" as const, to: "van" },
          { value: "blank.height", is: "more" as const, to: 2 },
        ],
      },
    },
  };
  const steering = (kind: "yes_no" | "number", required = true) =>
    ({ kind, required, printed: false, label: `${kind}?` }) as const;
  const words =
    ":::passage{#refund}\nYou get it back.\n:::\n\n:::passage{#refund otherwise}\nWe keep it.\n:::";

  test("a yes or no that only steers passages stops sending until it is answered, either way", () => {
    const given = (values = {}) =>
      look(words, { slip: { passages, blanks: { refund: steering("yes_no") }, values } });
    expect(given().codes).toEqual(["stop: blank-empty"]);
    expect(given().checks[0]).toMatchObject({ blank: { slip: "s1", name: "refund" } });
    expect(given({ refund: "yes" }).codes).toEqual(["stop: blank-empty"]);
    expect(given({ refund: false }).codes).toEqual([]);
    expect(given({ refund: true }).codes).toEqual([]);
  });

  test("one on which nothing depends here is not asked for", () => {
    const blanks = { height: steering("number") };
    const tall = ":::passage{#van}\nIt is a tall van.\n:::\n\nSee you.";
    const slip = { passages, blanks };
    expect(look(tall, { slip }).codes).toEqual(["stop: blank-empty"]);
    const onFoot = { context: testContext({ booking: {} }) };
    expect(look(tall, { slip, input: onFoot }).codes).toEqual([]);
    expect(look("See you.", { slip }).codes).toEqual([]);
    expect(look(tall, { slip: { passages, blanks: { height: steering("number", false) } } }).codes).toEqual(
      [],
    );
  });

  test("a choice that holds no option of its own stops sending, also where it may be left empty", () => {
    const blanks = {
      ship: { kind: "choice" as const, options: ["Kittiwake"], many: false, required: false, printed: true },
    };
    expect(look("On {$blank.ship}.", { slip: { blanks, values: { ship: "Titanic" } } }).codes).toEqual([
      "stop: blank-empty",
    ]);
    expect(look("We sail {$blank.ship} today.", { slip: { blanks, values: {} } }).codes).toEqual([]);
  });

  test("names are looked up among a reply’s own blanks only", () => {
    for (const name of ["constructor", "toString", "__proto__", "hasOwnProperty"]) {
      const { codes, letter } = look(`Well {$blank.${name}} then.`);
      expect(codes).toEqual(["stop: blank-unknown"]);
      expect(letter.text).toContain("[");
      expect(look(`Well {$house.${name}} then.`).codes).toEqual(["stop: token-unknown"]);
    }
  });
});

describe("one language in a letter", () => {
  const opening = (language: string) =>
    testSlip("Buenos días:", { id: "o", part: "opening", reply: "dias", title: "Buenos días", language });
  const answer = testSlip("You get your money back within days.", { title: "Refund", language: "en-GB" });

  test("an opening in another language than the answer is named; the same in another region is fine", () => {
    const composed = testInput([opening("es"), answer]);
    const found = secondLook({ ...checkInput(composed) });
    expect(found).toMatchObject([
      {
        severity: "look",
        code: "languages-differ",
        message: "The opening “Buenos días” is in Spanish, the answer “Refund” in British English.",
        at: { source: { slip: "o" } },
      },
    ]);
    expect(secondLook(checkInput(testInput([opening("en"), answer])))).toEqual([]);
  });

  test("own words, house facts and the signature are told by their words", () => {
    const context = testContext({
      house: { hours: "Unsere Schalter sind montags bis freitags von neun bis fünf Uhr geöffnet." },
    });
    const own = testSlip("Ihre Überfahrt fällt wegen starkem Wind leider aus. {$house.hours}", {
      id: "own",
      reply: null,
      title: "Your own words",
      language: "en",
    });
    const signature = writtenIn(
      "en",
      readMarkdown("Con un cordial saludo de todo el equipo de atención al cliente").doc,
    );
    const tokens = catalogue({
      details: ferryDetails,
      houseFacts: [{ key: "hours", label: "hours", type: "long_text", example: "" }],
    });
    const found = secondLook(checkInput(testInput([answer, own], { context, signature, tokens })));
    expect(found.filter((one) => one.code === "languages-differ").map((one) => one.message)).toEqual([
      expect.stringMatching(/^What you wrote is in German, the answer “Refund”/),
      expect.stringMatching(/^The house fact “Unsere Schalter.* is in German/),
      expect.stringMatching(/^The signature is in Spanish/),
    ]);
  });
});

describe("what the house keeps in several languages", () => {
  const others = { de: "von 7 bis 19 Uhr" };
  const written = { "house.hours": { language: "en", others } };
  const tokens = catalogue({
    houseFacts: [{ key: "hours", label: "opening hours", type: "text", example: "" }],
  });
  const facts = (more: object = {}) =>
    testContext({ house: { hours: "from seven to seven" }, written: { ...written, ...more } });
  const notes = (
    language: string,
    input: Parameters<typeof testInput>[1] = {},
    words = "{$house.hours}.",
  ) => {
    const slip = testSlip(words, { language });
    const found = secondLook(checkInput(testInput([slip], { context: facts(), tokens, language, ...input })));
    return found.filter((one) => one.code === "language-lacks");
  };

  test("reads in the letter’s language, and is pointed at where nobody wrote it in that", () => {
    expect(notes("en-GB")).toEqual([]);
    expect(notes("de-AT")).toEqual([]);
    expect(notes("fr")).toMatchObject([
      {
        severity: "look",
        message: "Opening hours has no French text: it reads in English.",
        at: { in: "body", start: 0, end: "from seven to seven".length },
      },
    ]);
  });

  test("is of no matter where it says no words, or reads the same in every language", () => {
    const numbers = testContext({ house: { hours: "07:00–19:00" }, written });
    expect(notes("fr", { context: numbers })).toEqual([]);
    const same = facts({ "house.hours": { language: null, others: {} } });
    expect(notes("fr", { context: same })).toEqual([]);
  });

  test("counts for signature, header and footer, each by the words that it has of its own", () => {
    const signature = writtenIn("en", readMarkdown("Kind regards\n\n{$agent.name}").doc);
    const stationery = {
      name: "Desk",
      accent: "#000000",
      header: writtenIn("en", readMarkdown("**{$house.name}**").doc),
      footer: {
        language: "en",
        text: readMarkdown("Call us").doc,
        others: { fr: readMarkdown("Appelez").doc },
      },
    };
    const said = (language: string, channel = "email") =>
      notes(language, { signature, stationery, channel }, "x").map((one) => one.message.split(" has ")[0]);
    expect(said("en")).toEqual([]);
    expect(said("fr")).toEqual(["The signature"]);
    expect(said("de")).toEqual(["The signature", "The footer"]);
    // A text message carries no stationery.
    expect(said("de", "sms")).toEqual(["The signature"]);
  });

  test("counts for the name of the team that an email comes from, printed or not, once", () => {
    const context = facts({ "agent.team": { language: "en", others: { de: "Fahrgäste" } } });
    context.agent.team = "Passenger desk";
    const said = (language: string, words = "x", channel = "email") =>
      notes(language, { context, channel }, words).map((one) => one.message);
    expect(said("de")).toEqual([]);
    expect(said("fr")).toEqual(["“Passenger desk”, as the sender, has no French text: it reads in English."]);
    expect(said("fr", "x", "chat")).toEqual([]);
    expect(said("fr", "{$agent.team}")).toHaveLength(1);
  });
});

describe("to whom", () => {
  const to = (standing: CheckInput["standing"]) => look("Yes.", { check: { standing } }).codes;
  test("an address that is not known to be the customer’s stops sending until it is confirmed", () => {
    const news = "jo@example.net is not known to be Ottoline’s.";
    expect(to({ is: "new", news, confirmed: false })).toEqual(["stop: recipient-unknown"]);
    expect(to({ is: "new", news, confirmed: true })).toEqual([]);
  });

  test("a mailbox of ours stops it, confirmed or not", () => {
    expect(to({ is: "ours", news: null, confirmed: true })).toEqual(["stop: recipient-ours"]);
  });
});

function checkInput(composed: ReturnType<typeof testInput>): CheckInput {
  return {
    ...composed,
    letter: compose(composed),
    recipient: "ottoline@example.org",
    standing: { is: "known", news: null, confirmed: false },
    otherNames: [],
    sentReplies: [],
    languageOf: guessLanguage,
  };
}

test("somebody new beside the customer is worth a look, the more where the booking is told", () => {
  const look = (words: string, strangers: string[]) => {
    const input = testInput([testSlip(words)]);
    const letter = compose(input);
    return secondLook({
      ...input,
      letter,
      recipient: "ottoline@example.org",
      otherNames: [],
      sentReplies: [],
      standing: { is: "known", news: null, confirmed: false },
      languageOf: () => null,
      strangers,
    }).map((one) => `${one.severity}: ${one.message}`);
  };
  expect(look("Yes.", [])).toEqual([]);
  expect(look("Yes.", ["x@example.net"])).toEqual([
    "look: x@example.net is new on this case: they read what the customer reads.",
  ]);
  expect(look("{$booking.reference} sails.", ["x@example.net"])).toEqual([
    "look: x@example.net is new on this case, and would read of the customer’s booking.",
  ]);
});

describe("fields that a case is to have", () => {
  const field = (changes: object = {}) => ({
    ...{ of: "case" as const, key: "harbour", label: "Harbour", type: "text" as const, example: "x" },
    ...{ options: [], topics: ["bicycles"], required: true, retired: false },
    ...changes,
  });
  const codes = (changes: object, context: Parameters<typeof testContext>[0]) => {
    const tokens = catalogue({ details: ferryDetails, fields: [field(changes)] });
    return look("Come.", { input: { tokens, context: testContext(context) }, check: { tokens } }).codes;
  };
  const bicycles = (more: object = {}) => ({ case: { topic: "bicycles", ...more } });

  test("are worth a look where they are not filled in, on cases of their topics", () => {
    expect(codes({}, bicycles())).toEqual(["look: field-missing"]);
    expect(codes({}, bicycles({ harbour: "Tarn Head" }))).toEqual([]);
    expect(codes({}, { case: { topic: "dogs" } })).toEqual([]);
    expect(codes({}, { case: {} })).toEqual([]);
    expect(codes({ topics: [] }, { case: {} })).toEqual(["look: field-missing"]);
  });

  test("are not missed where they are not required, retired, or of an organisation that the customer has not", () => {
    expect(codes({ required: false }, bicycles())).toEqual([]);
    expect(codes({ retired: true }, bicycles())).toEqual([]);
    expect(codes({ of: "organisation", topics: [] }, { organisation: {} })).toEqual([]);
    expect(codes({ of: "organisation", topics: [] }, { organisation: { name: "School" } })).toEqual([
      "look: field-missing",
    ]);
  });
});
