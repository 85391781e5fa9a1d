import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { re2Patterns } from "../conditions/re2";
import { KeptCounts } from "./counts";
import { decide, MOST_ON_THREAD, whyInWords } from "./decide";
import { ownAddresses, whyNever } from "./loop";
import { addressIn, incomingSchema, threadOf } from "./message";
import { rehearsal } from "./rehearse";
import { standingRuleSchema, standingRulesSchema } from "./rule";

const own = ownAddresses(["Ferry Desk <desk@example.com>"]);
const rule = (given: object = {}) =>
  standingRuleSchema.parse({
    ...{ id: "got-it", name: "Got it", reply: "we-have-it", mode: "send" },
    ...{ switched_on_at: "2026-11-01T00:00:00Z", ...given },
  });
const message = (given: object = {}) =>
  incomingSchema.parse({
    ...{ id: "m1", at: "2026-11-25T10:00:00Z", channel: "email", mailbox: "desk@example.com" },
    ...{
      from: "Ana Quill <ana@example.org>",
      to: "desk@example.com",
      subject: "boat",
      body: "When does it sail?",
    },
    ...given,
  });
const at = (minutes: number) => new Date(Date.parse("2026-11-25T10:00:00Z") + minutes * 60_000).toISOString();
const asked = (rules: object[], counts = new KeptCounts()) => ({
  ...{ rules: rules.map(rule), own, counts, patterns: re2Patterns },
});
/** What a rule that is for all does with a message. */
const doing = (given: object) => decide(message(given), asked([{}])).said[0]?.does;

