/**
 * How long something took, as people write it: “1 hour, 20 minutes”. Less than a minute is one.
 * @param seconds a time of zero or more
 * @param language BCP 47 tag
 */
export function durationWords(seconds: number, language: string): string {
  const minutes = Math.max(1, Math.round(seconds / 60));
  const unit = (value: number, name: "hour" | "minute") =>
    new Intl.NumberFormat(language, { style: "unit", unit: name, unitDisplay: "long" }).format(value);
  const parts = [
    ...(minutes >= 60 ? [unit(Math.floor(minutes / 60), "hour")] : []),
    ...(minutes % 60 > 0 ? [unit(minutes % 60, "minute")] : []),
  ];
  return new Intl.ListFormat(language, { type: "unit", style: "long" }).format(parts);
}
