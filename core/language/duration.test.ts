import { expect, test } from "@jest/globals";
import { durationWords } from "./duration";

test.each([
  [0, "en", "1 minute"],
  [29, "en-GB", "1 minute"],
  [95, "en", "2 minutes"],
  [3599, "en", "1 hour"],
  [3600, "en", "1 hour"],
  [4830, "en", "1 hour, 21 minutes"],
  [7200, "en", "2 hours"],
  [90_000, "en", "25 hours"],
  [4800, "de", "1 Stunde, 20 Minuten"],
  [60, "fr", "1 minute"],
  [7320, "es", "2 horas y 2 minutos"],
])("%d seconds in %s are %s", (seconds, language, words) => {
  expect(durationWords(seconds, language)).toBe(words);
});
