import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { PastInquiry, RankedText } from "./inquiry";
import { sentencesOf } from "./words/sentences";
import { Lexicon } from "./words/lexicon";
import { latestOfEach } from "./learning/latest";
import { LAYERS, OWN, PAST, Postings, LEARNED } from "./terms/postings";
import { Ranker } from "./ranker";
import { Remembered } from "./terms/remembered";
import { VectorSpace } from "./terms/vector-space";
import { TermLists } from "./words/term-lists";
import { gramsOf, inquiryText, tokenize } from "./words/text";
import { wordHash, WordVectors } from "./vectors/word-vectors";
import { fitWords } from "./fit-words";

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
const first = (ranker: Ranker, body: string, channel?: string) =>
  ranker.rank(asked(body, channel), { top: 1 }).fits[0];

describe("texts", () => {
  test("words are letters or digits without accents; tokens say nothing", () => {
    expect(tokenize("Überfahrt {$booking.ship} N°12, crème-brûlée's")).toEqual([
      "uberfahrt",
      "n",
      "12",
      "creme",
      "brulee",
      "s",
    ]);
    const lexicon = new Lexicon(() => -1);
    const stems = lexicon
      .read(tokenize("The sailings were cancelled, cancelling"))
      .map((word) => lexicon.stems.first(word));
    expect(stems.filter((stem) => stem >= 0).map((stem) => lexicon.stem(stem))).toEqual([
      "sail",
      "cancel",
      "cancel",
    ]);
    expect(gramsOf(["ab"])).toEqual([" ab", "ab ", " ab "]);
    expect(gramsOf(["dog"])).toEqual([" do", "dog", "og ", " dog", "dog "]);
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
    const ranker = Ranker.of(replies, [], null);
    expect(first(ranker, "may my dog come with me")?.id).toBe("dogs");
    expect(first(ranker, "bycicle on board?")?.id).toBe("bikes");
    expect(first(ranker, "i want to be refunded")?.id).toBe("refund");
    // Its title says “left” already: what else was met is told.
    expect(first(ranker, "my bag was left, did you find something")?.why).toEqual(["“find”"]);
  });

  test("learns from one answer at once, in another language too, and names it", () => {
    const ranker = Ranker.of(replies, [], null);
    const words = "Wo bekomme ich mein Geld zurück?";
    expect(first(ranker, words)?.id).not.toBe("refund");
    ranker.learn(past("SF-1", "Bitte schicken Sie mir mein Geld zurück", "refund"));
    expect(first(ranker, words)).toMatchObject({ id: "refund" });
    expect(first(ranker, words)?.why).toContain("like SF-1");
  });

  test("tells words that stand side by side as a phrase, and no others", () => {
    const ranker = Ranker.of(
      [reply("bikes", "Car deck", "A folding bicycle on the car deck is tied to the rail."), ...replies],
      [],
      null,
    );
    const why = (body: string) => first(ranker, body)?.why ?? [];
    expect(why("is there a rail on the CAR deck, deck 3?")).toContain("“car deck”");
    expect(why("Where do I leave the car? Deck 3 or the rail")).not.toContain("“car deck”");
    expect(why("Folding bicycle or not")).toContain("“folding bicycle”");
    const twice = why("car deck");
    expect(twice).toEqual(["“car deck”"]);
  });

  test("is not changed by what is asked", () => {
    const [asking, quiet] = [Ranker.of(replies, [], null), Ranker.of(replies, [], null)];
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom("dogs", "xyzzy", "ünknown", "42", "dog", "qq"), { maxLength: 8 }),
        (words) => {
          asking.rank({ ...asked(words.join(" ")), marks: ["topic new"] }, { top: 4 });
          const body = `${words.join("")} dogs may come`;
          expect(asking.rank(asked(body), { top: 4 })).toEqual(quiet.rank(asked(body), { top: 4 }));
        },
      ),
    );
    for (const ranker of [asking, quiet]) ranker.learn(past("SF-1", "my xyzzy is ünknown", "lost"));
    expect(asking.rank(asked("xyzzy"), { top: 4 })).toEqual(quiet.rank(asked("xyzzy"), { top: 4 }));
    expect(first(asking, "xyzzy")).toMatchObject({ id: "lost" });
  });

  test("takes back what was learned of an answer that did not go out", () => {
    const kept = [past("SF-1", "the dog eats on the ship", "dogs"), past("SF-2", "a bike", "bikes")];
    const ranker = Ranker.of(replies, kept, null);
    const body = "wo bleibt der Hund auf dem Schiff";
    const before = ranker.rank(asked(body), { top: 4 });
    const unlearn = ranker.learn({ ...past("SF-9", body, "lost"), person: 1, swapped: ["dogs"] });
    const learned = first(ranker, body);
    expect(learned).toMatchObject({ id: "lost", why: expect.arrayContaining(["like SF-9"]) });
    unlearn();
    const after = ranker.rank(asked(body), { top: 4, person: 1 });
    expect(after.fits.map(({ id, why }) => ({ id, why }))).toEqual(
      before.fits.map(({ id, why }) => ({ id, why })),
    );
    for (const [index, { fit }] of after.fits.entries())
      expect(fit).toBeCloseTo(before.fits[index]?.fit ?? NaN, 1);
  });

  test("is not misled by what is merely popular, and a new reply is not buried", () => {
    const many = Array.from({ length: 200 }, (_, index) =>
      past(`SF-${index}`, `refund please ${index}`, "refund"),
    );
    const ranker = Ranker.of(replies, many, null);
    expect(first(ranker, "is there room for two bicycles on the car deck")?.id).toBe("bikes");
    expect(first(ranker, "is my dog welcome")?.id).toBe("dogs");
  });

  test("puts what does not suit the channel last, and says so", () => {
    const ranker = Ranker.of(replies, [], null);
    const ranked = ranker.rank(asked("i left something aboard", "chat"), { top: 10 }).fits;
    expect(ranked.map((one) => one.id)).toHaveLength(replies.length);
    expect(ranked.at(-1)).toEqual({ id: "lost", fit: 0, why: ["is not for chat"], also: null });
  });

  test("answers with chances, in the same order every time", () => {
    const anything = fc.string({ unit: "grapheme", maxLength: 200 });
    const histories = fc.array(fc.tuple(anything, fc.constantFrom("dogs", "bikes", "refund", "gone")), {
      maxLength: 12,
    });
    fc.assert(
      fc.property(histories, anything, (history, body) => {
        const learned = history.map(([text, id], index) => past(`SF-${index}`, text, id));
        const ranked = Ranker.of(replies, learned, null).rank(asked(body), { top: 10 }).fits;
        expect(ranked).toEqual(Ranker.of(replies, learned, null).rank(asked(body), { top: 10 }).fits);
        expect(ranked.reduce((sum, one) => sum + one.fit, 0)).toBeLessThanOrEqual(1.000_1);
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
    const sure = first(Ranker.of(replies, plain, null), "bicycles aboard")?.fit ?? 0;
    const unsure = first(Ranker.of(replies, muddled, null), "bicycles aboard")?.fit ?? 1;
    expect(sure).toBeGreaterThan(0.8);
    expect(unsure).toBeLessThan(0.6);
  });

  test("words of one meaning help where no word is shared", () => {
    const known = ["puppy", "dog", "card", "fare", "ship"];
    const head = JSON.stringify({ dimensions: 2, words: known.length });
    const hashes = Buffer.alloc(4 * known.length);
    known.forEach((word, row) => hashes.writeUInt32LE(wordHash(word), 4 * row));
    const numbers = Int8Array.from([127, 5, 126, 0, 0, 127, 4, 125, 90, 90]);
    const vectors = new WordVectors(
      Buffer.concat([Buffer.from(`${head}\n`), hashes, Buffer.from(numbers.buffer)]),
    );
    const pair = [reply("card", "Fare", "card"), reply("dogs", "Dog", "dog")];
    expect(first(Ranker.of(pair, [], vectors), "puppy")).toMatchObject({ id: "dogs" });
    const without = Ranker.of(pair, [], null).rank(asked("puppy"), { top: 2 });
    expect(without.fits[0]?.fit).toBeCloseTo(without.fits[1]?.fit ?? 0, 6);
    expect(without.nothingFits).toBe(true);
  });
});

test("of a long past, the latest of each reply are kept, equally many of those that have more, in their order", () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom("a", "b", "c", null), { maxLength: 40 }),
      fc.nat(45),
      (replies, most) => {
        const answers = replies.map((reply, at) => ({ reply, at }));
        const kept = latestOfEach(answers, most);
        expect(kept).toEqual(answers.filter((one) => kept.includes(one)));
        if (answers.length <= most) return expect(kept).toEqual(answers);
        expect(kept.length).toBeLessThanOrEqual(most);
        expect(kept.length).toBeGreaterThan(most - 4);
        const counts = new Map<string | null, { all: number; kept: number }>();
        for (const one of answers) {
          const count = counts.get(one.reply) ?? { all: 0, kept: 0 };
          const later = answers.slice(one.at).filter(({ reply }) => reply === one.reply).length;
          counts.set(one.reply, { all: count.all + 1, kept: count.kept + (kept.includes(one) ? 1 : 0) });
          // Whatever is later than one that is kept is kept too.
          if (kept.includes(one))
            expect(
              answers.slice(one.at).filter((x) => x.reply === one.reply && kept.includes(x)),
            ).toHaveLength(later);
        }
        const cut = [...counts.values()].filter((count) => count.kept < count.all).map((count) => count.kept);
        expect(new Set(cut).size).toBeLessThanOrEqual(1);
      },
    ),
  );
});

