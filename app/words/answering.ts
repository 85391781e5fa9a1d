import { wordsOf } from "#core/words/words-of";

/** The words of answering, file by file. */
export const t = wordsOf("answering", {
  // changes
  theOtherCase: "The other case",
  chooseACase: "Choose a case",
  numberSubjectOrCustomer: "Number, subject or customer",
  noCaseIsLikeThat: "No case is like that",
  itIsAsItWas: "It is as it was.",
  undo: "Undo",
  joinAnotherCaseToLabel: "Join another case to {{label}}",
  itsMessagesComeHere:
    "Its messages come here, in order of time; the other case is closed and leads here. It can be undone.",
  joinThem: "Join them",
  moveThisMessage: "Move this message",
  itGoesToTheOtherCase: "It goes to the other case, with its files. It can be undone.",
  moveIt: "Move it",
  moveLabelToAnotherCustomer: "Move {{label}} to another customer",
  itIsCustomersNow:
    "It is {{customer}}’s now. Its tokens, and whom its answers go to, follow the customer. It can be undone.",
  theOtherCustomer: "The other customer",
  chooseSomebody: "Choose somebody",
  somebodyElse: "Somebody else",
  itWasCalledBack: "It was called back: nothing left.",
  forwardThisMessage: "Forward this message",
  theCaseWaitsAsItDid: "The case waits as it did; what is answered to this comes to it.",
  forwardTo: "To",
  forwardToWhom: "To whom it is forwarded",
  yourWordsAboveIt: "Your words above it",
  withItsFiles: "With its files: {{files}}",
  forwardIt: "Forward it",
  sendItAllTheSame: "Send it all the same",
  moreWithThisCase: "More to do with this case",
  takeItUpAgain: "Take it up again",
  settleIt: "Settle it",
  itWaitsOnTheCustomer: "It waits on the customer",
  itWaitsOnAColleague: "It waits on a colleague",
  setItAsideMore: "Set it aside …",
  itIsMine: "It is mine",
  giveItToAColleague: "Give it to somebody …",
  itIsNobodys: "It is nobody’s",
  joinAnotherCase: "Join another case …",
  moveToAnotherCustomer: "Move it to another customer …",
  writeAnew: "Write to them anew",
  moreWithThisMessage: "More to do with the message of {{from}}",
  forward: "Forward …",
  aCaseOfItsOwnFromHere: "A case of its own from here on",
  moveToAnotherCase: "Move it to another case …",

  // changes/aside-dialog.tsx
  aThankYou: "a thank-you",
  sentTwice: "sent twice",
  meantForSomebodyElse: "meant for somebody else",
  advertising: "advertising",
  itWantsMoneyOrSecrets: "it wants money or secrets",
  nonsense: "nonsense",
  setLabelAside: "Set {{label}} aside",
  itsTimeStops: "Its time stops. What the customer writes next brings it back.",
  itsTimeStopsAndItsSender:
    "Its time stops, and what its sender writes from now on is set aside by itself. It can be undone.",
  setItAside: "Set it aside",
  asWhat: "As what",
  why: "Why",
  forAnotherReason: "for another reason",
  inAWordOrTwo: "In a word or two",

  // changes/assign-dialog.tsx
  giveLabelTo: "Give {{label}} to somebody",
  itIsTheirsAndInTheirList: "It is theirs from then on, and in their list; what you began stays yours.",
  giveItToThem: "Give it to them",
  theColleague: "To whom",
  chooseAColleague: "Choose a colleague or team",
  nameOrTeam: "A name or a team",
  noColleagueIsLikeThat: "Nobody is called like that",
  countCases_one: "{{count}} case",
  countCases_other: "{{count}} cases",

  // inquiry/their-side.tsx
  asideAsKind: "{{state}} as {{kind}}",
  nobodysCase: "nobody’s",
  namesCase: "{{name}}’s",
  goesOnFrom: "goes on from {{label}}",
  cameByName: "Came by {{name}}",
  orderReference: "order {{reference}}",
  wantsAnAnswerBy: "wants an answer by {{deadline}}",

  // write.tsx
  aNewMailPlainShelf: "A new mail – Plain Shelf",
  aNewMail: "A new mail",
  itIsACaseOfTeam:
    "It becomes a case of {{team}}, and is written as an answer is. Nothing leaves before you send it.",
  toWhom: "To whom",
  writeIt: "Write it",

  // inquiry/conversation.tsx, besides words
  theyPressedThis: "Pressed as an answer to our question.",
  thisIsANotice: "A notice: it goes by itself, on behalf of who changed the case.",
  thisForwardsAMessage: "This forwards a message to {{to}}.",
  aProgramWroteThis: "A program wrote this by itself; nobody waits for an answer to it.",
  thisWentToAList: "This went to a list; nobody waits for an answer to it.",
  thisReportsThatALetter: "This reports what became of a letter of ours; it is told beside the letter.",
  wentToOthersToo: "Went to {{others}}, too.",
  wentUnseenTo: "Went unseen to {{others}}.",
  isSignedBy: "It is signed ({{by}}); nobody has looked whether the signature is good.",
  isEncryptedBy: "It is encrypted ({{by}}): its words cannot be read here. Ask for it in the clear.",
  invitesTo: "Invites to",
  aDateIsCalledOff: "Calls off",
  theOtherServerSays: "The other server says: {{refusal}}",

  // sending/copies-line.tsx
  alsoTo: "Also to",
  copyTo: "Copy",
  copyUnseenTo: "Unseen",
  answersTo: "Answers",
  isNewHere: "new here",
  leaveAddressOut: "Leave {{address}} out",
  addTo: "{{list}}: add somebody",
  anotherAddressForAnswers: "Another address for answers",
  answerAllCount_one: "Answer all: one more",
  answerAllCount_other: "Answer all: {{count, number}} more",
  copiesAndOthers: "Copies …",

  // sending/address-picker.tsx
  addSomebody: "add",
  aNameOrAnAddress: "a name, or an address",
  nobodyIsCalledLikeThat: "Nobody is called like that; an address can be written.",
  aColleague: "a colleague",
  addAddress: "Add {{address}}",

  // letter/plain-line.tsx
  asItGoesOut: "As it goes out, without formatting",
  goesAsCountMessages_one: "Goes as one message",
  goesAsCountMessages_other: "Goes as {{count, number}} messages",
  charactersMakeItLonger_one: "{{characters}} is not of the short alphabet, and makes each part shorter",
  charactersMakeItLonger_other: "{{characters}} are not of the short alphabet, and make each part shorter",
  writeThemPlainlyCount_one: "Write plainly, as one message",
  writeThemPlainlyCount_other: "Write plainly, as {{count, number}} messages",
  writeThemPlainly: "Write plainly",
  hasArrived: "arrived",

  // draft/kept-draft.tsx
  whatYouHadTypedHereIs: "What you had typed here is back.",
  thisBrowserKeptWordsOfYours:
    "This browser kept words of yours that were not stored (<0/>). <1>Put them here in place of this draft</1> <2>Discard them</2>",

  // draft/set-aside.tsx
  setAside: "Set aside",
  yourChangesToTheReplyBefore: "Your changes to the reply before, set aside:",
  insert: "insert",
  remove: "remove",

  // editor/decorations.tsx
  unlessWords: "unless {{words}}",
  whenWords: "when {{words}}",
  andWord: "and",
  leftOutStands: "Left out: stands {{words}}",
  foldedStands: "Folded: stands {{words}}",
  standsWords: "Stands {{words}}",
  theirConditionIsGone: "(their condition is gone)",
  foldItAgain: "Fold it again",
  lookAtWhatIsLeftOut: "Look at what is left out",

  // editor/extensions.ts
  writeOrTakeAReplyFrom: "Write, or take a reply from the shelf below.",

  // editor/format-bar.tsx
  formatting: "Formatting",
  atTheCursor: "At the cursor",

  // editor/inline-views.tsx
  thisReplyHasNoBlank: "This reply has no blank “{{name}}”",
  thereIsNoValueThisStands: "There is no value; this stands for it.",
  takeItOutOrWriteIt: "Remove it, or write it out.",

  // editor/slips.ts
  yourOwnWords: "Your own words",

  // editor/slip-view.tsx
  aNewerVersionIsOnThe: "a newer version is on the shelf",
  notAnswered: "not answered",

  // inquiry/conversation.tsx
  delivered: "delivered",
  files: "Files",
  conversation: "Conversation",
  countEarlierMessages_one: "{{count, number}} earlier message",
  countEarlierMessages_other: "{{count, number}} earlier messages",
  nothingHasBeenSaidYet: "Nothing has been said yet.",
  leavesInAMoment: "leaves in a moment",
  isBeingDelivered: "is being delivered",
  wasRefused: "was refused",
  wasCalledBack: "was called back",
  ourAnswerByFrom: "Our answer by {{from}}",
  fromFrom: "From {{from}}",
  thisMessageHasOnlyFormattedText: "This message has only formatted text.",
  thisMessageHasNoWords: "This message has no words.",
  thisIsOnlyTheBeginningThe:
    "This is only the beginning: the message is longer than is shown here. <0>The whole of it</0>",
  quotedText: "quoted text",
  asItWasFormatted: "as it was formatted",
  asPlainText: "as plain text",
  loadRemotePictures: "load remote pictures",
  notFilledIn: "not filled in",

  // changes/promise-dialog.tsx
  weHavePromised: "We have promised something …",
  whatWasPromisedOn: "What was promised on {{label}}",
  itStandsOnTheCase: "It stands on the case and on the customer’s page until it is kept or taken back.",
  whatWePromised: "What we promised",
  moneyBack: "the money is on the account",
  untilWhichDay: "By which day",
  keepThePromise: "Keep it in mind",

  // notes
  betweenUs: "Between us",
  neverSent: "never sent",
  writeANote: "Write a note",
  aNoteForColleagues: "A note for colleagues",
  onlyColleaguesReadIt: "Only colleagues read it. @ names one, who is told.",
  colleagues: "Colleagues",
  thisIsANoteNotALetter: "This is a note, which is kept with Alt Enter. Nothing was sent.",
  keepTheNote: "Keep the note",
  leaveIt: "Leave it",

  aTeam: "team",
  aNoteWithIt: "A note for them, if you like; it is never sent",

  // changes/topic-dialog.tsx
  setTheTopicMore: "Say what it is about …",
  setTheTagsMore: "Tag it …",
  whatLabelIsAbout: "What {{label}} is about",
  answersAndTheTimeForThem: "Which replies fit, and how soon it is to be answered, may hang on it.",
  setTheTopic: "Set the topic",
  noTopic: "none",

  // changes/rule-dialog.tsx
  aRuleShouldHaveAnsweredMore: "A rule should have answered this …",
  aRuleShouldHaveAnswered: "Which rule should have answered this?",
  itIsTriedWhenRehearsed:
    "It is tried on this message whenever it is rehearsed, before it may be switched on.",
  theRule: "The rule",
  chooseARule: "Choose a rule",
  itIsTriedOnThat: "The rule is tried on that from now on",

  // inquiry/by-rule.tsx
  theRuleSentThis: "The rule “{{name}}” sent this by itself.",
  itShouldNotHave: "it should not have been answered",
  saidItShouldNot: "You have said that it should not have been answered.",
  takeThatBack: "take that back",

  // changes/tags-dialog.tsx
  tagsOfLabel: "Tags of {{label}}",
  tagsAreWords: "Words by which it is found among others.",
  setTheTags: "Set the tags",
  tags: "Tags",
  noTags: "none",

  whereItsWordsCameFrom: "where its words came from",
  theWholeRecord: "The whole record",
  keepOnAShelf: "keep on a shelf",
  raw: "raw",
  fileIsAProgramOrMay:
    "“{{file}}” is a program or may hold one. Whoever opens it runs what the sender wrote. <0>Fetch it all the same</0> <1>Cancel</1>",
  fromFromaddressWhichIsNotKnown: "From {{fromAddress}}, which is not known to be {{customer}}’s.",
  asksForAnswersToReplyto: "Asks for answers to {{replyTo}}.",
  ourReceiverFoundWords: "Our receiver found: {{words}}.",
  notDeliveredYetTriedAttemptsRefusal: "Not delivered yet, tried {{attempts}}: {{refusal}}",
  refusedRefusal: "Refused: {{refusal}}",
  tryAgain: "Try again",
  theMessageAsItWasFormatted: "The message as it was formatted",

  // inquiry/details.tsx
  noBookingIsNamedInThis: "No booking is named in this case.",
  booking: "Booking",
  nothingIsKnownOfIt: "Nothing is known of it.",
  askingTheSystem: "Asking {{name}} …",
  foundInTheMessage: "found in the message",
  asOf: "as of <0/>",
  problemThisIsWhatItSaid: "{{problem}}; this is what it said before.",

  // inquiry/their-side.tsx
  writesLanguage: "writes {{language}}",
  history: "History",
  haveThisCaseOpenToo_one: "{{names}} has this case open too",
  haveThisCaseOpenToo_other: "{{names}} have this case open too",
  beganAnAnswerHere: "{{names}} began an answer here",
  withUsSinceSince: "with us since {{since}}",
  theirSide: "Their side",
  noSubject: "No subject",
  otherCases: "Other cases",
  answerByDue: "Answer by {{due}}",

  // letter/around-line.tsx
  noOpeningYetAddWords: "No opening yet: <0>add “{{words}}”</0>",
  noClosingYetAddWords: "No closing yet: <0>add “{{words}}”</0>",

  // letter/signature.tsx
  signature: "Signature",

  // margin.tsx
  stopsStopSending_one: "{{count, number}} stops sending",
  stopsStopSending_other: "{{count, number}} stop sending",
  secondLook: "Second look",
  countWorthALook: "{{count}} worth a look",
  nothingToSeeTo: "Nothing to see to",
  nothingToSeeTo2: "Nothing to see to.",
  stopsSending: "Stops sending",
  worthALook: "Worth a look",

  // our-answer.tsx
  answeredThisCustomerOtherwise:
    "{{person}} answered this customer otherwise, <0/>: <1>{{label}}</1> with “{{reply}}”.",
  answeredMuchTheSameOtherwise:
    "{{person}} answered much the same otherwise, <0/>: <1>{{label}}</1> with “{{reply}}”.",
  countBlanksLeft_one: "{{count, number}} blank left",
  countBlanksLeft_other: "{{count, number}} blanks left",
  ourAnswer: "Our answer",
  howLookedReadsForThisCase: "How “{{looked}}” reads for this case",
  takeIt: "take it",
  writeItYourself: "write it yourself",
  theLanguageOfThisReplyIs:
    "The {{language}} of this reply is behind its original, which was changed since: read it before you send it.",
  sendTakeTheNext: "Send, take the next",
  sendAndStay: "Send and stay",
  keepThisOnAShelf: "Keep this on a shelf",
  notTakenYet: "not taken yet",
  notTakenYetEnterAddsIt: "not taken yet: Enter adds it",
  notTakenYetEnterPutsIt: "not taken yet: Enter puts it in place of “{{way}}”",

  // route.tsx
  openCustomerPlainShelf: "{{open}} {{customer}} · Plain Shelf",

  // sending/files.tsx
  removeFile: "Remove {{file}}",
  attachAFile: "Attach a file",

  // sending/recipient-line.tsx
  to: "To",
  noAddressIsKnown: "no address is known",
  anotherAddress: "another address",
  whereTheLetterGoes: "Where the letter goes",
  address: "Address",
  leaveItSo: "cancel",
  addressIsNotKnownToBe: "{{address}} is not known to be {{customer}}’s.",
  youConfirmedItForThisLetter: "You confirmed it for this letter.",
  sendThisLetterThere: "Send this letter there",
  itIsCustomerSKeepIt: "It is {{customer}}’s: save it",

  // sending/request.ts
  yourSessionHasEndedSignIn: "Your session has ended: sign in again, then send.",
  theServerDidNotTakeIt: "The server did not accept it. Your answer is still here.",
  onItsWayToTo: "On its way to {{to}}",
  callItBack: "Call it back",
  calledBackItIsYourDraft: "Called back. It is your draft again.",

  // sending/subject-line.tsx
  subject: "Subject",
  change: "change",
  useTheReplys: "use the reply’s",
  keepTheThreads: "keep the thread’s",

  // sending/use-own-files.ts
  attachName: "Attach “{{name}}”?",
  itRisk: "It {{risk}}.",
  attachIt: "Attach it",

  // sending/use-send-letter.ts
  takeItFirstEnterTakesWhat: "Take it first: Enter takes what the page shows.",
  thisIsTheLetterThatWould: "This is the letter that would go. Send it, if it is right.",
  somethingStopsSending: "Something stops sending",
  yourAnswerCouldNotBeSaved: "Your answer could not be saved, so it was not sent. It is still here.",
  itWasNotSentErrorYour: "It was not sent: {{error}}. Your answer is still here.",

  // side.tsx
  inTheAnswer: "In the answer",
  toTheAnswer: "to the answer",
  onTheShelf: "On the shelf",
  toTheShelf: "to the shelf",

  // spread.tsx
  yourAnswerOnOpenCouldNot:
    "Your answer on {{open}} could not be saved yet. It is kept in this browser: open the case again.",
  replyIsInYourAnswerAlready: "“{{reply}}” is in your answer already.",
  casePositionOfTotal: "Case {{position}} of {{total}}",
  caseBefore: "Case before",
  caseAfter: "Case after",

  // notices
  itsStateChanged: "Its state changed",
  itsTopicChanged: "Its topic changed",
  itIsSomebodyElses: "It is somebody else’s now",
  somethingWasPromised: "Something was promised",
  noticesOfThisCase: "Notices of this case",
  ruleIsForIt: "The rule “{{name}}” is for this",
  ruleIsForItBut: "The rule “{{name}}” is for this ({{why}})",
  titleGoesByItself: "“{{title}}” goes by itself:",
  titleDidNotGo: "“{{title}}” did not go by itself: {{why}}",
  tellThemByTitle: "{{changed}}. Tell them by “{{title}}”?",
  whatWasDoneOn: "What was done on {{label}}",
  lettersMayRead: "Letters and notices may say it to the customer, by a value of its own.",
  whatWasDone: "What was done",
  weAskedTheHarbour: "as, we asked the harbour master",
  sayIt: "Say it",
  sayWhatWasDone: "Say what was done…",

  // time
  setTheTimeRight: "Set the time spent right…",
  timeAtIt: "{{time}} spent on it",
  nameAtIt: "{{name}}: {{time}} at work, {{open}} open",
  nameAtItSetRight: "{{name}}: {{time}}, set right; {{open}} open",
  setItRight: "Set it right",
  howLongItTook: "How long it took",
  whatWasMeasuredIsKept: "What was measured is kept beside it, and the record says who set it right and why.",
  whoseTime: "Whose time",
  mine: "mine",
  minutesAltogether: "Minutes altogether",
  wasOnThePhone: "as, was on the phone with them",

  // strip/difference.tsx
  notTheSameAsOtherWhich: "Not the same as <0>{{other}}</0>, which fits too.",
  whatDiffersFromOther: "What differs from “{{other}}”",
  looksLikeOtherHereTheyDiffer: "Looks like <0>{{other}}</0>; here they differ:",
  andCountMoreLines_one: "and {{count, number}} more line",
  andCountMoreLines_other: "and {{count, number}} more lines",

  // strip/strip.tsx
  countRepliesFound_one: "{{count, number}} reply found.",
  countRepliesFound_other: "{{count, number}} replies found, the nearest first.",
  shelf: "Shelf",
  countReplies_one: "{{count, number}} reply",
  countReplies_other: "{{count, number}} replies",
  shelfValue: "Shelf <0>{{value}}</0>",
  findOnTheShelf: "Find on the shelf",
  looking: "Looking…",
  yourShelvesHoldNoReplyYet: "Your shelves hold no reply yet. Write it yourself.",
  nothingOnTheShelfSeemsTo:
    "Nothing on the shelf seems to fit. Write it yourself, or look at what comes nearest.",
  countRepliesByUseWhatFits_one: "{{count, number}} reply, by use: what fits cannot be told just now.",
  countRepliesByUseWhatFits_other: "{{count, number}} replies, by use: what fits cannot be told just now.",
  countRepliesWhatFitsTheMessage_one: "{{count, number}} reply, what fits the message best first.",
  countRepliesWhatFitsTheMessage_other: "{{count, number}} replies, what fits the message best first.",
  lookTakeAdd: "<0/> look <1/> take <2/> add",
  replies: "Replies",
  nothingOnTheShelfIsLike: "Nothing on the shelf is like that.",
  writeOneAndKeepIt: "Write one and keep it",
  inYourAnswer: "in your answer",
  alsoAsksAlso: "also asks “{{also}}”",
  behindItsOriginal: "behind its original",

  // strip/use-strip.ts
  theShelfCouldNotBeSearched: "The shelf could not be searched: {{error}}",
  theRestOfTheShelfCould: "The rest of the shelf could not be read: {{error}}",

  // resources/message-html.ts
  tooMuchToBeShown:
    "This message’s formatting is too much to be shown. Read it as plain text, or fetch the raw message.",
});
