import { wordsOf } from "#core/words/words-of";

/** The words of ui, file by file. */
export const t = wordsOf("ui", {
  // act.tsx
  theServersAnswerCouldNotBe: "The server’s answer could not be read; load the page again",

  // compared.tsx
  paragraph: "paragraph",
  heading1: "heading 1",
  heading2: "heading 2",
  heading3: "heading 3",
  rule: "rule",
  quotation: "quotation",
  item: "item",
  numberedItem: "numbered item",
  row: "row",
  cell: "cell",
  headingCell: "heading cell",
  continued: "continued",
  addedLine: "added {{what}}",
  removedLine: "removed {{what}}",
  theSameWordsOtherFormatting: "the same words, other formatting",

  // confirm.tsx
  cancel: "Cancel",

  // desk.tsx
  toThePagesContent: "To the page’s content",
  toTheList: "To the list",
  plainShelf: "Plain Shelf",
  places: "Places",
  waiting: "Waiting",
  chats: "Chats",
  shelves: "Shelves",
  standingAnswers: "Standing answers",
  toLookAt: "to look at",
  record: "Record",
  report: "Report",
  isDueIn_one: "{{label}} is due in a minute",
  isDueIn_other: "{{label}} is due in {{count, number}} minutes",
  openIt: "Open it",

  // promises
  promised: "Promised",
  promisedUntil: "by {{day}}",
  wasPromisedUntil: "was due by {{day}}",
  promiseKept: "kept",
  promiseWithdrawn: "taken back",
  itIsKept: "it is kept",
  takeItBack: "take it back",

  // fields
  notChosen: "not known",
  currencyOf: "Currency of {{label}}",
  fillIn: "Fill in",
  fillInMore: "Fill in …",
  repliesReadTheseAtOnce: "Replies and their conditions read these at once.",
  thereAreNoFields: "There are no fields to fill in.",
  isRequired: "required",
  keepIt: "Keep it",
  notKnown: "not known",

  notesForYou_one: "one note for you",
  notesForYou_other: "{{count, number}} notes for you",
  byOnLabel: "{{by}} on {{label}}",
  setup: "Setup",
  outside: "Outside",
  keys: "Keys",
  yourDetailsPasswordAndSessions: "Your details, password and sessions",
  signOut: "Sign out",

  // editor/at-cursor.tsx
  writeAnAddressAsInHttps: "Write an address, as in https://example.org, mailto: or tel:.",
  leadsTo: "Leads to",
  removeLink: "remove link",
  itShows: "It shows",
  forThoseWhoDoNotSee: "for those who do not see it",
  sayWhatThePictureShows: "Say what the picture shows.",
  width: "Width",
  asItIs: "as it is",
  rowAbove: "row above",
  rowBelow: "row below",
  removeRow: "remove row",
  columnBefore: "column before",
  columnAfter: "column after",
  removeColumn: "remove column",
  headingRow: "heading row",
  joinOrSplitCells: "join or split cells",
  removeTable: "remove table",
  table: "Table",

  // editor/format-tools.tsx
  bold: "bold",
  boldCtrlB: "Bold (Ctrl B)",
  italic: "italic",
  italicCtrlI: "Italic (Ctrl I)",
  underline: "underline",
  underlineCtrlU: "Underline (Ctrl U)",
  strike: "strike",
  strikeCtrlShiftS: "Strike (Ctrl Shift S)",
  mark: "mark",
  highlightCtrlShiftH: "Highlight (Ctrl Shift H)",
  link: "link",
  linkTheSelectedWordsCtrlK: "Link the selected words (Ctrl K)",
  heading: "heading",
  headingCtrlAlt2: "Heading (Ctrl Alt 2)",
  list: "list",
  listCtrlShift8: "List (Ctrl Shift 8)",
  numberedListCtrlShift7: "Numbered list (Ctrl Shift 7)",
  quote: "quote",
  quotationCtrlShiftB: "Quotation (Ctrl Shift B)",
  aLineAcross: "A line across",
  table2: "table",
  aTableOfThreeColumns: "A table of three columns",
  words: "Words",
  paragraphs: "Paragraphs",
  undo: "undo",
  undoCtrlZ: "Undo (Ctrl Z)",
  redo: "redo",
  redoCtrlShiftZ: "Redo (Ctrl Shift Z)",

  // error-page.tsx
  somethingWentWrongHere: "Something went wrong here",
  itWasNotedNothingOfYours: "It was noted. Nothing of yours is lost; please try again.",
  notHere: "Not here",
  thereIsNoSuchPage: "There is no such page.",
  notForYou: "Not for you",
  yourRoleDoesNotIncludeThis: "Your role does not include this.",
  thatDidNotWork: "That did not work",
  theServerSaidStatus: "The server said {{status}}.",
  titlePlainShelf: "{{title}} · Plain Shelf",
  toTheWaitingCases: "To the waiting cases",
  tryAgain: "Try again",

  // letter-blocks.tsx
  thereIsNoValue: "There is no value.",
  filledInByTheAgent: "Filled in by the agent.",

  // many-picker.tsx
  findOrWriteANewOne: "Find, or write a new one",
  find: "Find",
  thereIsNoneLikeThat: "There is none like that.",
  chosen: "chosen",
  freshANewOne: "“{{fresh}}”, a new one",

  // picker.tsx
  nothingIsCalledLikeThat: "Nothing is called like that.",

  // refusal.ts
  theServerCannotBeReachedNothing: "The server cannot be reached. Nothing was changed; try again.",
  theServerSaidStatus2: "The server said {{status}}",

  // save-words.tsx
  saving: "saving",
  isSaved: "saved",
  itIsTriedAgainByItself: "it is tried again by itself",
  notSavedYet: "not saved yet",
  loadIt: "Load it",
  signInAgain: "sign in again",

  // saver.ts
  theServerAnswered: "The server answered {{status}}",
  theServerDoesNotAnswerWhat: "The server does not answer. What you typed is kept in this browser",
  yourSessionHasEndedWhatYou: "Your session has ended. What you typed is kept in this browser",
  itWasNotTaken: "It was not accepted",
  theServerCannotBeReachedWhat: "The server cannot be reached. What you typed is kept in this browser",

  // sortable.tsx
  howToMoveIt: "Space lifts it, the arrow keys move it, Space puts it down, Escape leaves it where it was.",
  isLifted: "{{name}} is lifted, place {{place}} of {{count}}.",
  wouldStandAt: "{{name}} would stand at place {{place}} of {{count}}.",
  isPutDownAt: "{{name}} is put down, place {{place}} of {{count}}.",
  isPutDown: "{{name}} is put down.",
  staysWhereItWas: "{{name}} stays where it was.",
  moveName: "Move {{name}}",

  // stale.tsx
  theServerDoesNotAnswerWhat2:
    "The server does not answer: what is shown may be out of date. It is loaded again by itself.",
  yourSessionHasEndedWhatIs: "Your session has ended: what is shown may be out of date.",
  signInAgain2: "Sign in again",

  // time.tsx
  over: "{{time}} over",
  left: "{{time}} left",
  byTime: "by {{time}}",
  minutes_one: "{{count}} min",
  minutes_other: "{{count}} min",
  days_one: "{{count}} day",
  days_other: "{{count}} days",
  hours: "{{hours}} h",
  hoursAndMinutes: "{{hours}} h {{minutes}}",
  yesterday: "yesterday {{clock}}",
  today: "today {{clock}}",
  tomorrow: "tomorrow {{clock}}",
  justNow: "just now",
  pastMinAgo: "{{past}} min ago",

  // toast.tsx
  notice: "Notice",
  noticesHotkey: "Notices, {hotkey}",
  actionAltZ: "{{action}}: Alt Z",
  closeTheNotice: "Close the notice",
  valueS: "{{value}} s",

  // use-save.ts
  saved: "Saved.",

  // word-source.tsx
  aHouseFact: "A house fact.",
  fromTheDetailsOfTheCase: "From the details of the case.",

  // zone-field.tsx
  timeZone: "Time zone",

  // date-entry.tsx
  thatIsNoDay: "That is no day; write it as in {{example}}",
  notBefore: "Not before {{day}}",
  notAfter: "Not after {{day}}",
  chooseLabel: "Choose {{label}}",
  aDay: "A day",
  chooseADay: "Choose a day",

  // read.ts
  theServerCannotBeReached: "the server cannot be reached",
  theServerAnsweredStatus: "the server answered {{status}}",

  // reply-choice.tsx
  theReply: "The reply",
  itsTitle: "Its title",
  noReplyIsLikeThat: "No answer on the shelf is like that",
  chooseAReply: "Choose a reply",

  // topic-choice.tsx
  theTopic: "The topic",
  aTopic: "a topic",
  aNewTopic: "{{topic}}, a new topic",
});
