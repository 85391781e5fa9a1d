import { t } from "../words/ranking";

/** From here on a reply fits closely. */
const CLOSE = 0.7;

/** The fit of a reply whose words are behind their original: it may fit, and is to be read before it is sent. */
export function staleFit(fit: number): number {
  return Math.min(fit, CLOSE - 0.01);
}

/** How closely a reply fits. */
export type Closeness = "close" | "likely" | "maybe";

/** How closely a reply of a fit does; null where it is not to be offered by it. */
export function closeness(fit: number): Closeness | null {
  if (fit >= CLOSE) return "close";
  if (fit >= 0.35) return "likely";
  return fit >= 0.05 ? "maybe" : null;
}

/** How a fit is told: in words, since a bare number would claim more than anybody knows. */
export function fitWords(fit: number): string | null {
  const how = closeness(fit);
  return how && t(how);
}
