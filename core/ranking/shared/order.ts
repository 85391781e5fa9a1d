/** The places of so many of the highest numbers, the highest first; those of minus infinity are left out. For a few of many. */
export function highest(numbers: Float64Array | Float32Array, count: number): number[] {
  const best: number[] = [];
  let least = -Infinity;
  for (let at = 0; at < numbers.length; at += 1) {
    const number = numbers[at] ?? -Infinity;
    if (number === -Infinity || (best.length === count && number <= least)) continue;
    let place = best.length;
    while (place > 0 && (numbers[best[place - 1] ?? 0] ?? 0) < number) place -= 1;
    best.splice(place, 0, at);
    if (best.length > count) best.pop();
    least = numbers[best.at(-1) ?? 0] ?? -Infinity;
  }
  return best;
}

/** The places of so many of the highest numbers, in the order in which they stand. For many of many. */
export function foremost(numbers: Float32Array, count: number): number[] {
  if (numbers.length <= count) return [...numbers.keys()];
  const least = numbers.slice().sort()[numbers.length - count] ?? -Infinity;
  const found: number[] = [];
  for (let at = 0; at < numbers.length && found.length < count; at += 1)
    if ((numbers[at] ?? -Infinity) >= least) found.push(at);
  return found;
}
