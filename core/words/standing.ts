import { wordsOf } from "./words-of";

/** What is said of rules that answer by themselves, and of why they do not. */
export const t = wordsOf("standing-rules", {
  // rule.ts
  anInstantWithItsOffset: "an instant with its offset, as in 2026-11-25T10:00:00Z",
  ruleIsTwice: "the id “{{id}}” is another rule’s already",

  // loop.ts
  itIsJunk: "its sender is set aside as junk",
  itComesFromUs: "it comes from {{address}}, an address of ours",
  answersWouldComeToUs: "answers to it would come to {{address}}, an address of ours",
  nobodyIsToAnswerIt: "its return path is empty: nobody is to answer it",
  aProgramSentIt: "a program sent it ({{header}})",
  itCameByAList: "it came by a list ({{header}})",
  itIsADeliveryReport: "it is a delivery report",
  itAsksForNoAutomaticAnswers: "it asks for no automatic answers ({{header}})",
  senderReadsNoAnswers: "{{address}} reads no answers",
  senderIsAProgram: "{{address}} is a program’s address",

  // effects.ts
  aTagHasWords: "A tag has words.",
  aTagIsShorter: "A tag has 40 characters at most.",
  aTagHasNoComma: "A tag has no comma in it.",

  // occasion.ts
  itIsAskedOfSomethingElse: "it is asked of something else",
  theSilenceIsNotSoLong_one: "the silence is not {{count}} hour long",
  theSilenceIsNotSoLong_other: "the silence is not {{count}} hours long",
  itDidNotComeIntoThat: "it is not for “{{into}}”",

  // decide.ts
  ruleIsOff: "it is switched off",
  itCameBeforeThat: "the message came before it was switched on",
  itBeganBeforeThat: "it began before the rule was switched on",
  notOnThisChannel: "it is not for the channel {{channel}}",
  notAtThisMailbox: "it is not for the mailbox {{mailbox}}",
  notAtAnyMailbox: "it is for other mailboxes",
  itDoesNotHold: "its condition does not hold",
  itIsForThat: "it is for this: {{seen}}",
  itIsForAllThere: "it is for all that comes in there",
  answeredThisSenderBefore_one: "it has answered {{sender}} within the last hour",
  answeredThisSenderBefore_other: "it has answered {{sender}} within the last {{count}} hours",
  enoughOnThisThread_one: "there was {{count}} automatic answer on this thread already",
  enoughOnThisThread_other: "there were {{count}} automatic answers on this thread already",
  moreThanInAnHour_one: "more than {{count}} in an hour: a person looks at it first",
  moreThanInAnHour_other: "more than {{count}} in an hour: a person looks at it first",
  ruleSays: "“{{name}}”: {{why}}",
  noRuleIsForIt: "no rule is for it",
  itIsNotKnown: "it is not known",
});
