import { wordsOf } from "./words-of";

/** What is one of few, and is kept by a key of its own. */
export const t = wordsOf("names", {
  // Channels
  email: "email",
  chat: "chat",
  sms: "SMS",

  // Parts of a letter
  opening: "opening",
  answer: "answer",
  closing: "closing",

  // Roles
  agent: "agent",
  curator: "curator",
  lead: "lead",

  // States of a reply
  draft: "draft",
  readyToCheck: "ready to check",
  shelved: "shelved",
  retired: "retired",

  // States of a case
  newCase: "new",
  openCase: "open",
  waitingOnTheCustomer: "waiting on the customer",
  waitingOnAColleague: "waiting on a colleague",
  settled: "settled",
  setAside: "set aside",
  nothingToAnswer: "nothing to answer",
  junkOrFraud: "junk or fraud",

  // Standings of a customer
  underContract: "under contract",
  organisation: "of an organisation",
  private: "private",

  yes: "yes",
  no: "no",
});
