import { expect, test } from "@jest/globals";
import { readDeadline } from "./deadline";

const now = new Date("2026-11-25T10:00:00Z");
const read = (words: string, language = "en", zone = "Europe/Lisbon") =>
  readDeadline(words, language, now, zone);

test("days and times are read as people of the place write them", () => {
  expect(read("28 November 2026, 18:00")).toBe("2026-11-28T18:00:00.000Z");
  expect(read("28 November 2026, 18:00", "en", "Europe/Berlin")).toBe("2026-11-28T17:00:00.000Z");
  expect(read("28/11/2026 at 6:30 pm")).toBe("2026-11-28T18:30:00.000Z");
  expect(read("2026-11-28 18:00")).toBe("2026-11-28T18:00:00.000Z");
  expect(read("28. November 2026 um 18:00 Uhr", "de", "Europe/Berlin")).toBe("2026-11-28T17:00:00.000Z");
  expect(read("28 novembre 2026 à 18h", "fr", "Europe/Paris")).toBe("2026-11-28T17:00:00.000Z");
});

test("an offset that is written holds; a day without a time is over at its end", () => {
  expect(read("2026-11-28T18:00:00+02:00", "en", "Europe/Berlin")).toBe("2026-11-28T16:00:00.000Z");
  expect(read("28 November 2026")).toBe("2026-11-28T23:59:00.000Z");
});

test("what names no day, or two, is not guessed", () => {
  for (const words of [
    "soon",
    "",
    "QZ-1001",
    "between 1 March 2027 and then again on 4 May 2027, or 6 June 2027",
  ])
    expect(read(words)).toBeNull();
});
