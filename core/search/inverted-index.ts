import MiniSearch from "minisearch";

/** A word that is sought, in the form in which the index has it. */
export interface Sought {
  term: string;
  /** Whether it may be the beginning of a word. */
  begins: boolean;
}

/** One way to say what is sought: of each group of words at least one. */
export type Groups = Sought[][];

export interface Found {
  id: string;
  /** Where the words stand: the mean, over the groups, of the highest weight found. From 0 to 1. */
  rank: number;
}

/** What is asked of the index. */
export interface Asked {
  /** Any of these ways will do. A way without groups finds nothing. */
  ways: Groups[];
  /** Words of less weight are not looked at. */
  least: number;
  /** So many at most, the highest first. */
  most: number;
}

/** A word that goes on behind what was sought counts so much. */
const BEGUN = 0.9;

/** What one text’s words are, by how much they weigh there. */
type Entry = { id: string } & Record<string, string>;

/** How much words may weigh, by where they stand. */
export type Weights = readonly number[];

/**
 * Finds texts by words and beginnings of words (MiniSearch’s inverted index), and ranks them by where those stand. Other
 * than for whole documents how rare a word is says nothing here: what is typed is meant.
 */
export class InvertedIndex {
  readonly #weights: Weights;
  readonly #index: MiniSearch<Entry>;

  constructor(weights: Weights) {
    this.#weights = weights;
    this.#index = new MiniSearch<Entry>({
      fields: weights.map(String),
      tokenize: (text) => (text === "" ? [] : text.split(BETWEEN)),
      processTerm: (term) => term,
    });
  }

  /** How many texts it has. */
  get size(): number {
    return this.#index.documentCount;
  }

  /** Takes a text in, in place of what was known of it. @param terms its words, each with the weight of its best place */
  put(id: string, terms: ReadonlyMap<string, number>): void {
    const entry: Entry = { id };
    for (const weight of this.#weights)
      entry[String(weight)] = [...terms].flatMap(([term, own]) => (own === weight ? term : [])).join(BETWEEN);
    if (this.#index.has(id)) this.#index.replace(entry);
    else this.#index.add(entry);
  }

  /** Takes a text out; nothing happens where it is not known. */
  remove(id: string): void {
    if (this.#index.has(id)) this.#index.discard(id);
  }

  /** The texts that have what is asked, the highest first. @param favour what to add to the rank of some when the highest are chosen */
  find({ ways, least, most }: Asked, favour: ReadonlyMap<string, number> = new Map()): Found[] {
    const usable = ways.filter((groups) => groups.length > 0 && groups.every((group) => group.length > 0));
    if (usable.length === 0) return [];
    const met = this.#index.search({
      combineWith: "OR",
      fields: this.#weights.filter((weight) => weight >= least).map(String),
      queries: usable.map((groups) => ({
        combineWith: "AND",
        queries: groups.map((group) => ({
          combineWith: "OR",
          queries: group.map(({ term, begins }) => ({ queries: [term], prefix: begins })),
        })),
      })),
    });
    const sought = usable.map((groups) => groups.map(factors));
    const found = met.map(({ id, match }) => {
      const key = String(id);
      let rank = 0;
      for (const groups of sought) rank = Math.max(rank, rankOf(match, groups));
      return { id: key, rank, place: rank + (favour.get(key) ?? 0) };
    });
    found.sort((a, b) => b.place - a.place || byLetters(a.id, b.id));
    return found.slice(0, most).map(({ id, rank }) => ({ id, rank }));
  }
}

/** Stands between words, and in none. */
const BETWEEN = "\n";

/** How much a word counts for a group, of what it weighs; the same words come again with text after text. */
function factors(group: Sought[]): (word: string) => number {
  const known = new Map<string, number>();
  return (word) => {
    let factor = known.get(word);
    if (factor === undefined) {
      factor = 0;
      for (const { term, begins } of group)
        if (word === term) factor = 1;
        else if (begins && factor === 0 && word.startsWith(term)) factor = BEGUN;
      known.set(word, factor);
    }
    return factor;
  };
}

/** The mean, over the groups, of the best that stands there; 0 where one has nothing. */
function rankOf(match: Record<string, string[]>, groups: ((word: string) => number)[]): number {
  let sum = 0;
  for (const factorOf of groups) {
    let best = 0;
    for (const word in match) {
      const factor = factorOf(word);
      if (factor > 0) for (const field of match[word] ?? []) best = Math.max(best, factor * Number(field));
    }
    if (best === 0) return 0;
    sum += best;
  }
  return sum / groups.length;
}

/** Small before large by their code units: the same everywhere. */
function byLetters(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
