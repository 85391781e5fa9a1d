import { wordsOf } from "#core/words/words-of";

/** The words of account, file by file. */
export const t = wordsOf("account", {
  // account.tsx
  programOnSystem: "{{program}} on {{system}}",
  thisOne: "(this one)",
  yourAccountPlainShelf: "Your account · Plain Shelf",
  emailRoleInTeam: "{{email}}, {{role}} in {{team}}",
  name: "Name",
  firstName: "First name",
  title: "Title",
  department: "Department",
  telephone: "Telephone",
  details: "Details",
  lettersPrintTheseAndYourSignature: "Letters print these, and your <0>signature</0> is made of them.",
  save: "Save",
  yourPasswordIsChanged: "Your password is changed.",
  password: "Password",
  changingItSignsYouOutEverywhere: "Changing it signs you out everywhere else.",
  presentPassword: "Present password",
  newPassword: "New password",
  changePassword: "Change password",
  whereYouAreSignedIn: "Where you are signed in",
  endWhatYouDoNotKnow: "End what you do not know, and change your password then.",
  fromAnUnknownAddress: "from an unknown address",
  addressSinceLastUsed: "{{address}}, since <0/>, last used <1/>",
  endIt: "End it",
  endAllOthers: "End all others",
  aBrowserThatDoesNotSay: "A browser that does not say its name",

  // door.tsx
  titlePlainShelf: "{{title}} · Plain Shelf",
  plainShelf: "Plain Shelf",

  // first-password.tsx
  chooseAPassword: "Choose a password",
  thePasswordYouSignedInWith:
    "The password you signed in with was printed where others may read it. Choose one of your own.",
  passwordYouSignedInWith: "Password you signed in with",
  yourOwnPassword: "Your own password",
  atLeast10CharactersSeveralWords: "At least 10 characters; several words do well.",
  saveItAndGoOn: "Save it and go on",

  // keys.tsx
  keysPlainShelf: "Keys · Plain Shelf",
  toTheList: "To the list",
  keys: "Keys",

  // sign-in.tsx
  writeYourEmailAddressAsIn: "Write your email address, as in maren@example.com",
  writeYourPassword: "Write your password",
  thatIsTooLongForA: "That is too long for a password",
  thatEmailAddressAndPasswordDo: "That email address and password do not match. Check both and try again.",
  tooManyAttemptsWaitSecondsMin: "Too many attempts. Wait {{seconds}} min, then try again.",
  signIn: "Sign in",
  rightAnswersKeptWhereEveryoneFinds: "Right answers, kept where everyone finds them.",
  email: "Email",

  // welcome.tsx
  welcomeNameChooseAPasswordAnd: "Welcome, {{name}}. Choose a password, and you are in.",
  chooseAnotherPasswordNameYouAre: "Choose another password, {{name}}. You are signed out everywhere else.",
  youSignInAsEmail: "You sign in as <0>{{email}}</0>.",
  aLinkThatIsNotGood: "A link that is not good",
  thisLinkIsNotGoodAny: "This link is not good any more.",
  itWasUsedReplacedOrIs: "It was used, replaced, or is too old. Ask a lead for another.",
});
