import { wordsOf } from "./words-of";

/** The words of reading and addressing mail, file by file. */
export const t = wordsOf("mail", {
  // mail/copies.ts
  writeAnAddressAsIn: "Write an email address, as in maren@example.com",
  atMostAddresses: "At most {{most}} addresses",

  // mail/forwarded.ts
  nothingIsMarkedAs: "Nothing is marked as {{what}}",
  theMarksOverlap: "What is marked as {{what}} overlaps with what is marked as {{other}}",
  nothingStandsBefore:
    "Nothing stands before what is marked as {{what}} by which it could be found: begin the mark later",
  theLineIsMissing: "“{{words}}”, which stands before {{what}}, is not in it",
  whatIsEmpty: "Where {{what}} should stand there is nothing",
  deadlineCannotBeRead: "The deadline “{{words}}” is no date that can be read",
  theBuyersName: "the buyer’s name",
  theOrderReference: "the order reference",
  theText: "the text",
  theDeadline: "the deadline",
});
