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

  yes: "yes",
  no: "no",
});