describe("what is never answered", () => {
  test.each([
    [{ headers: { "Auto-Submitted": "auto-replied" } }, "a program sent it"],
    [{ headers: { "AUTO-SUBMITTED": 'auto-generated; type="vacation"' } }, "a program sent it"],
    [{ headers: { "auto-submitted": 'auto-notified; owner-email="x@example.org"' } }, "a program sent it"],
    [{ headers: { "auto-submitted": "(by hand, nearly) auto-replied" } }, "a program sent it"],
    [{ headers: { "auto-submitted": ["no", "auto-replied"] } }, "a program sent it"],
    [{ headers: { Precedence: "Bulk" } }, "it came by a list"],
    [{ headers: { Precedence: "junk" } }, "it came by a list"],
    [{ headers: { Precedence: "list" } }, "it came by a list"],
    [{ headers: { Precedence: "auto_reply" } }, "a program sent it"],
    [{ headers: { "List-Id": "Quay news <news.example.org>" } }, "it came by a list"],
    [{ headers: { "list-unsubscribe": "<mailto:off@example.org>" } }, "it came by a list"],
    [{ headers: { "X-Auto-Response-Suppress": "OOF, AutoReply" } }, "asks for no automatic answers"],
    [{ headers: { "x-auto-response-suppress": "All" } }, "asks for no automatic answers"],
    [{ headers: { "X-Autoreply": "yes" } }, "a program sent it"],
    [{ headers: { "Content-Type": "multipart/report; report-type=delivery-status" } }, "a delivery report"],
    [
      { headers: { "Content-Type": "Multipart/Report; report-type=disposition-notification" } },
      "a delivery report",
    ],
    [{ headers: { "X-Failed-Recipients": "ana@example.org" } }, "a delivery report"],
    [{ return_path: "" }, "return path is empty"],
    [{ return_path: "<>" }, "return path is empty"],
    [{ headers: { "Return-Path": "<>" } }, "return path is empty"],
    [{ return_path: "owner-quay@example.org" }, "program’s address"],
    [{ return_path: "<quay-request@example.org>" }, "program’s address"],
    [{ from: "MAILER-DAEMON@example.net" }, "program’s address"],
    [{ from: "Mail Delivery Subsystem <mailer-daemon@example.net>" }, "program’s address"],
    [{ from: "postmaster@example.net" }, "program’s address"],
    [{ from: "bounces+17=ana@example.net" }, "program’s address"],
    [{ from: "quay-owner@example.net" }, "program’s address"],
    [{ from: "no-reply@example.net" }, "reads no answers"],
    [{ from: "NoReply@example.net" }, "reads no answers"],
    [{ from: "tickets.do_not_reply@example.net" }, "reads no answers"],
    [{ from: "noreply+4711@example.net" }, "reads no answers"],
    [{ from: "ana@example.org", headers: { Sender: "no-reply@example.net" } }, "reads no answers"],
    [{ from: "desk@example.com" }, "an address of ours"],
    [{ from: "Desk <DESK+night@Example.com>" }, "an address of ours"],
    [{ return_path: "desk+4-a1@example.com" }, "an address of ours"],
    [{ headers: { "Reply-To": "Ferry Desk <desk@example.com>" } }, "an address of ours"],
    [{ junk: true }, "junk"],
  ])("%j: %s", (given, why) => {
    expect(whyNever(message(given), own)).toContain(why);
    const decision = decide(message(given), asked([{}]));
    expect(decision).toMatchObject({ answers: null, done: [], said: [{ does: "held" }] });
  });

  test.each([
    [{ headers: { "Auto-Submitted": "no" } }],
    [{ headers: { "Auto-Submitted": "No (written by hand)" } }],
    [{ headers: { Precedence: "first-class" } }],
    [{ headers: { "X-Auto-Response-Suppress": "None" } }],
    [{ headers: { "Content-Type": "text/plain; charset=utf-8", Listing: "of ships" } }],
    [{ return_path: "ana@example.org" }],
    [{ return_path: null }],
    [{ from: "eleanor.eply@example.org" }],
    [{ from: "root.vegetables@example.org" }],
    [{ from: "bouncer@example.org" }],
    [{ from: "owner@example.org" }],
    [{ from: "nobody.else@example.org" }],
    [{ from: "desk@example.org" }],
    [{ channel: "sms", mailbox: null, from: "+441632960001", to: "+441632960000" }],
  ])("a person is answered: %j", (given) => {
    expect(whyNever(message(given), own)).toBeNull();
    expect(doing(given)).toBe("send");
  });

  test("header names count in any case", () => {
    const letters = fc.constantFrom("auto-submitted", "precedence", "list-id", "x-auto-response-suppress");
    const values = {
      "auto-submitted": "auto-replied",
      precedence: "bulk",
      "list-id": "<a.b>",
      "x-auto-response-suppress": "all",
    };
    fc.assert(
      fc.property(letters, fc.array(fc.boolean(), { minLength: 30, maxLength: 30 }), (name, upper) => {
        const written = [...name].map((one, index) => (upper[index] ? one.toUpperCase() : one)).join("");
        return whyNever(message({ headers: { [written]: values[name] } }), own) !== null;
      }),
    );
  });
});

