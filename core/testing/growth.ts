const RUNS = 3;

function fastest(work: () => unknown): number {
  let best = Number.POSITIVE_INFINITY;
  for (let run = 0; run < RUNS; run += 1) {
    const began = performance.now();
    work();
    best = Math.min(best, performance.now() - began);
  }
  return best;
}

/**
 * How much longer work takes on 16 times as much, for tests: about 16 where it is linear, 256 where it is quadratic,
 * 1 where what is read is capped. The fastest of some runs counts, so that a busy machine tells nothing.
 * @param make makes what is worked on, of a size; the smallest should take some tenths of a millisecond
 */
export function growth<Input>(
  make: (size: number) => Input,
  size: number,
  work: (input: Input) => unknown,
): number {
  const [small, middle, large] = [make(size), make(4 * size), make(16 * size)];
  work(small);
  work(middle);
  const base = Math.max(
    fastest(() => work(small)),
    0.05,
  );
  return fastest(() => work(large)) / base;
}

/** What is linear stays under this, also where memory is cleaned up meanwhile; what is quadratic is far above. */
export const LINEAR = 80;
