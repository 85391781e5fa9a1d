import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { InvertedIndex, type Asked, type Groups } from "./inverted-index";

const WEIGHTS = [1, 0.8, 0.4, 0.1];
const begins = (...words: string[]): Groups => words.map((term) => [{ term, begins: true }]);
const ask = (groups: Groups, asked: Partial<Asked> = {}): Asked => ({
  ways: [groups],
  least: 0,
  most: 100,
  ...asked,
});
const index = new InvertedIndex(WEIGHTS);
index.put("dogs", new Map(Object.entries({ dog: 1, ferri: 0.4, cabin: 0.4, dogma: 0.1 })));
index.put("bikes", new Map(Object.entries({ bicycl: 1, ferri: 0.8, dog: 0.4 })));
index.put("cabins", new Map(Object.entries({ cabin: 1, ferri: 0.1 })));
const ids = (asked: Asked, favour?: ReadonlyMap<string, number>) =>
  index.find(asked, favour).map(({ id }) => id);

describe("finding", () => {
  test("puts first what has the words where they weigh most", () => {
    expect(index.find(ask(begins("ferri")))).toEqual([
      { id: "bikes", rank: expect.closeTo(0.8) },
      { id: "dogs", rank: expect.closeTo(0.4) },
      { id: "cabins", rank: expect.closeTo(0.1) },
    ]);
  });

  test("wants one of every group, and takes the mean of the best of each", () => {
    expect(index.find(ask(begins("dog", "cab")))).toEqual([
      { id: "dogs", rank: expect.closeTo((1 + 0.4 * 0.9) / 2) },
    ]);
    expect(ids(ask([[...begins("bicycl").flat(), ...begins("cabin").flat()]]))).toEqual([
      "bikes",
      "cabins",
      "dogs",
    ]);
  });

  test("finds by any of several ways, each text once and by its best", () => {
    const found = index.find({ ways: [begins("dog"), begins("cabin")], least: 0, most: 9 });
    expect(found).toEqual([
      { id: "cabins", rank: 1 },
      { id: "dogs", rank: 1 },
      { id: "bikes", rank: expect.closeTo(0.4) },
    ]);
  });

  test("takes a whole word before one that goes on, and no beginning where a whole one is sought", () => {
    const words = new InvertedIndex(WEIGHTS);
    words.put("goes on", new Map([["carpet", 1]]));
    words.put("whole", new Map([["car", 1]]));
    expect(words.find(ask(begins("car"))).map(({ id }) => id)).toEqual(["whole", "goes on"]);
    expect(words.find(ask([[{ term: "car", begins: false }]])).map(({ id }) => id)).toEqual(["whole"]);
  });

  test("does not look at words of less weight than asked, and keeps to the number asked", () => {
    expect(ids(ask(begins("ferri"), { least: 0.4 }))).toEqual(["bikes", "dogs"]);
    expect(ids(ask(begins("ferri"), { most: 1 }))).toEqual(["bikes"]);
    expect(ids(ask(begins("ferri"), { most: 1 }), new Map([["cabins", 0.9]]))).toEqual(["cabins"]);
  });

  test("finds nothing by nothing", () => {
    expect(ids(ask([]))).toEqual([]);
    expect(ids({ ways: [], least: 0, most: 9 })).toEqual([]);
    expect(ids(ask(begins("zeppelin")))).toEqual([]);
    expect(ids(ask(begins("dog", "zeppelin")))).toEqual([]);
  });
});

const word = fc.stringMatching(/^[abé]{1,4}$/);
const text = fc.dictionary(word, fc.constantFrom(0.1, 0.4, 0.8, 1), { maxKeys: 6, noNullPrototype: true });
/** Texts taken in under few names, so that later ones take the place of earlier ones; null takes one out. */
const changes = fc.array(fc.tuple(fc.constantFrom("one", "two", "three", "four"), fc.option(text)), {
  maxLength: 30,
});
const sought = fc.record({ term: word, begins: fc.boolean() });
const asked = fc.record({
  ways: fc.array(fc.array(fc.array(sought, { maxLength: 3 }), { maxLength: 3 }), { maxLength: 3 }),
  least: fc.constantFrom(0, 0.4, 0.8),
  most: fc.constant(10),
});

/** What is asked, looked for in every text. */
function reading(texts: Map<string, Record<string, number>>, { ways, least }: Asked): [string, number][] {
  const rankOf = (terms: Record<string, number>) =>
    Math.max(
      0,
      ...ways.map((groups) => {
        const best = groups.map((group) =>
          Math.max(
            0,
            ...group.flatMap(({ term, begins: begun }) =>
              Object.entries(terms)
                .filter(([met, weight]) => weight >= least && (begun ? met.startsWith(term) : met === term))
                .map(([met, weight]) => (met === term ? weight : weight * 0.9)),
            ),
          ),
        );
        return groups.length === 0 || best.includes(0)
          ? 0
          : best.reduce((sum, one) => sum + one, 0) / groups.length;
      }),
    );
  return [...texts]
    .map(([id, terms]): [string, number] => [id, rankOf(terms)])
    .filter(([, rank]) => rank > 0);
}

test("finds after any changes what reading every text would find", () => {
  fc.assert(
    fc.property(changes, asked, (list, question) => {
      const kept = new InvertedIndex(WEIGHTS);
      const texts = new Map<string, Record<string, number>>();
      for (const [id, terms] of list) {
        if (terms === null) {
          kept.remove(id);
          texts.delete(id);
        } else {
          kept.put(id, new Map(Object.entries(terms)));
          texts.set(id, terms);
        }
        // Asked in between, the order of the terms is known and must not grow stale.
        kept.find(question);
      }
      expect(kept.size).toBe(texts.size);
      const found = kept.find(question);
      const expected = reading(texts, question);
      expect(new Set(found.map(({ id }) => id))).toEqual(new Set(expected.map(([id]) => id)));
      for (const [id, rank] of expected)
        expect(found.find((one) => one.id === id)?.rank).toBeCloseTo(rank, 5);
      const ranks = found.map(({ rank }) => rank);
      expect(ranks).toEqual([...ranks].sort((a, b) => b - a));
    }),
  );
});
