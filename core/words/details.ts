import { wordsOf } from "./words-of";

/** What is said of outside systems and their answers. */
export const t = wordsOf("details", {
  // source.ts
  fieldIsNoType: "{{label}}: what stands at {{path}} is of another kind",
  fieldIsNotThere: "{{label}}: nothing stands at {{path}}",
  aPathBeginsWith: "A path begins with $, as in $.sailing.ship",
  aPathFiltersNothing: "A path leads to a value, without filters, as in $.sailing.ship",
  aPathIsLike: "Write a path as in $.sailing.ship or $.cars[0].length",

  // networks.ts
  anAddressOfAPrivateNetwork: "it is at {{address}}, an address of a private network that is not allowed",
});
