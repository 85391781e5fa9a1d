import { wordsOf } from "#core/words/words-of";

/** The words of outside, file by file. */
export const t = wordsOf("outside", {
  // faults.tsx
  allIsWellOutThere: "All is well out there",
  somethingIsWrongOutThere: "Something is wrong out there",
  mailServer: "Mail server",
  bookings: "Bookings",
  afterMs: "after, ms",
  shortMessages: "Short messages",
  arriveSoon: "arrive",
  arriveLate: "arrive late",
  failLater: "are taken, and fail",
  areRefused: "are refused",
  gatewayIsDown: "gateway is down",
  switch: "Switch",
  takesMail: "takes mail",
  isBusy451: "is busy (451)",
  refuses550: "refuses (550)",
  answer: "answer",
  areBroken500: "are broken (500)",
  answerNonsense: "answer nonsense",
  isSlow: "is slow",
  isDown421: "is down (421)",
  takesAndReturns: "takes it, returns it later",
  chatWindow: "Chat window",
  keepsItsConnection: "keeps its connection",
  losesItsConnection: "loses it again and again",

  // window.tsx
  chat: "Chat",
  form: "Form",
  ofTheHouse: "The house, on a phone",

  // invent.tsx
  inventACustomer: "Invent a customer",
  name: "Name",
  address: "Address",
  writeAsThem: "Write as them",

  // mailbox.tsx
  chooseWhomToWriteTo: "Choose whom to write to",
  thatIsTooLongForA: "That is too long for a subject",
  writeSomething: "Write something",
  thatIsTooLong: "That is too long",
  nothingHasArrivedHereYet: "Nothing has arrived here yet.",
  messages: "Messages",

  // message.tsx
  inTheText: "in the text",
  from: "From",
  to: "To",
  arrived: "Arrived",
  howToReadIt: "How to read it",
  theMessageAsAMailReader: "The message as a mail reader shows it",
  attachments: "Attachments",

  // phone.tsx
  phone: "Phone",
  noNumberIsKnown: "No number of theirs is known yet.",
  onThePhone: "On the phone",
  nothingIsOnThisPhoneYet: "Nothing is on this phone yet.",
  weHaveNoNumberYetA: "We have no number yet: a lead adds one in Setup, under Short messages.",
  fromTheNumber: "From the number",
  shortMessage: "Short message",
  sendIt: "Send it",

  // nobody.tsx
  whoseMailboxChooseOneAtThe: "Whose mailbox? Choose one at the left.",

  // route.tsx
  noLessThan0: "No less than 0",
  atMost60000: "At most 60000",
  notUsable: "Not usable",
  outsidePlainShelf: "Outside · Plain Shelf",
  outside: "Outside",
  standInACustomersShoesRead: "Stand in a customer’s shoes: read what arrived, and write to us.",
  findAMailbox: "Find a mailbox or phone",
  thereIsNoCustomerYetInvent: "There is no customer yet. Invent one below.",
  noMailboxIsLikeThat: "No mailbox is like that.",
  theFirstMostAreListedFind: "The first {{most}} are listed. Find others by name.",

  // write-to-us.tsx
  answerUs: "Answer us",
  writeToUs: "Write to us",
  sentItIsACaseNow: "Sent. It is a case now, or a new message on one.",
  itWasNotTakenProblem: "It was not accepted: {{problem}}",
  subject: "Subject",
  message: "Message",
  sendTheAnswer: "Send the answer",
  send: "Send",
});
