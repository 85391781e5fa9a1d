import { wordsOf } from "#core/words/words-of";

/** The words of the report, file by file. */
export const t = wordsOf("report", {
  // route.tsx
  reportPlainShelf: "Report · Plain Shelf",
  answersAndTheirTimes: "Answers and their times",
  overTheLast: "Over the last",
  countDays_one: "{{count, number}} day",
  countDays_other: "{{count, number}} days",
  whatCounts:
    "An answer that comes after its time counts against us, and so does a case whose time has passed without one. What is set aside as junk, or as nothing to answer, does not.",
  nothingWasAnsweredYet: "Nothing was answered in these days.",

  // times.tsx
  byTeamAndChannel: "By team and channel",
  team: "Team",
  channel: "Channel",
  answered: "Answered",
  tooLate: "Too late",
  lateOf: "{{late, number}}, {{share}}",
  overNow: "Past due now",
  dueWithinTheHour: "Due within the hour",
  allTogether: "All together",
  answersADay: "Answers a day: in time below, too late above",
  dayInWords: "{{day}}: {{inTime, number}} in time, {{late, number}} too late",
  stoppedTheClock: "Who stopped the clock without an answer",
  whyThisIsTold:
    "Setting a case aside stops its time; so does settling it. Where that was done just before the time passed, or after, look at why.",
  nobodyStoppedIt: "Nobody did in these days.",
  who: "Who",
  setAside: "Set aside",
  settledIt: "Settled",
  closeToItsTime: "Within an hour of its time, or later",
  takenUpAgain: "Taken up again",
});
