/** How a fit is told: in words, since a bare number would claim more than anybody knows. */
export function fitWords(fit: number): "close fit" | "likely" | "maybe" | null {
  if (fit >= 0.7) return "close fit";
  if (fit >= 0.35) return "likely";
  return fit >= 0.05 ? "maybe" : null;
}
