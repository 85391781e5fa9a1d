import { wordsOf } from "./words-of";

/** The words of tokens, blanks and their formats, file by file. */
export const t = wordsOf("tokens", {
  // tokens/blanks.ts
  aDay: "A day, as in 2027-03-01",
  atMostCharacters: "At most {{most, number}} characters",
  aWholeNumber: "A whole number",
  moreThan0: "More than 0",
  threeLetters: "Three letters, as in EUR",
  aChoiceHasAtMost: "A choice has at most {{most, number}} characters",
  writeAChoiceAtLeast: "Write a choice at least",
  atMostChoices: "At most {{most, number}} choices",
  smallLettersDigitsAndUnderscores: "Small letters, digits and underscores",
  thisReplyHasNoBlankName: "this reply has no blank “{{name}}”",
  labelAndProblem: "{{label}}: {{problem}}",
  labelIsNotFilledIn: "“{{label}}” is not filled in",
  takesWords: "takes words",
  takesAtMostMaxCharacters: "takes at most {{max}} characters",
  takesANumber: "takes a number",
  takesAtLeastMin: "takes at least {{min}}",
  takesAtMostMax: "takes at most {{max}}",
  takesADate: "takes a date",
  takesNoDateBeforeMin: "takes no date before {{min}}",
  takesNoDateAfterMax: "takes no date after {{max}}",
  takesATime: "takes a time, as in 07:40",
  takesOneChoice: "takes one choice",
  takesOnlyWhatIsOffered: "takes only what is offered",
  takesYesOrNo: "takes yes or no",

  // tokens/text-form.ts
  aBraceWithoutItsPartner: "A brace without its partner",
  notAPlaceholder: "Not a placeholder",
  onlySimpleTextsAreRead: "Only simple texts with placeholders are read",
  markupPlaceholdersAreNotUsedHere: "Markup placeholders are not used here",
  aPlaceholderNamesATokenOrABlank: "A placeholder names a token or a blank, as in {$case.number}",
  theOptionTakesAPlainValue: "The option {{name}} takes a plain value, not another token",
  emptyPlaceholder: "Empty placeholder",
  aBackslashStandsBeforeABrace: "A backslash may only stand before a brace, a bar or another backslash",
  theSameOptionStandsTwice: "The same option stands twice",
  aPlaceholderThatCannotBeRead: "A placeholder that cannot be read; write it as {$case.number}",

  // tokens/catalogue.ts
  answerToWords: "answer to “{{words}}”",

  // tokens/values.ts
  thereIsNoGroupGroup: "there is no group “{{group}}”",
  theCaseHasNoValueForIt: "the case has no value for it",
  theCustomerHasNoValueForIt: "the customer has no value for it",
  theOrganisationHasNoValueForIt: "the organisation has no value for it",
  theBookingHasNoValueForIt: "the booking has no value for it",
  theAgentHasNoValueForIt: "the agent has no value for it",
  theHouseHasNoValueForIt: "the house has no value for it",
  thereIsNoCase: "there is no case",
  theCustomerIsNotKnown: "the customer is not known",
  theCustomerBelongsToNoOrganisation: "the customer belongs to no organisation",
  nothingWasFoundOutside: "no outside system told it",
  noBookingWasFound: "no booking was found",
  noAgentIsNamed: "no agent is named",
  noHouseFactsAreKept: "no house facts are kept",
  thisQuestionCannotBeAsked:
    "it cannot be asked here: PUBLIC_URL, the address that customers reach us at, is not set",
  thereIsNoSuchQuestion: "there is no such question",
  theCustomerPressedNoAnswer: "the customer has pressed no answer to it",

  // tokens/format.ts
  caseIsNoneOf: "case={{letterCase}} is none of upper, lower, title, sentence",
  valueCannotBeWrittenAs: "“{{value}}” cannot be written as a {{name}}",

  // tokens/context.ts
  threeCapitalLetters: "Three capital letters, as in EUR",
  notATimeZone: "Not a time zone, as in Europe/Lisbon",
});
