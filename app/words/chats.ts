import { wordsOf } from "#core/words/words-of";

/** The words of the agent's Chats, file by file. */
export const t = wordsOf("chats", {
  // route.tsx
  chatsPlainShelf: "Chats · Plain Shelf",
  chats: "Chats",
  youTakeNoChatsJustNow: "You take no chats just now. Say above how many you take at once.",
  nobodyIsChattingJustNow: "Nobody is chatting with you just now. Whoever comes in stands here.",
  waitAtTheDoor_one: "One waits at the door, since {{since}}",
  waitAtTheDoor_other: "{{count, number}} wait at the door, since {{since}}",
  nobodyAtTheDoor: "Nobody at the door",
  iTakeUpTo: "I take up to",
  countChats_one: "{{count, number}} chat",
  countChats_other: "{{count, number}} chats",
  noChats: "no chats",

  // column.tsx
  chatWithName: "Chat with {{name}}",
  noBookingNamed: "no booking named",
  waitsTime: "waits {{time}}",
  quietTime: "quiet {{time}}",
  isGone: "is gone",
  ended: "ended",
  giveTheAddress: "gives {{address}}",
  giveTheAddressOf: "gives {{address}}, which is {{owner}}’s; nobody has looked whether it is them",
  fromThePage: "from {{page}}",
  wasHandedOver: "handed over to you with what was said",
  arrived: "arrived",
  readIt: "read",
  onItsWay: "on its way",
  nameIsWriting: "{{name}} is writing …",
  theTalkWentTo: "The talk went to {{address}}.",
  theTalkHasEnded: "The talk has ended.",
  openTheCase: "Open its case",
  endIt: "End it",
  handItTo: "Hand it to …",
  writeOrTakeFromTheShelf: "write, or take from the shelf",
  notSaidProblem: "Not said: {{problem}}",

  // looked.tsx
  lookedAtFirst: "looked at first:",
  sendIt: "Send it",
  putItBack: "Put it back",
  writeItOtherwise: "Write it otherwise",

  // desk.tsx
  forNameChatPieces: "For <0>{{name}}</0>, chat pieces.",
  lookFirst: "<0/> look first",
  sendAtOnce: "<0/> send at once",
  lookAtItFirst: "Look at it first: {{what}}",
  chooseAPieceFirst: "Choose a piece of the shelf first",
  theServerDidNotTakeIt: "The server did not take it",
  itCannotBeReached: "The server cannot be reached; what you wrote stays here",
});
