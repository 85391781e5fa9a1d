const plural = new Intl.PluralRules("en-GB");
const number = new Intl.NumberFormat("en-GB");

/** A whole number with what is counted, as in `1 reply`, `10,064 replies`. */
export function counted(count: number, one: string, other: string): string {
  return `${number.format(count)} ${plural.select(count) === "one" ? one : other}`;
}

const list = new Intl.ListFormat("en-GB", { type: "conjunction" });

/** Several things as a sentence names them: `tags and note`. */
export function listed(things: string[]): string {
  return list.format(things);
}

/** How often: `once`, `3 times`. */
export function times(count: number): string {
  return count === 1 ? "once" : counted(count, "time", "times");
}

const size = (unit: string, digits: number, unitDisplay: "short" | "long" = "short") =>
  new Intl.NumberFormat("en-GB", {
    style: "unit",
    unit,
    unitDisplay,
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  });
const [inBytes, inKilobytes, inMegabytes] = [
  size("byte", 0, "long"),
  size("kilobyte", 0),
  size("megabyte", 1),
];

/** Bytes as people say them, in steps of a thousand: `1 byte`, `12 kB`, `3.4 MB`. */
export function fileSize(bytes: number): string {
  // What rounds up to a thousand kilobytes is a megabyte.
  if (bytes >= 999_500) return inMegabytes.format(bytes / 1_000_000);
  return bytes >= 1000 ? inKilobytes.format(bytes / 1000) : inBytes.format(bytes);
}
