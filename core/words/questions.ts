import { wordsOf } from "./words-of";

/** The words of questions. */
export const t = wordsOf("questions", {
  yes: "yes",
  no: "no",
  answerOfScale: "{{answer, number}} of {{most, number}}",
});
