import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { Postings } from "./postings";
import { Ranker, type PastInquiry, type RankedText } from "./ranker";
import { alikeness, Space } from "./space";
import { gramsOf, inquiryText, stemsOf, wordsOf } from "./text";
import { WordVectors } from "./vectors";
import { fitWords } from "./words";

const reply = (id: string, title: string, body: string, changes: Partial<RankedText> = {}): RankedText => ({
  id,
  title,
  tags: [],
  channels: ["email", "chat"],
  body,
  ...changes,
});
const replies = [
  reply("dogs", "Dogs aboard", "Dogs are welcome on deck 3. A dog costs {$house.dog_fee} each way."),
  reply("bikes", "Bicycles aboard", "Bicycles travel on the car deck, tied to the rail."),
  reply("refund", "Money back", "We pay the fare back to your card.", { tags: ["refund"] }),
  reply("lost", "Left something aboard", "We keep what we find for thirty days.", { channels: ["email"] }),
];
const asked = (body: string, channel = "email", subject = "") => ({ channel, subject, body });
const past = (id: string, body: string, answer: string): PastInquiry => ({
  id,
  ...asked(body),
  reply: answer,
});
const first = (ranker: Ranker, body: string, channel?: string) => ranker.rank(asked(body, channel), 1)[0];

describe("texts", () => {
  test("words are letters or digits without accents; tokens say nothing", () => {
    expect(wordsOf("Überfahrt {$booking.ship} N°12, crème-brûlée's")).toEqual([
      "uberfahrt",
      "n",
      "12",
      "creme",
      "brulee",
      "s",
    ]);
    expect(stemsOf(wordsOf("The sailings were cancelled, cancelling"))).toEqual(["sail", "cancel", "cancel"]);
    expect(gramsOf(["ab"])).toEqual([" ab", "ab ", " ab "]);
  });

  test("a subject that nobody chose and what is quoted are left out", () => {
    expect(
      inquiryText({ subject: "Re: (no subject)", body: "Hello\n\nOn Monday Maren wrote:\n> dogs" }),
    ).toBe("Hello");
    expect(inquiryText({ subject: "AW: dogs", body: "may they come" })).toBe("dogs\ndogs\nmay they come");
  });
});

describe("the ranking", () => {
  test("works on the first day, by title, tags and text, over typos and other forms", () => {
    const ranker = new Ranker(replies, [], null);
    expect(first(ranker, "may my dog come with me")?.id).toBe("dogs");
    expect(first(ranker, "bycicle on board?")?.id).toBe("bikes");
    expect(first(ranker, "i want to be refunded")?.id).toBe("refund");
    expect(first(ranker, "my bag was left, did you find something")?.why).toContain("“left”");
  });

  test("learns from one answer at once, in another language too, and names it", () => {
    const ranker = new Ranker(replies, [], null);
    const words = "Wo bekomme ich mein Geld zurück?";
    expect(first(ranker, words)?.id).not.toBe("refund");
    ranker.learn(past("SF-1", "Bitte schicken Sie mir mein Geld zurück", "refund"));
    expect(first(ranker, words)).toMatchObject({ id: "refund" });
    expect(first(ranker, words)?.why).toContain("like SF-1");
  });

  test("is not misled by what is merely popular, and a new reply is not buried", () => {
    const many = Array.from({ length: 200 }, (_, index) =>
      past(`SF-${index}`, `refund please ${index}`, "refund"),
    );
    const ranker = new Ranker(replies, many, null);
    expect(first(ranker, "is there room for two bicycles on the car deck")?.id).toBe("bikes");
    expect(first(ranker, "is my dog welcome")?.id).toBe("dogs");
  });

  test("puts what does not suit the channel last, and says so", () => {
    const ranker = new Ranker(replies, [], null);
    const ranked = ranker.rank(asked("i left something aboard", "chat"), 10);
    expect(ranked.map((one) => one.id)).toHaveLength(replies.length);
    expect(ranked.at(-1)).toEqual({ id: "lost", fit: 0, why: ["is not for chat"] });
  });

  test("answers with chances, in the same order every time", () => {
    const anything = fc.string({ unit: "grapheme", maxLength: 200 });
    const histories = fc.array(fc.tuple(anything, fc.constantFrom("dogs", "bikes", "refund", "gone")), {
      maxLength: 12,
    });
    fc.assert(
      fc.property(histories, anything, (history, body) => {
        const learned = history.map(([text, id], index) => past(`SF-${index}`, text, id));
        const ranked = new Ranker(replies, learned, null).rank(asked(body), 10);
        expect(ranked).toEqual(new Ranker(replies, learned, null).rank(asked(body), 10));
        expect(ranked.reduce((sum, one) => sum + one.fit, 0)).toBeCloseTo(1, 4);
        expect(ranked.every((one) => one.fit >= 0 && one.why.length > 0)).toBe(true);
        expect(new Set(ranked.map((one) => one.id)).size).toBe(replies.length);
      }),
    );
  });

  test("fits mean more where the past was plain than where it was muddled", () => {
    const plain = replies.flatMap((one) =>
      Array.from({ length: 15 }, (_, index) => past(`${one.id}-${index}`, `${one.title} ${index}`, one.id)),
    );
    const muddled = plain.map((one, index) => ({ ...one, reply: replies[index % 4]?.id ?? "dogs" }));
    const sure = first(new Ranker(replies, plain, null), "bicycles aboard")?.fit ?? 0;
    const unsure = first(new Ranker(replies, muddled, null), "bicycles aboard")?.fit ?? 1;
    expect(sure).toBeGreaterThan(0.8);
    expect(unsure).toBeLessThan(0.6);
  });

  test("words of one meaning help where no word is shared", () => {
    const head = JSON.stringify({ dimensions: 2, words: "puppy dog card fare ship" });
    const numbers = Int8Array.from([127, 5, 126, 0, 0, 127, 4, 125, 90, 90]);
    const vectors = new WordVectors(Buffer.concat([Buffer.from(`${head}\n`), Buffer.from(numbers.buffer)]));
    const pair = [reply("card", "Fare", "card"), reply("dogs", "Dog", "dog")];
    expect(first(new Ranker(pair, [], vectors), "puppy")).toMatchObject({ id: "dogs" });
    expect(first(new Ranker(pair, [], null), "puppy")?.fit).toBeCloseTo(0.5, 4);
  });
});

