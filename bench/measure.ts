/** Numbers from 0 to 1 that are the same in every run (mulberry32, T. Ettinger, public domain). */
export function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** Median and 95th percentile (nearest rank), to a tenth. */
export function percentiles(times: number[]): { p50: number; p95: number } {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) =>
    Math.round((sorted[Math.min(sorted.length, Math.ceil(share * sorted.length)) - 1] ?? 0) * 10) / 10;
  return { p50: at(0.5), p95: at(0.95) };
}
