import { wordsOf } from "./words-of";

/** The words of what is composed, and of what goes with it, file by file. */
export const t = wordsOf("letters", {
  // compose/compose.ts
  pictureIsNotAmongTheFiles: "The picture “{{id}}” is not among the attachments",
  languageIsNoLanguage: "“{{language}}” is no language; choose one, as in en or pt-BR.",
  labelIsNotAnswered: "“{{label}}” is not answered. What “{{title}}” says depends on it.",
  conditionCannotBeTested: "The condition of the passage “{{name}}” cannot be tested: {{problem}}",
  passageDecided: "{{condition}} ({{values}})",
  standsOnceAtTheEnd: "stands once, at the end",
  emailsCarryIt: "emails carry it",
  channelCarriesNone: "{{channel}} carries none",
  writtenByTheAgent: "written by the agent",
  subjectOfTitle: "subject of “{{title}}”",
  theThreadsSubject: "the thread’s subject",
  subjectCannotBeRead: "The subject of “{{title}}” cannot be read: {{message}}",
  theSubjectLacks: "The subject lacks {{label}}",

  // compose/fill.ts
  conditionThatTheReplyLacks: "These words stand under a condition that this reply does not have",
  steersPassagesIsNotPrinted: "steers passages, is not printed",
  thisReplyHasNoBlankName: "This reply has no blank “{{name}}”",
  labelIsEmpty: "{{label}} is empty. Fill it, or remove the words around it.",
  labelCannotBeWritten: "{{label}} cannot be written: {{why}}",
  thereIsNoTokenName: "There is no token “{{name}}”",
  labelIsNotKnown: "{{label}} is not known: {{why}}. Write it yourself, or remove the words around it.",
  theAlternativeTextLacks: "The picture’s alternative text lacks {{name}}",
  theLinksAddressCannotBeRead: "The link’s address cannot be read: {{message}}",
  theLinksAddressLacks: "The link’s address lacks {{piece}}",
  fallback: "fallback: there is no value",
  fromTheValue: "from the value",

  // compose/passages.ts
  theMessagesPart: "the message’s {{part}}",
  text: "text",

  // compose/trials.ts
  hasWhatTheReplyUses: "has what the reply uses",
  lacksLabel: "no {{label}}",
  longestValues: "longest values",
  writesLanguage: "writes {{language}}",
  chosenByYou: "chosen by you",

  // mail/risky-file.ts
  isAProgram: "is a program: many mail services refuse one, and customers are told never to open one",
  holdsMacros: "holds macros, which are programs: many mail services refuse it",
  isLarge: "is larger than 10 MB: many mailboxes do not take a letter that large",
});
