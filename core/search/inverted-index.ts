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

/** The entries in which a term stands, in the order in which they came. */
interface Posting {
  entries: number[];
  weights: number[];
}

/**
 * Finds texts by words and beginnings of words (an inverted index: J. Zobel and A. Moffat, “Inverted files for text search
 * engines”, 2006). Its terms are kept in their order, so that those with the same beginning stand side by side.
 */
export class InvertedIndex {
  readonly #postings = new Map<string, Posting>();
  /** All terms in order, from when it is first asked for. */
  #sorted: string[] | null = null;
  readonly #ids: string[] = [];
  readonly #entries = new Map<string, number>();
  readonly #terms: string[][] = [];
  /** Places of entries that were taken out. */
  readonly #free: number[] = [];
  /** By entry: the highest weight in the group at hand, the sum over groups, how many groups were met, the best of all ways. */
  #best = new Float32Array(0);
  #sum = new Float32Array(0);
  #met = new Uint8Array(0);
  #rank = new Float32Array(0);

  /** How many texts it has. */
  get size(): number {
    return this.#entries.size;
  }

  /** Takes a text in, in place of what was known of it. @param terms its words, each with the weight of its best place, above 0 to 1 */
  put(id: string, terms: ReadonlyMap<string, number>): void {
    this.remove(id);
    const entry = this.#free.pop() ?? this.#ids.length;
    this.#ids[entry] = id;
    this.#entries.set(id, entry);
    this.#terms[entry] = [...terms.keys()];
    for (const [term, weight] of terms) {
      const posting = this.#postings.get(term);
      if (posting) {
        posting.entries.push(entry);
        posting.weights.push(weight);
      } else {
        this.#postings.set(term, { entries: [entry], weights: [weight] });
        this.#sorted?.splice(firstFrom(this.#sorted, term), 0, term);
      }
    }
  }

  /** Takes a text out; nothing happens where it is not known. */
  remove(id: string): void {
    const entry = this.#entries.get(id);
    if (entry === undefined) return;
    for (const term of this.#terms[entry] ?? []) this.#takeOut(term, entry);
    this.#entries.delete(id);
    this.#terms[entry] = [];
    this.#free.push(entry);
  }

  /** The texts that have what is asked, the highest first. @param favour what to add to the rank of some when the highest are chosen */
  find({ ways, least, most }: Asked, favour: ReadonlyMap<string, number> = new Map()): Found[] {
    const count = this.#ids.length;
    if (this.#rank.length < count) this.#grow(count);
    this.#rank.fill(0, 0, count);
    for (const groups of ways) this.#add(groups, least, count);
    const found: (Found & { place: number })[] = [];
    for (let entry = 0; entry < count; entry += 1) {
      const rank = this.#rank[entry] ?? 0;
      const id = this.#ids[entry] ?? "";
      if (rank > 0) found.push({ id, rank, place: rank + (favour.get(id) ?? 0) });
    }
    found.sort((a, b) => b.place - a.place || byLetters(a.id, b.id));
    return found.slice(0, most).map(({ id, rank }) => ({ id, rank }));
  }

  /** Raises the ranks of what has one of each group. */
  #add(groups: Groups, least: number, count: number): void {
    this.#sum.fill(0, 0, count);
    this.#met.fill(0, 0, count);
    for (const group of groups) {
      this.#best.fill(0, 0, count);
      for (const sought of group) this.#look(sought, least);
      for (let entry = 0; entry < count; entry += 1) {
        const best = this.#best[entry] ?? 0;
        if (best === 0) continue;
        this.#sum[entry] = (this.#sum[entry] ?? 0) + best;
        this.#met[entry] = (this.#met[entry] ?? 0) + 1;
      }
    }
    for (let entry = 0; entry < count; entry += 1)
      if (groups.length > 0 && this.#met[entry] === groups.length)
        this.#rank[entry] = Math.max(this.#rank[entry] ?? 0, (this.#sum[entry] ?? 0) / groups.length);
  }

  #look({ term, begins }: Sought, least: number): void {
    if (!begins) return this.#count(term, 1, least);
    const sorted = (this.#sorted ??= [...this.#postings.keys()].sort(byLetters));
    for (let at = firstFrom(sorted, term); sorted[at]?.startsWith(term); at += 1) {
      const met = sorted[at] ?? "";
      this.#count(met, met === term ? 1 : BEGUN, least);
    }
  }

  #count(term: string, factor: number, least: number): void {
    const { entries, weights } = this.#postings.get(term) ?? { entries: [], weights: [] };
    for (let at = 0; at < entries.length; at += 1) {
      const weight = weights[at] ?? 0;
      const entry = entries[at] ?? 0;
      if (weight >= least && weight * factor > (this.#best[entry] ?? 0)) this.#best[entry] = weight * factor;
    }
  }

  #takeOut(term: string, entry: number): void {
    const posting = this.#postings.get(term);
    const at = posting?.entries.indexOf(entry) ?? -1;
    if (!posting || at < 0) return;
    posting.entries.splice(at, 1);
    posting.weights.splice(at, 1);
    if (posting.entries.length > 0) return;
    this.#postings.delete(term);
    this.#sorted?.splice(firstFrom(this.#sorted, term), 1);
  }

  #grow(count: number): void {
    const size = Math.ceil(count * 1.5);
    this.#best = new Float32Array(size);
    this.#sum = new Float32Array(size);
    this.#met = new Uint8Array(size);
    this.#rank = new Float32Array(size);
  }
}

/** Small before large by their code units: not any language's order, but the same for beginnings and wholes. */
function byLetters(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

/** The first place whose term is not before the wanted one. */
function firstFrom(sorted: string[], wanted: string): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((sorted[middle] ?? "") < wanted) low = middle + 1;
    else high = middle;
  }
  return low;
}
