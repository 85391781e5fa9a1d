const RUNS = 3;

async function fastest(work: () => unknown): Promise<number> {
  let best = Number.POSITIVE_INFINITY;
  for (let run = 0; run < RUNS; run += 1) {
    const began = performance.now();
    await work();
    best = Math.min(best, performance.now() - began);
  }
  return best;
}

/**
 * How much longer work takes on 16 times as much, for tests: about 16 where it is linear, 256 where it is quadratic,
 * 1 where what is read is capped. The fastest of some runs counts, so that a busy machine tells nothing.
 * @param make makes what is worked on, of a size; the smallest should take some tenths of a millisecond
 * @param work done in the background where it returns a promise
 */
export async function growth<Input>(
  make: (size: number) => Input,
  size: number,
  work: (input: Input) => unknown,
): Promise<number> {
  const [small, middle, large] = [make(size), make(4 * size), make(16 * size)];
  await work(small);
  await work(middle);
  let least = Infinity;
  // What other work on the machine made slow is measured again; what grows faster than its input does so each time.
  for (let times = 0; times < MEASURED && least >= LINEAR; times += 1) {
    const base = Math.max(await fastest(() => work(small)), 0.05);
    least = Math.min(least, (await fastest(() => work(large))) / base);
  }
  return least;
}

const MEASURED = 3;

/** What is linear stays under this, also where memory is cleaned up meanwhile; what is quadratic is far above. */
export const LINEAR = 80;
