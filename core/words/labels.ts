import { wordsOf } from "./words-of";

/** What tokens are called, and blanks for what looks like a value. */
export const t = wordsOf("labels", {
  // tokens/catalogue.ts
  caseNumber: "case number",
  subjectOfTheCase: "subject of the case",
  topic: "topic",
  channel: "channel",
  languageOfTheCase: "language of the case",
  firstMessageReceived: "first message received",
  answerDueBy: "answer due by",
  firstName: "first name",
  lastName: "last name",
  fullName: "full name",
  emailAddress: "email address",
  phoneNumber: "phone number",
  languageOfTheCustomer: "language of the customer",
  withUsSince: "with us since",
  organisation: "organisation",
  kindOfOrganisation: "kind of organisation",
  accountNumber: "account number",
  contractRunsUntil: "contract runs until",
  agentsName: "agent’s name",
  agentsFirstName: "agent’s first name",
  agentsTitle: "agent’s title",
  agentsTeam: "agent’s team",
  agentsDepartment: "agent’s department",
  agentsEmailAddress: "agent’s email address",
  agentsPhoneNumber: "agent’s phone number",
  ourName: "our name",

  // tokens/value-like.ts
  day: "day",
  amount: "amount",
  telephoneNumber: "telephone number",
  time: "time",
  reference: "reference",
  personsName: "name",
  number: "number",
});
