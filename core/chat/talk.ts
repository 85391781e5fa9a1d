import type { Piece } from "./protocol";

/** Something that the customer said and that the program has not told the number of yet. */
export interface Unsent {
  key: string;
  text: string;
  /** Why it was not kept; null while it may still be. */
  problem: string | null;
}

/**
 * A talk as a window holds it: pieces by their numbers, without gaps, and what was said and is not kept yet. Made anew
 * with each change. Whatever connections drop, repeat or overtake: no piece is lost, none stands twice.
 */
export interface Talk {
  /** From the first on, without gaps. */
  pieces: readonly Piece[];
  /** Pieces that came before others that are still missing. */
  ahead: readonly Piece[];
  unsent: readonly Unsent[];
}

export const emptyTalk: Talk = { pieces: [], ahead: [], unsent: [] };

/** Up to which piece the window has all. */
export function lastPiece(talk: Talk): number {
  return talk.pieces.at(-1)?.n ?? 0;
}

/** Takes pieces in, whichever come, however often. What they answer under a key is unsent no more. */
export function withPieces(talk: Talk, arrived: readonly Piece[]): Talk {
  const known = new Map([...talk.pieces, ...talk.ahead].map((one) => [one.n, one]));
  for (const piece of arrived) if (!known.has(piece.n)) known.set(piece.n, piece);
  const pieces: Piece[] = [];
  for (let n = 1; ; n += 1) {
    const piece = known.get(n);
    if (!piece) break;
    pieces.push(piece);
    known.delete(n);
  }
  const keys = new Set([...pieces, ...known.values()].flatMap((one) => one.key ?? []));
  return {
    pieces,
    ahead: [...known.values()].sort((a, b) => a.n - b.n),
    unsent: talk.unsent.filter((one) => !keys.has(one.key)),
  };
}

/** Notes what the customer says, under a key that no other has. */
export function withSaid(talk: Talk, key: string, text: string): Talk {
  if (talk.unsent.some((one) => one.key === key) || talk.pieces.some((one) => one.key === key)) return talk;
  return { ...talk, unsent: [...talk.unsent, { key, text, problem: null }] };
}

/** What was said under a key was not kept: it stays with its reason, and is not said again by itself. */
export function withRefused(talk: Talk, key: string, problem: string): Talk {
  return { ...talk, unsent: talk.unsent.map((one) => (one.key === key ? { ...one, problem } : one)) };
}

/** What is to be said again on a new connection, in its order. */
export function toSayAgain(talk: Talk): readonly Unsent[] {
  return talk.unsent.filter((one) => one.problem === null);
}
