import { wordsOf } from "./words-of";

/** The words of second-look, file by file. */
export const t = wordsOf("second-look", {
  // checks/languages.ts
  teamAsTheSender: "“{{team}}”, as the sender,",
  theSignature: "The signature",
  theHeader: "The header",
  theFooter: "The footer",
  whatYouWrote: "What you wrote",
  theOpening: "The opening “{{title}}”",
  theAnswer: "The answer “{{title}}”",
  theClosing: "The closing “{{title}}”",
  theHouseFact: "The house fact “{{words}}”",
  nameHasNoWantedTextIt: "{{name}} has no {{wanted}} text: it reads in {{language}}.",
  partIsInLanguageLeadIn: "{{part}} is in {{language}}, {{lead}} in {{language2}}.",

  // checks/forwarder.ts
  nameLetsNoLinkThrough: "{{name}} lets no links through: take “{{words}}” out.",
  nameLetsNoAddressThrough: "{{name}} lets no addresses through: take “{{words}}” out.",
  nameLetsNoNumberThrough: "{{name}} lets no telephone numbers through: take “{{words}}” out.",
  nameLetsOnlySoMuchThrough:
    "{{name}} lets {{most, number}} characters through; these are {{now, number}}. Make it shorter.",

  // checks/second-look.ts
  isAttachedUnmentioned_one: "{{names}} is attached, and the letter does not say so.",
  isAttachedUnmentioned_other: "{{names}} are attached, and the letter does not say so.",
  theGreetingSays: "The greeting says “{{name}}”.",
  theGreetingSaysAnother: "The greeting says “{{name}}”; this customer is {{who}}.",
  textIsNoToken:
    "“{{text}}” is no token; remove it, choose one from the list, or type \\{ for a brace that is meant.",
  aPictureHasNoWords: "A picture has no words for who does not see it: choose it, and write what it shows.",
  thereIsNobodyToSendIt: "There is nobody to send it to. Add an address.",
  toIsNotAnEmailAddress: "“{{to}}” is not an email address.",
  shortMessagesCarryNoFiles_one: "A short message carries no files: {{names}} stays here.",
  shortMessagesCarryNoFiles_other: "A short message carries no files: {{names}} stay here.",
  addressReadsTheBooking: "{{address}} is new on this case, and would read of the customer’s booking.",
  addressIsNewHere: "{{address}} is new on this case: they read what the customer reads.",
  toIsNoTelephoneNumber: "“{{to}}” is no telephone number.",
  toIsAMailboxOfOurs: "{{to}} is a mailbox of ours: the letter would come back to us.",
  toIsNotKnownToBe: "{{to}} is not known to be the customer’s.",
  newsChooseAnotherAddressOrConfirm: "{{news}} Choose another address, or confirm it.",
  theLetterSaysNothingYet: "The letter says nothing yet.",
  theAttachmentsComeToBytesMb: "The attachments come to {{bytes}} MB; 20 MB can be sent.",
  theLetterIsLongerThanMost: "The letter is longer than {{most}} characters; attach a file instead.",
  nameIsAnotherCustomerOfOurs: "{{name}} is another customer of ours.",
  theSignOffStandsTwice: "The sign-off stands twice.",
  wordsIsSaidTwice: "“{{words}}…” is said twice.",
  itSaysTextAndNothingIs: "It says “{{text}}”, and nothing is attached.",
  theThreadIsCalledThreadsubject: "The thread is called “{{threadSubject}}”.",
  slipWasAlreadySentOnThis: "“{{slip}}” was already sent on this case.",
  textLooksUnfinished: "“{{text}}” looks unfinished.",
  theLinkSaysShownAndLeads: "The link says {{shown}} and leads to {{href}}.",
  fieldIsNotFilledIn: "“{{label}}” is not filled in.",
});
