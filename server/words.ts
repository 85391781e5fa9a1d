import { wordsOf } from "#core/words/words-of";

/** The words of server, file by file. */
export const t = wordsOf("server", {
  // access/replies.ts
  thereIsNoReplyKeyOn: "There is no reply “{{key}}” on a shelf of yours",
  onlyCuratorsChangeRepliesOnShared:
    "Only curators change replies on shared shelves; you may propose a change",
  thereIsNoShelfKeyFor: "There is no shelf “{{key}}” for you",
  thatIsSomebodysOwnShelf: "That is somebody’s own shelf",

  // house/answer-times.ts
  otherHoursHaveThisName: "Other hours have this name: write another one",
  thereAreNoSuchHours: "There are no such hours any more",
  somethingCountsByTheseHours:
    "Answers are counted by these hours: let them be counted by others first, then remove these",
  aMailboxIsGone: "A mailbox of these is gone: choose them again",
  thereIsNoSuchAnswerTime: "There is no such answer time any more",

  // record
  thereIsNoSuchCustomer: "There is no such customer",
  thereIsNoSuchOrganisation: "There is no such organisation",

  // promises
  sayWhatIsPromised: "Say what is promised",
  sayItInFewerWords: "Say it in fewer words: at most 300 characters",
  thatDayHasPassed: "That day has passed: choose a later one",
  thereIsNoSuchPromise: "There is no such promise",
  thatPromiseIsSettled: "Somebody has said already what came of that promise. Load the page again.",
  promised: "promised “{{words}}” by {{by}}",
  keptPromise: "kept the promise “{{words}}”",
  withdrewPromise: "took the promise “{{words}}” back",

  // notes
  writeTheNote: "Write the note",
  aNoteIsShorter: "A note is at most 5,000 characters long",

  // cases/states.ts
  gaveCaseToTeam: "gave {{label}} to {{team}}",
  theCaseIsAboutThatAlready: "The case is about that already",
  tookTopicAway: "took the topic of {{label}} away",
  setTopicTo: "set the topic of {{label}} to “{{topic}}”",
  sayAsWhatItIsSetAside: "Say as what it is set aside: nothing to answer, or junk or fraud",
  sayWhyItIsSetAside: "Say why, in a word or two: colleagues will read it",
  theCaseIsThatAlready: "The case is {{state}} already",
  theCaseIsAssignedSoAlready: "The case is theirs already",
  setAsideBecauseOfItsSender: "set aside by itself: its sender is known for junk",
  setAsideAs: "{{state}} as {{kind}}",
  tookCaseUp: "took {{label}} up",
  leftCaseWaitingOnCustomer: "left {{label}} waiting on the customer",
  leftCaseWaitingOnColleague: "left {{label}} waiting on a colleague",
  settledCase: "settled {{label}}",
  setCaseAside: "set {{label}} aside: {{kind}}",
  didItBecause: "{{words}} ({{reason}})",
  gaveCaseToNobody: "gave {{label}} to nobody",
  gaveCaseTo: "gave {{label}} to {{name}}",

  // cases/changes.ts
  aCaseIsNotJoinedToItself: "That is this case: name another one",
  thisMessageIsNotOnThisCase: "This message is not on this case any more. Load the case again.",
  thisIsTheFirstMessageThe: "This is the first message: all of the case would go. Choose a later one.",
  theMessageIsOnThisCaseAlready: "The message is on this case already: name another one",
  thisIsTheOnlyMessageJoin: "This is the only message of its case: join the case instead",
  theCaseIsTheirsAlready: "The case is {{name}}’s already",
  joinedOtherToLabel: "joined {{other}} to {{label}}",
  madeACaseOfItsOwn_one: "made {{label}} of one message of {{other}}",
  madeACaseOfItsOwn_other: "made {{label}} of {{count, number}} messages of {{other}}",
  movedAMessageFromTo: "moved a message from {{other}} to {{label}}",
  movedTheCaseFromTo: "moved the case from {{from}} to {{name}}",
  thereIsNoSuchChange: "There is no such change",
  theCaseWasMovedAgainSince: "The case was moved again since: undo that first",
  someOfTheMessagesWentOn: "Some of the messages went on to another case since: undo that first",
  caseWasJoinedToAnother: "Case {{number}} was joined to another: look there",
  aLetterIsLeavingWaitUntil: "A letter is leaving from this case: wait until it has left, or call it back",
  thisChatStillGoesOnEnd: "This chat still goes on: end it first",

  // forwarders
  thereIsNoSuchForwarder: "There is no such forwarder any more",
  itNoLongerFitsTheForm:
    "It does not fit the form of {{name}}: {{problem}}. Read it as it came, and tell a lead.",
  someOfItsMessagesDoNotFit_one:
    "One of its past messages does not fit. Look at it, mark another example, or switch it on all the same.",
  someOfItsMessagesDoNotFit_other:
    "{{count, number}} of its past messages do not fit. Look at them, mark another example, or switch it on all the same.",
  buyer: "Buyer",
  noMailOfThisSenderIsHere: "No mail of this sender is here yet: put one of its messages there yourself",

  // questions
  thereIsNoSuchQuestionAny: "There is no such question any more",
  thisWasAnsweredAlready: "This was answered already. Thank you.",
  itIsTooLateToAnswerThis: "It is too late to answer this. Write to us instead.",
  chooseOneOfTheAnswers: "Choose one of the answers",
  anotherQuestionHasThisKey: "Another question has this name: choose another one",
  thisQuestionWasAskedBefore:
    "This question was asked already: its name and its kind stay. Make another question instead.",

  // answering/forward.ts
  thisIsAMailboxOfOurs: "This is a mailbox of ours: hand the case over, or move the message, instead",
  nobodyOnThisCaseKnows:
    "{{address}} is new on this case, and would read what {{customer}} wrote. Send it all the same?",
  onlyMailIsForwarded: "There is nothing in this message to forward",
  aForwardedMessage: "Forwarded message",
  forwardedFrom: "From: {{from}}",
  forwardedTo: "To: {{to}}",
  forwardedDate: "Date: {{date}}",
  forwardedSubject: "Subject: {{subject}}",
  forwardedFiles: "Files: {{files}}",

  // answering/context.ts
  thereIsNoSuchPersonAny: "There is no such person any more",

  // answering/draft.ts
  thereIsNoCaseNumber: "There is no case {{number}}",
  theDraftUsesAReplyThat: "The draft uses a reply that is not on a shelf of yours",
  thisDraftWasChangedInAnother: "This draft was changed in another window",
  thisDraftWasSentOrDropped: "This draft was sent or discarded in another window",

  // answering/files.ts
  aFileOfThisAnswerIs: "A file of this answer is not here any more: remove it and attach it again",

  // answering/keep.ts
  thereAreNoWordsOfAn: "There are no words of an answer to keep yet",
  youHaveNoAnswerUnderWay: "You have no answer under way on this case",
  thereIsNoSuchAnswer: "There is no such answer",
  theAnswerWasChangedMeanwhileLook: "The answer was changed meanwhile; look at it again before keeping it",

  // answering/recipients.ts
  nobodyWroteFromAddressOnThis: "Nobody wrote from {{address}} on this case",
  addressIsAMailboxOfOurs: "{{address}} is a mailbox of ours",
  addressIsAnotherCustomersAlready: "{{address}} is another customer’s already",

  // answering/send.ts
  thereIsNoDraftAnyMore: "There is no draft any more: it was sent or discarded in another window",
  whatTheLetterSaysOfThis:
    "What the letter says of this case changed meanwhile. Look at it again, then send.",
  theCustomerWroteAgainMeanwhileRead: "The customer wrote again meanwhile. Read it, then send.",
  aColleague: "A colleague",
  personAnsweredThisCaseMeanwhileRead:
    "{{person}} answered this case meanwhile. Read the answer, then decide.",
  thereIsNoSuchLetterOf: "There is no such letter of yours",
  youHaveBegunAnotherAnswerOn: "You have begun another answer on this case; finish or discard it first",
  itIsTooLateTheLetter: "It is too late: the letter is on its way",

  // answering/sender.ts
  teamHasNoNumberFor:
    "{{team}} has no number that short messages come from; a lead gives it one in Setup, under Short messages",

  // staff/mailboxes.ts
  thereIsNoSuchMailbox: "There is no such mailbox any more",
  itIsTheTeamsOwnAddress: "It is the own address of {{team}}: change that on the page of teams",

  // staff/numbers.ts
  thatIsANumberOfTeam: "That is a number of {{team}} already",
  thatNumberIsGone: "There is no such number any more",

  // receiving/accept.ts
  theOtherServerSaysNoMore: "The other server says no more than that it was not delivered",

  // contact/
  thereIsNoSuchForm: "There is no such form",
  anotherFormHasThatAddress: "Another form has that address",
  giveFieldSomethingToChoose: "Give “{{field}}” something to choose from",
  twoFieldsAreCalledTheSame: "Two fields are called the same",
  siteIsNoSite: "“{{site}}” is no site, as in https://www.example.com",
  writeYourAddressAsIn: "Write your email address, as in ana@example.org",
  writeWhatItIsAbout: "Write what it is about",
  thatIsTooLongAtMost: "That is too long: {{most}} characters at most",
  chooseOneOfTheList: "Choose one of the list",
  fillThisIn: "Fill this in",
  writeANumber: "Write a number",
  bookingReferenceIs: "Booking reference: {{reference}}",
  atMostMostFiles: "At most {{most}} files",
  filesOf20MbAtMost: "The files come to more than 20 MB",
  leaveTheHiddenFieldEmpty: "A field that nobody sees was filled in. Send it again as it is here.",
  takeLinksOutMost: "That has more than {{most}} links in it. Take some out, then send it again.",
  theFormLayOpenTooLong: "The form lay open too long. Look at it once more, then send it again.",
  thatWasFastLookAgain: "That was fast. Look at it once more, then send it again.",
  itCameByTheFormTitle:
    "It came by the form “{{title}}”: nobody has looked whether the address is theirs who wrote it.",

  // chats/
  guest: "Guest",
  thereIsNoSuchChat: "There is no such chat",
  theChatHasEndedBeginAnother: "The chat has ended. Begin another one.",
  thisChatHasEnded: "This chat has ended",
  thisChatIsPersons: "This chat is {{person}}’s now",
  nobodyYet: "nobody",
  from0ToMostChats: "From 0 to {{most}} chats",
  somethingStopsIt: "Something stops it: look at it first",
  youHaveAnAnswerUnderWayOnItsCase: "You have an answer under way on its case; send or discard that first",
  thatColleagueTakesNoChatsJustNow: "That colleague takes no chats just now",
  thatWasTooOftenWait: "That was too often. Wait a moment, then try again.",
  thatCannotBeRead: "That cannot be read",
  sayHelloFirst: "Say hello first",
  youInTheTalk: "You",
  thisIsOurTalkOfDay: "This is what we said to each other on {{day}} ({{house}}, {{label}}):",
  youMayAnswerThisMail: "If something is still open, answer this mail.",
  ourTalkOfDay: "Our chat on {{day}}",

  // sms/receive.ts
  numberIsNoneOfOurs: "{{number}} is no number of ours",
  theGatewayCouldNotDeliverIt: "The gateway could not deliver it",

  // cases/conversation.ts
  thisMessageHasNoFormattedText: "This message has no formatted text",
  theRawMessageIsNotKept: "The raw message is not kept",
  thereIsNoSuchFile: "There is no such file",

  // house/facts.ts
  thereIsNoHouseFactKey: "There is no house fact “{{key}}”",
  thisValueCannotBeKept: "This value cannot be kept",
  thisFactIsChangedByA: "This fact is changed by a {{changedBy}}",
  thatDayHasBegunLeaveThe: "That day has begun; leave the date empty for now",
  thereIsNoSuchValue: "There is no such value",
  itHoldsAlreadyGiveTheFact: "It holds already; give the fact another value instead",

  // fields
  aChoiceHasTwoAtLeast: "Write at least two to choose from",
  thereIsNothingOfThatNumber: "There is nothing of that number any more",
  onlyLeadsFillInForColleagues: "Only leads fill in what is known of colleagues",
  tookFieldAway: "took “{{label}}” away",
  setFieldTo: "set “{{label}}” to “{{value}}”",
  repliesReadField_one: "A reply reads “{{field}}”; change that first",
  repliesReadField_other: "{{count, number}} replies read “{{field}}”; change those first",
  thereIsNoSuchField: "There is no such field",

  // house/house.ts
  customersHaveLettersWithTheOld: "Customers have letters with the old ones; they stay",

  // house/signatures.ts
  thereIsNoSuchTeam: "There is no such team",
  writeItInFirstFirst: "Write it in {{first}} first",

  // house/stationery.ts
  theLogoIsNoPictureOf: "The logo is no picture of yours; choose it again",

  // house/usual.ts
  thatReplyIsNotOneThat: "That reply is not one that this team can use there",

  // outside/mailboxes.ts
  theSimulatedOutsideIsSwitchedOff: "The simulated outside is switched off here: mail goes to a real server",
  theSimulatedOutsideCannotBeReached: "The simulated outside cannot be reached: {{error}}",
  thatMailboxIsAColleaguesOwn: "That mailbox is a colleague’s own",

  // people/account.ts
  thatIsNotYourPresentPassword: "That is not your present password",
  chooseAnotherPasswordThanThePresent: "Choose another password than the present one",

  // people/password.ts
  aPasswordThatHoldsYourOwn: "A password that holds your own name is guessed first; choose another",
  thatPasswordIsGuessedFirstChoose: "That password is guessed first; choose another",

  // people/sessions.ts
  thatSessionHasEndedAlready: "That session has ended already",

  // people/viewer.ts
  thisIsForAWantedYou: "This is for a {{wanted}}; you are signed in as {{role}}",

  // replies/content.ts
  theFileIdBelongsToNeither:
    "The file {{id}} belongs to neither this reply nor you; attach or insert it again",

  // replies/filing.ts
  onlyCuratorsFileRepliesOnShared: "Only curators file replies on shared shelves",
  youMayNotPutPublishedReplies: "You may not put published replies on that shelf",
  thereIsNoSuchColleague: "There is no such colleague",
  theSeasonEndsBeforeItBegins: "The season ends before it begins",
  atMostMostAtOnceReplies: "At most {{MOST_AT_ONCE}} replies are changed at once",
  thereIsNoSuchChangeOf: "There is no such change of yours",
  thatWasUndoneAlready: "That was undone already",
  youMayNotPutRepliesOn: "You may not put replies on that shelf",
  movedToShelf: "Moved to {{shelf}}",
  taggedTag: "Tagged {{tag}}",
  removedTheTagTag: "Removed the tag {{tag}}",
  retired: "Retired",
  restored: "Restored",
  onlyCuratorsGiveRepliesToColleagues: "Only curators give replies to colleagues",
  givenToOwner: "Given to {{owner}}",
  withoutAnOwner: "Without an owner",
  withoutAReviewDate: "Without a review date",
  toBeReviewedByBy: "To be reviewed by {{by}}",

  // replies/pins.ts
  whatIsWithinReachWasChanged: "What is within reach was changed meanwhile; load it again",

  // replies/publishing.ts
  onYourOwnShelfYouPublish: "On your own shelf you publish; there is nobody to propose to",
  meanwhileAnotherVersionWasPublishedCompare:
    "Meanwhile another version was published; compare again before this one replaces it",
  sayWhatIsToBeChanged: "Say what is to be changed",
  youHaveNoWorkingCopyOf: "You have no working copy of this reply",
  somebodyHasDecidedOnThisProposal: "Somebody has decided on this proposal meanwhile",
  yourWorkingCopyWasChangedPublished:
    "Your working copy was changed, published or discarded in another window",
  somebodyPublishedAnotherVersionMeanwhileLook:
    "Somebody published another version meanwhile: look at both, then publish yours",
  notYetItHasNoTitle: "Not yet: it has no title",

  // replies/shelves.ts
  repliesStandOnIt_one: "{{count, number}} reply stands on “{{shelf}}”, retired ones included; move it first",
  repliesStandOnIt_other:
    "{{count, number}} replies stand on “{{shelf}}”, retired ones included; move them first",
  sayForWhichTeamsTheShelf: "Say for which teams the shelf is",
  oneOfTheseTeamsDoesNot: "One of these teams does not exist any more",
  aShelfOfSomebodysOwnStays: "A shelf of somebody’s own stays so",
  theShelvesWereChangedMeanwhileLoad: "The shelves were changed meanwhile; load them again",
  aShelfOfSomebodysOwnStays2: "A shelf of somebody’s own stays",

  // replies/uploads.ts
  nameIsEmpty: "{{name}} is empty",
  nameIsLargerThan20Mb: "{{name}} is larger than 20 MB",
  nameIsNoPictureThatMail: "{{name}} is no picture that mail programs show; use PNG, JPEG, GIF or WebP",

  // replies/writing.ts
  notYet: "Not yet: {{message}}",
  notYetAndMore_one: "Not yet: {{message}}, and {{count, number}} more",
  notYetAndMore_other: "Not yet: {{message}}, and {{count, number}} more",
  yourWorkingCopyWasChangedIn: "Your working copy was changed in another window",
  yourWorkingCopyWasPublishedProposed:
    "Your working copy was published, proposed or discarded in another window",
  theVersionThatItWasBegun: "The version that it was begun from is not one of this reply",
  meanwhileAnotherVersionWasPublishedLook: "Meanwhile another version was published; look again",
  thatReplyHasNoWordsThat: "That reply has no words that you may read yet",
  lineLineMessage: "Line {{line}}: {{message}}",
  youHaveAWorkingCopyOf: "You have a working copy of this reply; it would be replaced",
  thereIsNoSuchVersion: "There is no such version",

  // sending/outgoing.ts
  theMailServerDidNotTake: "The mail server did not accept it: {{response}}",

  // sending/schedule.ts
  thereIsNoSuchMessage: "There is no such message",
  thisMessageIsNotRefusedAny: "This message is not refused any more",

  // staff/colleagues.ts
  thatTeamDoesNotExistAny: "That team does not exist any more",
  knownSignsInWithThatAddress: "{{known}} signs in with that address already",
  knownSignedInWithThatAddress:
    "{{known}} signed in with that address before they left; invite them back from their page",
  yourOwnPasswordIsChangedOn: "Your own password is changed on your own page",
  youCannotSendYourselfAwayAnother: "You cannot send yourself away; another lead can",
  chooseSomebodyElse: "Choose somebody else",
  personHasLeftAlready: "{{person}} has left already",
  chooseSomebodyWhoIsHere: "Choose somebody who is here",

  // staff/teams.ts
  anotherTeamIsCalledThat: "Another team is called that",
  thatIsTheAddressOfOwner: "That is the address of {{owner}}",
  colleaguesAreOfTeamThoseWho:
    "Colleagues are of {{team}}, those who left included; give them another team first",
  teamHasCasesAndTheirRecord: "{{team}} has cases, and their record stays; rename it instead",
  shelvesAreForTeamSayFirst: "Shelves are for {{team}}; say first for whom they are",

  // web/body.ts
  theRequestIsNoJson: "The request is no JSON",
  theRequestIsNoForm: "The request is no form",
  theRequestHasMoreThanMost: "The request has more than {{MOST_VALUES}} parts",
  whereNestedDeeperThanDeepestLevels: "{{where}}…: nested deeper than {{DEEPEST}} levels",
  whereHoldsWhatTakeItOut: "{{where}} holds {{what}}; remove it and try again",

  // writing/open.ts
  nothingOfThisReplyIsFor: "Nothing of this reply is for you to read yet",

  // cases/time-spent.ts
  noLongerThanItWasOpen: "No longer than it was open",
  aWholeNumberOfMinutes: "Write a whole number of minutes",
  atLeastZero: "Zero minutes or more",
  atMostHundredHours: "At most 100 hours",
  sayWhyItIsSetRight: "Say why",
  itIsThatLongAlready: "It is that long already",
  setTimeRight: "set {{name}}’s time right from {{from}} to {{to}}: {{reason}}",
  nothingYet: "nothing",

  // notices
  heldNotice: "the notice “{{title}}” did not go by itself: {{why}}",
  queuedNotice: "set off the notice “{{title}}”",
  declinedNotice: "let the notice “{{title}}” be",
  calledNoticeBack: "called the notice “{{title}}” back",
  itIsNotForThisChannel: "Its reply is not for this channel",
  nobodyToSendItTo: "There is nobody to send it to",
  thereIsNoSuchNotice: "There is no such notice",
  somebodySawToThatNotice: "Somebody saw to that notice already",
  itsReplyIsOnNoShelf: "its reply is on no shelf any more",
  chooseAReplyOnTheShelf: "Choose an answer that is on the shelf",
  saidWhatWasDone: "said what was done: “{{words}}”",
  tookWhatWasDoneAway: "took away what was said to be done",

  // standing
  whoSwitchedItOnIsGone: "who switched it on is not with us any more",
  ruleAnswers: "answers it by the rule “{{name}}”: {{title}}",
  rulePrepares: "prepared an answer by the rule “{{name}}”: {{title}}",
  anEarlierRuleEndedTheAsking: "“{{name}}” ended the asking",
  itWouldToday: "by what is known today it is for it: when it came it was not, or no rule was asked",
  rankingKnowsNothingYet: "Ranking knows nothing yet",
  thatTimeIsOver: "That time is over: choose a later one.",
  byARule: "a standing answer did so",
  theCaseHasThoseTagsAlready: "The case has those tags already.",
  aCaseHasFewerTags: "A case has 20 tags at most.",
  tookTagsAway: "took the tags of {{label}} away",
  setTagsTo: "tagged {{label}}: {{tags}}",
  ruleDidNotSend: "did not answer it by the rule “{{name}}” with “{{title}}”: {{why}}",
  cameOverItsLimit_one: "it came over its limit {{count}} time within a day",
  cameOverItsLimit_other: "it came over its limit {{count}} times within a day",
  thereIsNoSuchRule: "There is no such rule",
  rehearseItFirst: "Rehearse it first: it was never tried as it is now",
  replyAsksForBlanks:
    "“{{title}}” asks for what only a person knows ({{names}}): it can prepare drafts, and not send",
  ruleWithoutReply: "Its reply is on no shelf: choose another",
  rehearsalIsUnderWay: "This rule is being rehearsed already",

  // details
  secretCannotBeOpened:
    "{{name}} is not asked: the header {{header}} was kept under another secret of the program’s; a lead has to enter it again",
  sourceMayNotBeAsked: "{{name}} is not asked: {{why}}",
  sourceTakesTooLong: "{{name}} takes too long",
  sourceCannotBeReached: "{{name}} cannot be reached",
  sourceKnowsNone: "{{name}} knows no {{reference}}",
  sourceLeadsElsewhere: "{{name}} leads elsewhere ({{status}}); set the address that it leads to",
  sourceAnswersStatus: "{{name}} answers {{status}}",
  sourceAnswersNoJson: "{{name}}’s answer cannot be read: it is no JSON",
  sourceCannotBeRead: "{{name}}’s answer cannot be read: {{problem}}",
  answerIsTooLong: "its answer is longer than a megabyte",

  thereIsNoSuchSource: "There is no such detail source",
  pathOfField: "{{label}}: {{problem}}",
  whatTheHeaderSays: "Write what the header {{name}} says",
  noReferenceIsFound: "No reference of its kind is found in the messages of this case",

  // edge.ts
  isNoWholeNumber: "is no whole number",
  isNoSuchNumber: "is no such number",
  thereIsNoSuchNumber: "There is no such number",
  aDate: "Write a date, as in 2027-03-01",
  aDateFrom1900To2199: "A date from 1900 to 2199",
});
