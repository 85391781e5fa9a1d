import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Piece } from "./protocol";
import { emptyTalk, lastPiece, toSayAgain, withPieces, withRefused, withSaid, type Talk } from "./talk";

const piece = (n: number, key: string | null = null): Piece => ({
  n,
  from: key === null ? "us" : "them",
  text: `piece ${n}`,
  at: "2026-11-25T10:00:00Z",
  name: key === null ? "Bram" : null,
  key,
  files: [],
  asks: [],
});
const numbers = (talk: Talk) => talk.pieces.map((one) => one.n);

describe("a talk", () => {
  test("shows pieces in their row, and waits with those that came before others", () => {
    const some = withPieces(emptyTalk, [piece(1), piece(4), piece(3)]);
    expect([numbers(some), some.ahead.map((one) => one.n), lastPiece(some)]).toEqual([[1], [3, 4], 1]);
    expect(numbers(withPieces(some, [piece(2)]))).toEqual([1, 2, 3, 4]);
  });

  test("keeps what was said until its piece comes back, and what was refused with its reason", () => {
    const said = withSaid(withSaid(emptyTalk, "a", "one"), "b", "two");
    expect(withSaid(said, "a", "again")).toBe(said);
    const kept = withPieces(said, [piece(1, "a")]);
    expect(toSayAgain(kept).map((one) => one.text)).toEqual(["two"]);
    const refused = withRefused(kept, "b", "too long");
    expect([toSayAgain(refused), refused.unsent]).toEqual([
      [],
      [{ key: "b", text: "two", problem: "too long" }],
    ]);
    // One that is kept is not said anew.
    expect(withSaid(kept, "a", "one").unsent).toEqual(kept.unsent);
  });

  test("is whole in the end, whatever comes twice, late or out of order", () => {
    const arrivals = fc
      .tuple(fc.integer({ min: 1, max: 40 }), fc.infiniteStream(fc.nat()))
      .map(([count, noise]) => {
        const all = Array.from({ length: count }, (_, index) =>
          piece(index + 1, index % 3 === 0 ? `k${index}` : null),
        );
        const twice = [...all, ...all.filter((_, index) => index % 2 === 0)];
        const random = noise.take(twice.length);
        return twice
          .map((one) => ({ one, at: Number(random.next().value) }))
          .sort((a, b) => a.at - b.at)
          .map(({ one }) => one);
      });
    fc.assert(
      fc.property(arrivals, fc.integer({ min: 1, max: 7 }), (arrived, step) => {
        const all = new Set(arrived.map((one) => one.n));
        let talk = arrived.reduce(
          (told, { key }) => (key === null ? told : withSaid(told, key, key)),
          emptyTalk,
        );
        for (let at = 0; at < arrived.length; at += step) {
          const before = lastPiece(talk);
          talk = withPieces(talk, arrived.slice(at, at + step));
          expect(lastPiece(talk)).toBeGreaterThanOrEqual(before);
          expect(new Set(numbers(talk)).size).toBe(talk.pieces.length);
        }
        expect(numbers(talk)).toEqual([...all].sort((a, b) => a - b));
        expect([talk.ahead, talk.unsent]).toEqual([[], []]);
      }),
    );
  });
});