describe("which messages a rule is for", () => {
  test("channel, mailbox and condition narrow it; each says why not", () => {
    const said = (given: object, of: object = {}) => decide(message(of), asked([given])).said[0];
    expect(said({ channels: ["sms"] })).toMatchObject({
      does: "passes",
      why: "it is not for the channel email",
    });
    expect(said({ mailboxes: ["freight@example.com"] })?.why).toBe(
      "it is not for the mailbox desk@example.com",
    );
    expect(said({ mailboxes: ["DESK@example.com"] })?.does).toBe("send");
    expect(said({ mailboxes: ["desk@example.com"] }, { mailbox: null })?.does).toBe("passes");
    const when = { all: [{ value: "message.body", is: "contains", to: "SAIL", ignore_case: true }] };
    expect(said({ when })).toMatchObject({
      does: "send",
      why: expect.stringContaining("message.body: When"),
    });
    expect(said({ when: { not: when } })?.why).toContain("its condition does not hold");
    const topic = { value: "case.topic", is: "one_of", to: ["sailings"] };
    expect(said({ when: topic }, { case: { topic: "sailings" } })?.does).toBe("send");
    expect(said({ when: topic })?.does).toBe("passes");
    expect(
      said({ when: { value: "message.best_fit", is: "at_least", to: 0.8 } }, { message: { best_fit: 0.9 } })
        ?.does,
    ).toBe("send");
    expect(said({ when: { value: "message.from", is: "equals", to: "ana@example.org" } })?.does).toBe("send");
  });

  test("a value is data: what a customer writes is never a name to look up", () => {
    const when = { value: "customer.constructor", is: "present" };
    expect(decide(message(), asked([{ when }])).answers).toBeNull();
  });

  test("what came before it was switched on is none of its business, to the millisecond", () => {
    const on = { switched_on_at: "2026-11-25T11:00:00+01:00" };
    expect(decide(message({ at: "2026-11-25T09:59:59.999Z" }), asked([on])).answers).toBeNull();
    expect(decide(message({ at: "2026-11-25T10:00:00Z" }), asked([on])).answers).toBe("got-it");
    expect(decide(message(), asked([{ switched_on_at: null }])).said[0]?.why).toBe("it is switched off");
  });
});

describe("order", () => {
  const [first, second] = [
    { id: "a", name: "A" },
    { id: "b", name: "B" },
  ];

  test("the first that answers ends the asking, unless it says otherwise", () => {
    expect(decide(message(), asked([first, second])).said.map((one) => one.rule)).toEqual(["a"]);
    const both = decide(message(), asked([{ ...first, stop: false }, second]));
    expect(both).toMatchObject({
      answers: "a",
      said: [
        { rule: "a", does: "send" },
        { rule: "b", does: "send" },
      ],
    });
    expect(decide(message(), asked([{ ...first, channels: ["sms"] }, second])).answers).toBe("b");
  });

  test("a rule that may not say it again lets no later one say it either", () => {
    const counts = new KeptCounts();
    counts.note({ rule: "a", sender: "ana@example.org", thread: null, sent: true, at: Date.parse(at(-60)) });
    expect(decide(message(), asked([first, second], counts))).toMatchObject({
      answers: null,
      said: [{ rule: "a", does: "held", why: "it has answered ana@example.org within the last 24 hours" }],
    });
  });

  test("why is told in words, a line a rule", () => {
    const decision = decide(message(), asked([{ ...first, channels: ["sms"] }, second]));
    expect(whyInWords(decision, (id) => `${id}`.toUpperCase())).toEqual([
      "“A”: it is not for the channel email",
      "“B”: it is for all that comes in there",
    ]);
    expect(whyInWords(decide(message(), asked([])), String)).toEqual(["no rule is for it"]);
  });
});

