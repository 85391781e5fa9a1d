import { wordsOf } from "./words-of";

/** The words of short messages. */
export const t = wordsOf("sms", {
  // number.ts
  thatIsNoNumberThatExists: "There is no such telephone number: look at its digits again",
  thatNumberIsOfAFixed: "That is the number of a fixed line, which takes no short messages",
  writeTheCountrysCodeFirst: "Write the country’s code first, as in +44 7400 123456",
  thatIsNoTelephoneNumber: "That is no telephone number",
});
