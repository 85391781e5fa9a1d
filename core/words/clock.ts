import { wordsOf } from "./words-of";

/** The words of answer-by times: when an answer is due, and why. */
export const t = wordsOf("clock", {
  // clock/calendar.ts
  aTimeAsIn: "Write a time as 09:00; a day ends at 24:00",
  endsBeforeItBegins:
    "It ends before it begins: hours past midnight are written as two, until 24:00, and from 00:00 the day after",
  aDayAsIn: "Write a day as 2026-12-25",
  noSuchTimeZone: "There is no such time zone: write it as Europe/London",
  twoLettersOfACountry: "Write a country as its two letters, as in GB",

  // clock/holidays.ts
  noHolidaysOfCountry: "The holidays of “{{country}}” are not known; write its two letters, as in GB",
  noHolidaysOfRegion: "“{{country}}” has no region “{{region}}”; there are {{regions}}",
  noHolidaysOfAnyRegion: "“{{country}}” has no region “{{region}}”, and no others",

  // clock/due.ts
  dueAtOnce: "due at once: no time is given",
  openOn: "{{day}}: {{from}} to {{until}}, {{time}}",
  endOfDay: "24:00",
  daysLikeThat_one: "and {{count}} day more, {{time}}",
  daysLikeThat_other: "and {{count}} days more, {{time}}",
  closedFor: "{{day}}: closed, {{holiday}}",
  aHoliday: "a holiday",
  pausedFrom: "paused from {{from}} to {{until}}",
  clocksGoForward: "{{day}}: the clocks go forward, and {{time}} is skipped",
  clocksGoBack: "{{day}}: the clocks go back, and {{time}} is passed twice",
  minutes_one: "{{count}} min",
  minutes_other: "{{count}} min",
  hoursOnly: "{{hours}} h",
  hoursAndMinutes: "{{hours}} h {{minutes}} min",
});