describe("limits", () => {
  test("once per sender in so many hours: the hour itself is over when it is over", () => {
    const decide = rehearsal(asked([{ once_per_sender_hours: 2 }]));
    const answers = [0, 60, 119.99, 120, 121].map((minutes) => decide(message({ at: at(minutes) })).answers);
    expect(answers).toEqual(["got-it", null, null, "got-it", null]);
    expect(decide(message({ at: at(121), from: "ben@example.org" })).answers).toBe("got-it");
    // However its sender writes it.
    expect(decide(message({ at: at(122), from: "BEN <Ben@Example.org>" })).answers).toBeNull();
  });

  test("over so many in any hour it prepares instead, until the hour has passed", () => {
    const decide = rehearsal(asked([{ per_hour: 2 }]));
    const does = [0, 1, 2, 59, 60, 60.5, 61].map(
      (minutes, index) => decide(message({ at: at(minutes), from: `a${index}@example.org` })).said[0]?.does,
    );
    expect(does).toEqual(["send", "send", "instead", "instead", "send", "instead", "send"]);
  });

  test("a rule that prepares is not limited by the hour", () => {
    const decide = rehearsal(asked([{ mode: "prepare", per_hour: 1 }]));
    const answers = [0, 1, 2].map((minutes) =>
      decide(message({ at: at(minutes), from: `a${minutes}@example.org` })),
    );
    expect(answers.map((one) => one.said[0]?.does)).toEqual(["prepare", "prepare", "prepare"]);
  });

  test("two programs that answer each other end: a thread has so many automatic answers and no more", () => {
    const decide = rehearsal(
      asked([{ once_per_sender_hours: 0 }, { id: "b", stop: false, once_per_sender_hours: 0 }]),
    );
    const thread = { headers: { References: "<first@example.org> <second@example.com>" } };
    const sent = Array.from(
      { length: 40 },
      (_, minutes) => decide(message({ ...thread, at: at(minutes) })).answers,
    );
    expect(sent.filter((one) => one !== null)).toHaveLength(MOST_ON_THREAD);
    expect(sent.slice(MOST_ON_THREAD).every((one) => one === null)).toBe(true);
  });

  test("whatever comes: in no hour more is sent than may, and no sender hears it twice too soon", () => {
    const arrivals = fc.array(fc.tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 6 })), {
      maxLength: 80,
    });
    fc.assert(
      fc.property(
        arrivals,
        fc.integer({ min: 0, max: 5 }),
        fc.integer({ min: 0, max: 3 }),
        (all, most, hours) => {
          const decide = rehearsal(asked([{ per_hour: most, once_per_sender_hours: hours }]));
          let minutes = 0;
          const sent: { at: number; who: number }[] = [];
          for (const [after, who] of all) {
            minutes += after;
            const { said } = decide(message({ at: at(minutes), from: `a${who}@example.org` }));
            if (said[0]?.does === "send") sent.push({ at: minutes, who });
          }
          for (const [index, one] of sent.entries()) {
            const others = sent.slice(index + 1);
            expect(others.filter((other) => other.at < one.at + 60).length + 1).toBeLessThanOrEqual(most);
            expect(others.some((other) => other.who === one.who && other.at < one.at + hours * 60)).toBe(
              false,
            );
          }
        },
      ),
    );
  });

  test("a decision changes nothing: asked twice, it says the same", () => {
    const standing = asked([{}]);
    expect(decide(message(), standing)).toEqual(decide(message(), standing));
  });
});

describe("what messages and rules look like", () => {
  test("addresses in angle brackets, bare, and with brackets in the name", () => {
    expect(addressIn("Ana <ANA@example.org>")).toBe("ana@example.org");
    expect(addressIn(" ana@example.org ")).toBe("ana@example.org");
    expect(addressIn('"Ana <the first>" <ana@example.org>')).toBe("ana@example.org");
    expect(addressIn("<>")).toBe("");
  });

  test("a thread is its case, else the first message that headers name", () => {
    expect(threadOf(message({ case: 17 }))).toBe("case 17");
    expect(threadOf(message({ case: { number: "SF-17" } }))).toBe("case SF-17");
    expect(threadOf(message({ headers: { "in-reply-to": "<b@x>", references: "<a@x>\r\n <b@x>" } }))).toBe(
      "<a@x>",
    );
    expect(threadOf(message())).toBeNull();
  });

  test("defaults are the safe ones, and what is unknown is refused with its place", () => {
    expect(rule()).toMatchObject({ once_per_sender_hours: 24, per_hour: 60, stop: true, channels: [] });
    const wrong = standingRulesSchema.safeParse({ own_addresses: [], rules: [{ ...rule(), mood: "send" }] });
    expect(wrong.error?.issues[0]?.path).toEqual(["rules", 0]);
    const twice = standingRulesSchema.safeParse({ own_addresses: [], rules: [rule(), rule()] });
    expect(twice.error?.issues[0]).toMatchObject({
      path: ["rules", 1, "id"],
      message: expect.stringContaining("got-it"),
    });
    expect(standingRuleSchema.safeParse({ ...rule(), switched_on_at: "yesterday" }).success).toBe(false);
  });
});
