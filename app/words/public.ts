import { wordsOf } from "#core/words/words-of";

/** The words of the pages that customers see, file by file. */
export const t = wordsOf("public", {
  // chat.tsx
  chatWithHouse: "Chat with {{house}}",
  whatIsItAbout: "What is it about?",
  yourName: "Your name",
  yourEmail: "Your email address",
  weSendYouTheTalk: "We send you the whole talk there. It is not needed.",
  begin: "Begin",
  nobodyIsThereJustNow: "Nobody of us is in the chat just now.",
  writeToUsInstead: "Write to us instead",
  placeAtTheDoor_one: "You are next. Somebody will be with you soon.",
  placeAtTheDoor_other: "{{count, number}} wait, you among them. Somebody will be with you soon.",
  isWithYou: "{{name}} is with you.",
  theTalk: "What was said",
  you: "You",
  isWriting: "{{name}} is writing …",
  somebody: "Somebody",
  read: "read",
  sent: "sent",
  notSentYet: "not sent yet",
  weAreConnectingAgain: "The connection is gone. We connect again; nothing that you write is lost.",
  writeHere: "Write here",
  say: "Send",
  endTheChat: "End the chat",
  theChatHasEnded: "The chat has ended.",
  theTalkWentTo: "The whole talk went to {{address}}.",
  beginAnother: "Begin another chat",
  thatDidNotGoThrough: "That did not go through: {{problem}}",
  nobodyAnswers: "we cannot be reached just now",
  // answers.tsx, question.tsx
  oneIsWorstFiveIsBest: "1 is the worst, 5 the best.",
  aRemark: "A remark, if you like",
  answer: "Send the answer",
  thankYouWeHaveYourAnswer: "Thank you. We have your answer.",
  itIsTooLateToAnswer: "It is too late to answer this. You can still write to us.",
  // contact.tsx
  yourNumberIs: "Your number: {{number}}",
  yourAddress: "Your email address",
  bookingReference: "Booking reference",
  topic: "What it is about",
  message: "Message",
  files: "Files",
  leaveThisEmpty: "Leave this empty",
  send: "Send",

  // contact-field.tsx
  labelNotNeeded: "{{label}} (not needed)",
  yes: "yes",
  no: "no",
  choose: "Choose",

  chatNeedsScript: "The chat needs JavaScript, which your browser does not run here.",
});
