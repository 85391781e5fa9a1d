import { wordsOf } from "./words-of";

/** The words of what forms refuse, file by file. */
export const t = wordsOf("forms", {
  // forwarder.ts
  anAddressOrADomain: "An address, or a domain behind an @, as in @market.example.com",
  putOneOfItsMessagesHere: "Put one of its messages here",
  aNumberOfCharacters: "A number of characters, 20 to 100,000",

  // source.ts
  writeWhatItIsCalled: "Write what it is called",
  aWholeNumber: "Write a whole number",
  fromTo: "From {{least, number}} to {{most, number}}",
  anAddressWithAReference:
    "An address with the reference in it, as in https://bookings.example.com/api/{reference}",
  aHeader: "A header’s name, as in Authorization",
  aHeaderOfTheConnection: "This header is the connection’s own",
  aHeadersValue: "Letters, digits and signs on one line",
  writeItsPath: "Write where it stands, as in $.sailing.ship",

  // notice.ts
  chooseAReply: "Choose a reply",
  aWholeNumberOfMinutes: "Write a whole number of minutes",
  aMinuteOrMore: "A minute or more",
  aDayAtMost: "A day at most",

  // question.ts
  lettersDigitsAndLowLines: "Small letters, digits and low lines, as in how_was_it",
  writeTheQuestion: "Write the question",
  daysFrom1To365: "1 to 365 days",
  writeTwoAnswersOrMore: "Write two different answers or more, a line each",

  // begin.ts
  writeWhatItIsAbout: "Write what it is about",

  // forms/fields.ts
  atMostCharacters: "At most {{most, number}} characters",
  chooseOneOfTheList: "Choose one of the list",
  aDay: "A day, as in 2027-03-01",
  aDayFrom1900To2199: "A day from 1900 to 2199",

  // forms/house.ts
  writeTheNameThatLettersPrint: "Write the name that letters are to print",
  oneToSixLetters: "One to six letters, as SF in SF-20417",
  aLanguageByItsTag: "A language by its tag, as in de or pt-BR",
  chooseALanguageAtLeast: "Choose a language at least",
  atMostLanguages: "At most {{most, number}} languages",
  chooseACountryOfTheList: "Choose a country of the list",
  sayWhatItIsCalled: "Say what it is called",

  // forms/library.ts
  giveTheShelfAName: "Give the shelf a name",
  giveItALetterOrTwo: "Give it a letter or two",
  aLetterOrTwo: "A letter or two",
  atMostTeams: "At most {{most, number}} teams",
  sayForWhichTeams: "Say for which teams the shelf is",
  chooseAShelf: "Choose a shelf",
  giveItATitle: "Give it a title",
  aTagIsAWordOrTwo: "A tag is a word or two",
  atMostTags: "At most {{most, number}} tags",
  chooseAChannelAtLeast: "Choose a channel at least",
  atMostTopics: "At most {{most, number}} topics",
  theSeasonEndsBeforeItBegins: "The season ends before it begins",
  shelf: "shelf",
  note: "note",
  part: "part",
  tags: "tags",
  channels: "channels",
  whatItIsAbout: "what it is about",
  owner: "owner",
  reviewDate: "review date",
  season: "season",

  // forms/outside.ts
  giveThemAName: "Give them a name",

  // forms/papers.ts
  aColour: "A colour is written as in #0d5a45",
  notAStoredFile: "Not the id of a stored file",
  giveItAName: "Give it a name",
  aSignatureHasNoBlanks: "A signature has no blanks: nobody is asked for them",

  // forms/people.ts
  atLeastCharacters: "At least {{most}} characters; several words do well",
  writeYourPresentPassword: "Write your present password",
  chooseATimeZone: "Choose a time zone",
  chooseATimeZoneOfTheList: "Choose a time zone of the list",
  writeTheNameAsLettersPrintIt: "Write the name as letters are to print it",
  writeTheFirstName: "Write the first name",
  writeTheOption: "Write the option",
  lettersDigitsAndHyphens: "Small letters, digits and hyphens, 40 at most, as in contact or lost-property",
  writeWhatIsSaidAfterwards: "Write what is said once it was sent",
  writeATelephoneNumber: "Write a telephone number, as in +44 7700 900461",
  writeAnEmailAddress: "Write an email address, as in maren@example.com",
  sayWhatTheTeamIsCalled: "Say what the team is called",
  writeHoursAs: "Write hours as 09:00–12:00, 13:00–17:30; nothing for a closed day",
  openOnNoDay: "Write hours for one day at least: closed on every day, nothing is ever due",
  atMostDaysOfItsOwn: "At most {{most}} days",
  chooseACountry: "Choose a country of the list",
  daysFrom0To3650: "Days from 0 to 3650",
  writeAName: "Write a name",
  aNumberOfMinutes: "A number of minutes",
  atLeastMinutes: "At least {{least, number}} minutes",
  atMostDays: "At most {{most, number}} days",

  writeTheChoice: "Write the choice",
  atMostChoices: "At most {{most}} choices",
  eachChoiceOnce: "Each choice stands once",
  atLeastTwoChoices: "Write at least two to choose from",

  // tokens/fields.ts
  aNumber: "A number, as in 6.5",
  yesOrNo: "Yes or no",
  anAddress: "An address, as in https://example.org",
  oneOfTheChoices: "One of the choices",
  aValueOfThatKind: "That is no value of that kind",

  // language/tag.ts
  notALanguage: "Not a language, as in en, de or pt-BR",
});