describe("a space of weighed texts", () => {
  const terms = fc.array(fc.constantFrom("a", "b", "c", "d", "e"), { maxLength: 8 });

  test("what is learned for a reply and then left out again is as if it had not been", () => {
    fc.assert(
      fc.property(terms, fc.array(terms, { maxLength: 4 }), terms, (own, others, text) => {
        const make = (learn: boolean) => {
          const space = new Space();
          for (const one of [own, ...others, text]) space.count(one);
          space.setOwn(0, space.weigh(own));
          for (const one of others) space.addPast(0, space.weigh(one));
          if (learn) space.addPast(0, space.weigh(text));
          return space;
        };
        const with_ = make(true);
        const without = make(false);
        const a = with_.nearness(with_.weigh(text), 1, 0);
        const b = without.nearness(without.weigh(text), 1);
        for (const kind of ["own", "past", "both"] as const)
          expect(a[kind][0]).toBeCloseTo(b[kind][0] ?? 0, 2);
      }),
    );
  });

  test("a text is as near to itself as can be, and nearness is a cosine", () => {
    fc.assert(
      fc.property(terms, terms, (a, b) => {
        const space = new Space();
        space.count(a);
        space.count(b);
        const [one, other] = [space.weigh(a), space.weigh(b)];
        if (a.length > 0) expect(alikeness(one, one)).toBeCloseTo(1, 5);
        expect(alikeness(one, other)).toBeCloseTo(alikeness(other, one), 6);
        expect(alikeness(one, other)).toBeLessThanOrEqual(1.000_01);
      }),
    );
  });
});

test("a fit is told in words", () => {
  expect([1, 0.7, 0.69, 0.35, 0.34, 0.05, 0.04, 0].map(fitWords)).toEqual([
    "close fit",
    "close fit",
    "likely",
    "likely",
    "maybe",
    "maybe",
    null,
    null,
  ]);
});

test("postings are sums by reply, in order, whatever the order of adding", () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(30), fc.integer({ min: -5, max: 5 })), { maxLength: 80 }),
      (adds) => {
        const postings = new Postings();
        const sums = new Map<number, number>();
        for (const [at, value] of adds) {
          postings.add(at, value);
          sums.set(at, (sums.get(at) ?? 0) + value);
        }
        const into = new Float32Array(31);
        postings.addTo(into, 2);
        expect([...into]).toEqual(Array.from({ length: 31 }, (_, at) => 2 * (sums.get(at) ?? 0)));
        expect([...postings.replies.slice(0, postings.length)]).toEqual(
          [...sums.keys()].sort((a, b) => a - b),
        );
      },
    ),
  );
});