describe("a space of weighed texts", () => {
  const terms = fc.array(fc.nat(5), { maxLength: 8 });
  // Each word is a term of its own.
  const lists = new TermLists();
  for (let word = 0; word <= 5; word += 1) lists.push([word]);
  const numbers = () => new VectorSpace(lists);
  const near = (space: VectorSpace, text: number[], replies: number) => {
    const sums = space.sums(space.weigh(text), replies);
    const list = new Float32Array(replies);
    space.addNearness(list, sums, 0.5, 1);
    return [...list];
  };

  test("many past inquiries added at once are as if they were added one by one, and a new own text as if it were the first", () => {
    fc.assert(
      fc.property(terms, terms, fc.array(terms, { maxLength: 4 }), terms, (before, own, pasts, text) => {
        const [one, other] = [numbers(), numbers()];
        for (const space of [one, other]) for (const each of [before, own, ...pasts, text]) space.count(each);
        one.setOwn(0, one.weigh(before));
        one.setOwn(0, one.weigh(own));
        for (const past of pasts) one.addPast(0, one.weigh(past));
        for (const pause of other.adding([{ reply: 0, own, pasts }])) expect(pause).toBeUndefined();
        const [a = 0] = near(one, text, 1);
        const [b = 0] = near(other, text, 1);
        expect(a).toBeCloseTo(b, 3);
        expect(a).toBeLessThanOrEqual(1.91);
      }),
    );
  });

  test("a text is as near to itself as can be, and alikeness is a cosine", () => {
    fc.assert(
      fc.property(terms, terms, (a, b) => {
        const space = numbers();
        space.count(a);
        space.count(b);
        const alike = (one: number[], other: number[]) => {
          const past = new Remembered();
          past.add([{ id: "one", text: one }], (texts) => space.weighAll(texts));
          return past.nearest(space.byTerm(space.weigh(other)), -1)?.alike ?? NaN;
        };
        if (a.length > 0) expect(alike(a, a)).toBeCloseTo(1, 5);
        expect(alike(a, b)).toBeCloseTo(alike(b, a), 6);
        expect(alike(a, b)).toBeLessThanOrEqual(1.000_01);
      }),
    );
  });

  test("where all would be too much, the rarest terms are added up", () => {
    const space = numbers();
    for (const text of [[0, 1], [0], [0], [0]]) space.count(text);
    [[0, 1], [0], [0]].forEach((own, reply) => space.setOwn(reply, space.weigh(own)));
    const sums = space.sums(space.weigh([0, 1]), 3, 1);
    expect([sums[OWN], sums[LAYERS + OWN], sums[2 * LAYERS + OWN]]).toEqual([expect.any(Number), 0, 0]);
    expect(sums[OWN]).toBeGreaterThan(0);
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

test("postings are sums by reply and layer, whatever the order of adding", () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(30), fc.constantFrom(OWN, PAST, LEARNED), fc.integer({ min: -5, max: 5 })), {
        maxLength: 80,
      }),
      (adds) => {
        const postings = new Postings();
        const sums = new Float32Array(31 * LAYERS);
        for (const [reply, layer, value] of adds) {
          const at = reply * LAYERS + layer;
          expect(postings.add(reply, layer, value)).toBe(sums[at]);
          sums[at] = (sums[at] ?? 0) + value;
          expect(postings.of(reply, layer)).toBe(sums[at]);
        }
        const into = new Float32Array(31 * LAYERS);
        postings.addTo(into, 2);
        // Plus zero: minus zero is the same number.
        expect([...into].map((value) => value + 0)).toEqual([...sums].map((value) => 2 * value + 0));
        expect(postings.length).toBe(new Set(adds.map(([reply]) => reply)).size);
      },
    ),
  );
});

