/** The same numbers with room for one more at least. */
export function widened<Numbers extends Float32Array | Float64Array | Int32Array | Uint8Array>(
  numbers: Numbers,
  place: number,
): Numbers {
  const size = Math.max(place + 1, Math.ceil(numbers.length * 1.6));
  const wider = new (numbers.constructor as new (size: number) => Numbers)(size);
  wider.set(numbers);
  return wider;
}

/** Logarithms of small whole numbers are asked for all the time. */
const LOGARITHMS = Float64Array.from({ length: 65_536 }, (_, number) => Math.log(number));

/** The natural logarithm of a whole number. */
export function logarithm(number: number): number {
  return LOGARITHMS[number] ?? Math.log(number);
}
