import { wordsOf } from "./words-of";

/** The words of why a reply is offered, file by file. */
export const t = wordsOf("ranking", {
  // ranking/fit-words.ts
  close: "close fit",
  likely: "likely",
  maybe: "maybe",

  // ranking/ranker.ts
  isNotForChannel: "is not for {{channel}}",
  isNotWrittenInALanguage: "is not written in a language that the customer reads",
  likeId: "like {{id}}",
  askedForByItsTitle: "asked for by its title",
  titleIsNearInMeaning: "“{{title}}” is near in meaning",

  // ranking/learning/usage.ts
  youUseItOften: "you use it often",
  yourTeamUsesItOften: "your team uses it often",
  oftenSwappedForAnother: "often swapped for another",
  oftenWrittenAnew: "often written anew",
});