describe("what came of replies", () => {
  const two = [
    reply("first", "Fares of dogs", "A dog pays a fare."),
    reply("second", "Fares of dogs", "A dog pays a fare."),
  ];
  const order = (history: PastInquiry[], asking: { person?: number; team?: number } = {}) =>
    Ranker.of(two, history, null)
      .rank(asked("what is the fare of a dog"), { top: 2, ...asking })
      .fits.map((one) => one.id);

  test("what is swapped away or written anew sinks, and says so", () => {
    const kept = Array.from({ length: 12 }, (_, index) => past(`SF-${index}`, "fare of a dog", "first"));
    const swapped = kept.map((one) => ({ ...one, reply: "second", swapped: ["first"] }));
    expect(order([])).toEqual(["first", "second"]);
    expect(order(swapped)).toEqual(["second", "first"]);
    const anew = [...kept, ...kept.map((one) => ({ ...one, reply: "second" }))].map((one) => ({
      ...one,
      rewritten: one.reply === "first" ? 0.9 : 0,
    }));
    expect(order(anew)).toEqual(["second", "first"]);
    const { fits } = Ranker.of(two, anew, null).rank(asked("what is the fare of a dog"), { top: 2 });
    expect(fits.find((one) => one.id === "first")?.why).toContain("often written anew");
  });

  test("habit decides between two that fit alike, and never against what fits better", () => {
    const mine = Array.from({ length: 9 }, (_, index) => ({
      ...past(`SF-${index}`, "something else entirely", "bikes"),
      person: 7,
      team: 1,
    }));
    const same = [...two, reply("bikes", "Fares of dogs", "A dog pays a fare.")];
    const ranker = Ranker.of(same, mine, null);
    expect(
      ranker.rank(asked("dog"), { top: 3, person: 7 }).fits.find((one) => one.id === "bikes")?.why,
    ).toContain("you use it often");
    const other = Ranker.of(replies, mine, null);
    expect(other.rank(asked("may my dog come with me"), { top: 1, person: 7, team: 1 }).fits[0]?.id).toBe(
      "dogs",
    );
  });
});

