import { wordsOf } from "./words-of";

/** The words of the checks of replies that are written, file by file. */
export const t = wordsOf("checks", {
  // checks/writing.ts
  thereIsNoBlankName: "There is no blank “{{name}}”",
  patternCannotBeRead: "The pattern “{{pattern}}” of the passage {{passage}} cannot be read: {{problem}}",
  itCannotBeUsed: "it cannot be used",
  passageIsUsedNowhere: "The passage {{passage}} is used nowhere",
  passageCanNeverStand: "The passage {{passage}} can never stand",
  thereIsNoTokenName: "There is no token “{{name}}”",
  blankIsUsedNowhere: "The blank “{{name}}” is used nowhere",
  passageByItsWords: "“{{words}}” (when {{condition}})",
  passageByItsCondition: "that stands when {{condition}}",
  wordsAndMore: "{{words}} …",
  nothingIsWrittenYet: "Nothing is written yet",
  notTranslatedYet: "Not translated yet: these are the {{language}} words",
  inSubject: "Subject: {{problem}}",
  conditionIsGone: "These words stand under a condition that is gone: remove it, or choose another",
  sayWhatThePictureShows: "Say what the picture shows, for those who do not see it",
  inAlternativeText: "Alternative text: {{problem}}",
  notAnAddress: "“{{href}}” is no address that a link can lead to",
  inLinkAddress: "Link address: {{problem}}",
  thereIsNoFormat: "There is no format “:{{format}}”",
  mayBeMissing: "The {{label}} may be missing ({{why}}), and nothing stands in for it",
  notAToken: "“{{words}}” is not a token that can be read",
  isAHouseFact: "“{{words}}” is a house fact: use {$house.{{key}}}, and it changes with it",
  hasPassed: "{{words}} has passed",
  noGreetingNeeded: "An answer needs no greeting: the opening has it",
  noSignOffNeeded: "An answer needs no sign-off: the closing has it",
  smsMessages_one: "As an SMS this is about {{count, number}} message long",
  smsMessages_other: "As an SMS this is about {{count, number}} messages long",

  // checks/guarantee.ts
  notEveryBookingSaysIt: "not every booking says it",
  thereMayBeNoValue: "there may be no value",
  notEveryCaseSaysIt: "not every case says it",
  notEveryCustomerToldUs: "not every customer told us",
  manyCustomersBelongToNoOrganisation: "many customers belong to no organisation",
  notEveryCaseIsKnownOutside: "not every case is known there",
  notEveryCaseHasABooking: "not every case has a booking",
  notEveryColleagueHasFilledItIn: "not every colleague has filled it in",
  theFactMayBeRemoved: "the fact may be removed",
  notEveryCustomerPressed: "not every customer has pressed an answer",

  // checks/lint.ts
  noReplyUsesTheHouseFact: "No reply uses the house fact “{{key}}”",
});
