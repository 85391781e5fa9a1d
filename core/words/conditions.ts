import { wordsOf } from "./words-of";

/** The words of conditions, file by file. */
export const t = wordsOf("conditions", {
  // conditions/condition.ts
  aName: "A name as in booking.vehicle, blank.harbour or message.subject",
  nestedDeeperThan: "Nested deeper than {{most, number}} levels",
  moreTestsThan: "More than {{most, number}} tests",
  lettersDigitsHyphensAndUnderscores: "Letters, digits, hyphens and underscores",
  comparesWithNothing: "“{{is}}” compares with nothing",
  oneOfTakesAList: "“one_of” takes a list of values",
  betweenTakesTwo: "“between” takes a list of two values",
  matchesTakesARegularExpression: "“matches” takes a regular expression",
  aRegularExpressionIsShorter: "A regular expression has at most {{most, number}} characters",
  takesOneValue: "“{{is}}” takes one value",

  // conditions/coverage.ts
  passageNever: "The passage {{passage}} can never stand",
  passageAlways: "The passage {{passage}} stands whatever is chosen",
  noPassageStands: "Where {{blank}} is “{{value}}”, none of its passages stands",
  passagesOverlap: "The passages {{passage}} and {{other}} overlap: one always stands, and sometimes both do",
  otherwise: "{{passage}} (otherwise)",

  // conditions/evaluate.ts
  isMissing: "missing",
  theMessageDoesNotSay: "the message does not say",
  notARegularExpression: "“{{pattern}}” is not a regular expression that can be used",

  // conditions/in-words.ts
  both: "{{first}} and {{second}}",
  either: "{{first}} or {{second}}",
  not: "not ({{condition}})",
  inBrackets: "({{condition}})",
  present: "{{name}} is known",
  missing: "{{name}} is not known",
  equals: "{{name}} is {{value}}",
  differs: "{{name}} is not {{value}}",
  contains: "{{name}} contains {{value}}",
  lacks: "{{name}} does not contain {{value}}",
  starts: "{{name}} starts with {{value}}",
  ends: "{{name}} ends with {{value}}",
  matches: "{{name}} matches {{value}}",
  one_of: "{{name}} is one of {{value}}",
  less: "{{name}} is less than {{value}}",
  at_most: "{{name}} is at most {{value}}",
  more: "{{name}} is more than {{value}}",
  at_least: "{{name}} is at least {{value}}",
  before: "{{name}} is before {{value}}",
  after: "{{name}} is after {{value}}",
  between: "{{name}} is between {{from}} and {{until}}",
  quoted: "“{{value}}”",

  // conditions/re2.ts
  itIsLongerThan: "it is longer than {{most, number}} characters",
  itLacksAClosing: "it lacks a closing {{sign}} at its end",
  problemAtCharacter: "{{problem}}: “{{part}}” at character {{at}}",
});
