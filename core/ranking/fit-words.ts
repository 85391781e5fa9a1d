/** From here on a reply fits closely. */
const CLOSE = 0.7;

/** The fit of a reply whose words are behind their original: it may fit, and is to be read before it is sent. */
export function staleFit(fit: number): number {
  return Math.min(fit, CLOSE - 0.01);
}

/** How a fit is told: in words, since a bare number would claim more than anybody knows. */
export function fitWords(fit: number): "close fit" | "likely" | "maybe" | null {
  if (fit >= CLOSE) return "close fit";
  if (fit >= 0.35) return "likely";
  return fit >= 0.05 ? "maybe" : null;
}