describe("more than one question, or none that the shelf answers", () => {
  const known = replies.flatMap((one) =>
    Array.from({ length: 12 }, (_, index) =>
      past(`${one.id}-${index}`, `${one.title} please, ${one.body}`, one.id),
    ),
  );

  test("a second question raises a second answer with the sentence that asks", () => {
    const ranker = Ranker.of(replies, known, null);
    const { fits } = ranker.rank(
      asked(
        "Hello,\nis there room for two bicycles on the car deck? And are dogs welcome on deck 3?\nThanks",
      ),
      { top: 4 },
    );
    expect(
      fits
        .slice(0, 2)
        .map((one) => one.id)
        .sort(),
    ).toEqual(["bikes", "dogs"]);
    const also = fits.filter((one) => one.also !== null);
    expect(also).toHaveLength(1);
    expect(also[0]?.id).not.toBe(fits[0]?.id);
    expect(also[0]?.also).toMatch(also[0]?.id === "dogs" ? /dogs/ : /bicycles/);
  });

  test("one question raises none", () => {
    const { fits } = Ranker.of(replies, known, null).rank(asked("May my dog come? It is a small dog."), {
      top: 4,
    });
    expect(fits.every((one) => one.also === null)).toBe(true);
  });

  test("what was answered by hand teaches that nothing fits", () => {
    const byHand = Array.from({ length: 30 }, (_, index) => ({
      ...past(`H-${index}`, `zebra quartz ${index} umbrella jukebox`, ""),
      reply: null,
    }));
    const ranker = Ranker.of(replies, [...known, ...byHand], null);
    expect(ranker.rank(asked("a jukebox for my zebra"), { top: 1 }).nothingFits).toBe(true);
    expect(ranker.rank(asked("are dogs welcome on deck 3"), { top: 1 }).nothingFits).toBe(false);
  });

  test("sentences that say too little ask nothing", () => {
    expect(sentencesOf("Hi there. One single question about my dog?")).toEqual([]);
    expect(sentencesOf("We sailed on Monday night.\nWhere is my blue bag?")).toEqual([
      "Where is my blue bag?",
      "We sailed on Monday night.",
    ]);
  });
});

test("what is known beside the words counts, and languages nobody reads come last", () => {
  const marked = [
    reply("a", "Alike", "alike"),
    reply("b", "Alike", "alike", { marks: ["with a booking"], languages: ["en"] }),
  ];
  const ranker = Ranker.of(marked, [], null);
  const one = { ...asked("alike"), marks: ["with a booking"] };
  expect(ranker.rank(one, { top: 2 }).fits[0]).toMatchObject({
    id: "b",
    why: expect.arrayContaining(["with a booking"]),
  });
  expect(ranker.rank({ ...one, reads: ["de"] }, { top: 2 }).fits.at(-1)).toMatchObject({
    id: "b",
    fit: 0,
    why: ["is not written in a language that the customer reads"],
  });
});

test("a reply put in later is found at once; its new text replaces the old", () => {
  const ranker = Ranker.of(replies, [], null);
  ranker.put(reply("parrots", "Parrots aboard", "A parrot travels in a cage."));
  expect(first(ranker, "my parrot has a cage")?.id).toBe("parrots");
  ranker.put(reply("parrots", "Canaries aboard", "Canaries sing."));
  expect(first(ranker, "canaries")?.id).toBe("parrots");
  expect(ranker.rank(asked("parrot cage"), { top: 1 }).nothingFits).toBe(true);
});
