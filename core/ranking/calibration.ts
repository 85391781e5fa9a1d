/** An inquiry whose answer is known, ranked as if it were not: its best scores, and the right reply's place among them, -1 for none. */
export interface Scored {
  scores: Float32Array;
  right: number;
}

/** So many of the best scores; what is behind them has hardly a chance. */
const BEST = 50;

/** What calibrating needs of an inquiry's scores. @param right the place of the right reply among all, -1 for none */
export function scoredOf(scores: Float32Array, right: number): Scored {
  const others = scores
    .filter((_, at) => at !== right)
    .sort()
    .reverse()
    .subarray(0, BEST);
  return right < 0
    ? { scores: others, right }
    : { scores: Float32Array.of(scores[right] ?? 0, ...others), right: 0 };
}

/** How scores become chances. */
export interface Calibration {
  /** What scores are divided by: the more doubtful they proved, the larger. */
  doubt: number;
  /** The score of “nothing on the shelf fits”. */
  nothing: number;
}

/** Before there is any history. Nearly nothing in common is no fit; the rest is told carefully. */
export const UNTRIED: Calibration = { doubt: 5, nothing: 6 };
/** A past without a doubt does not mean that the future has none. */
const LEAST_DOUBT = 1.5;
/** So many known answers before they say more than the defaults. */
const ENOUGH = 20;
/** Where no answer by hand is known, so many of a hundred answered inquiries are taken to have been near to one. */
const RARE = 2;
/** Of answered inquiries, one in so many at most may seem unanswerable; and where it is all the same, none should. */
const MOST_MISSED = 10;
const CAUTION = 0.05;

/**
 * Finds how scores become chances, so that what was right is likeliest (temperature scaling: C. Guo and others, “On
 * Calibration of Modern Neural Networks”, 2017), with “nothing fits” as one more that may be right.
 */
export function calibrate(known: Scored[]): Calibration {
  const answered = known.filter((one) => one.right >= 0);
  if (answered.length < ENOUGH) return UNTRIED;
  const best = answered.map(({ scores }) => scores.reduce((a, b) => Math.max(a, b), 0)).sort((a, b) => a - b);
  let nothing = Math.min(best[Math.floor((best.length * RARE) / 100)] ?? 0, 2 * UNTRIED.nothing);
  let doubt = UNTRIED.doubt;
  const byHand = known.length > answered.length;
  const most = best[Math.floor(best.length / MOST_MISSED)] ?? 1;
  for (let round = 0; round < (byHand ? 4 : 1); round += 1) {
    doubt = Math.exp(
      lowest(Math.log(LEAST_DOUBT), Math.log(60), (log) =>
        surprise(known, { doubt: Math.exp(log), nothing }),
      ),
    );
    if (byHand)
      nothing = lowest(
        0,
        most,
        (score) => surprise(known, { doubt, nothing: score }) + (CAUTION * score) / most,
      );
  }
  return { doubt, nothing };
}

/**
 * Scores as chances (softmax). With the chance that nothing fits, which is what is left, they add up to one.
 * @param suits which may be right at all; the others have no chance
 */
export function chances(
  scores: Float32Array,
  { doubt, nothing }: Calibration,
  suits: (at: number) => boolean = () => true,
): Float32Array {
  let most = nothing;
  for (let at = 0; at < scores.length; at += 1) if (suits(at)) most = Math.max(most, scores[at] ?? 0);
  const powers = new Float32Array(scores.length);
  let sum = Math.exp((nothing - most) / doubt);
  for (let at = 0; at < scores.length; at += 1) {
    if (!suits(at)) continue;
    const power = Math.exp(((scores[at] ?? 0) - most) / doubt);
    powers[at] = power;
    sum += power;
  }
  for (let at = 0; at < powers.length; at += 1) powers[at] = (powers[at] ?? 0) / sum;
  return powers;
}

/** The mean surprise (negative logarithm of the chance) at what was right. */
function surprise(known: Scored[], calibration: Calibration): number {
  let sum = 0;
  for (const { scores, right } of known) {
    const fits = chances(scores, calibration);
    const chance = right >= 0 ? (fits[right] ?? 0) : 1 - fits.reduce((total, fit) => total + fit, 0);
    sum -= Math.log(Math.max(chance, 1e-9));
  }
  return sum / known.length;
}

/** Where a function with one valley is lowest, by ternary search. */
function lowest(from: number, to: number, value: (at: number) => number): number {
  let [low, high] = [from, to];
  for (let step = 0; step < 30; step += 1) {
    const third = (high - low) / 3;
    if (value(low + third) < value(high - third)) high -= third;
    else low += third;
  }
  return (low + high) / 2;
}
