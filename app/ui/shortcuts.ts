/** Where a shortcut acts, as the page Keys puts them together. */
export const places = [
  "everywhere",
  "waiting",
  "onTheShelf",
  "inTheAnswer",
  "answering",
  "shelves",
  "searching",
  "writing",
  "chats",
  "record",
] as const;

export interface Shortcut {
  place: (typeof places)[number];
  /** As it is shown; empty where another is shown for both. */
  shown: string;
  /** What `useShortcuts` listens for; left out where a field, a list or an editor hears the key itself. */
  keys?: readonly string[];
  /** Whether it acts also while somebody types. */
  typing?: true;
}

/** Every shortcut of the program: what screens listen for, and what the page Keys lists. */
export const shortcuts = {
  undo: {
    place: "everywhere",
    shown: "Alt Z",
    keys: ["alt+z"],
    typing: true,
  },
  lift: { place: "everywhere", shown: "Space, ↑ ↓, Space" },
  orderUp: {
    place: "everywhere",
    shown: "Alt ↑, Alt ↓",
    keys: ["alt+up"],
  },
  orderDown: { place: "everywhere", shown: "", keys: ["alt+down"] },
  keepField: {
    place: "everywhere",
    shown: "Enter",
    keys: ["enter"],
    typing: true,
  },
  leaveField: {
    place: "everywhere",
    shown: "Esc",
    keys: ["escape"],
    typing: true,
  },
  foundDown: {
    place: "searching",
    shown: "↓",
    keys: ["down"],
    typing: true,
  },
  foundOpen: {
    place: "searching",
    shown: "Enter",
    keys: ["enter"],
    typing: true,
  },
  foundLeave: {
    place: "searching",
    shown: "Esc",
    keys: ["escape"],
    typing: true,
  },
  messages: { place: "everywhere", shown: "F8" },

  caseDown: { place: "waiting", shown: "↑ ↓", keys: ["down"] },
  caseUp: { place: "waiting", shown: "", keys: ["up"] },
  openCase: {
    place: "waiting",
    shown: "Enter",
    keys: ["enter"],
  },
  sendHere: {
    place: "waiting",
    shown: "Ctrl Enter",
    keys: ["ctrl+enter", "meta+enter"],
    typing: true,
  },
  closeHere: { place: "waiting", shown: "Esc", keys: ["escape"] },
  findCase: { place: "waiting", shown: "/", keys: ["/", "shift+/"] },
  alike: { place: "waiting", shown: "A", keys: ["a"] },

  look: {
    place: "onTheShelf",
    shown: "← →",
    keys: ["left", "right"],
    typing: true,
  },
  searchShelf: { place: "onTheShelf", shown: "letters" },
  take: {
    place: "onTheShelf",
    shown: "Enter",
    keys: ["enter"],
    typing: true,
  },
  add: {
    place: "onTheShelf",
    shown: "Shift Enter",
    keys: ["shift+enter"],
    typing: true,
  },
  leaveShelf: {
    place: "onTheShelf",
    shown: "Esc",
    keys: ["escape"],
    typing: true,
  },

  blanks: { place: "inTheAnswer", shown: "Tab, Shift Tab" },
  moveSlip: {
    place: "inTheAnswer",
    shown: "Alt Shift ↑, Alt Shift ↓",
  },
  format: { place: "inTheAnswer", shown: "Ctrl B, I, U" },
  toBar: {
    place: "inTheAnswer",
    shown: "Alt F10",
  },
  leaveBar: { place: "answering", shown: "", keys: ["escape"] },
  addAround: {
    place: "answering",
    shown: "Alt G",
    keys: ["alt+g"],
    typing: true,
  },
  undoTyping: {
    place: "answering",
    shown: "Ctrl Z, Ctrl Shift Z",
    keys: ["ctrl+z", "meta+z"],
    typing: true,
  },
  redoTyping: {
    place: "answering",
    shown: "",
    keys: ["ctrl+shift+z", "meta+shift+z", "ctrl+y"],
    typing: true,
  },
  toShelf: {
    place: "inTheAnswer",
    shown: "Esc",
    keys: ["escape"],
    typing: true,
  },

  chatByNumber: {
    place: "chats",
    shown: "Alt 1 … 8",
    keys: ["alt+1", "alt+2", "alt+3", "alt+4", "alt+5", "alt+6", "alt+7", "alt+8"],
    typing: true,
  },
  lookAtPiece: { place: "chats", shown: "Enter" },
  pieceAtOnce: { place: "chats", shown: "Ctrl Enter" },
  putPieceBack: { place: "chats", shown: "Esc" },

  send: {
    place: "answering",
    shown: "Ctrl Enter",
    keys: ["ctrl+enter", "meta+enter"],
    typing: true,
  },
  sendAndStay: {
    place: "answering",
    shown: "Ctrl Shift Enter",
    keys: ["ctrl+shift+enter", "meta+shift+enter"],
    typing: true,
  },
  note: { place: "answering", shown: "Alt N", keys: ["alt+n"], typing: true },
  keepNote: { place: "answering", shown: "Alt Enter" },
  caseBefore: {
    place: "answering",
    shown: "Alt ↑",
    keys: ["alt+up"],
    typing: true,
  },
  caseAfter: {
    place: "answering",
    shown: "Alt ↓",
    keys: ["alt+down"],
    typing: true,
  },

  messageDown: { place: "record", shown: "↑ ↓", keys: ["down"] },
  messageUp: { place: "record", shown: "", keys: ["up"] },
  findSaid: { place: "record", shown: "/", keys: ["/", "shift+/"] },

  findReply: { place: "shelves", shown: "/", keys: ["/", "shift+/"] },
  rowDown: { place: "shelves", shown: "↑ ↓", keys: ["down"] },
  rowUp: { place: "shelves", shown: "", keys: ["up"] },
  mark: { place: "shelves", shown: "Space", keys: ["space"] },
  openReply: { place: "shelves", shown: "Enter", keys: ["enter"] },

  value: { place: "writing", shown: "{" },
  link: { place: "writing", shown: "Ctrl K" },
  lists: { place: "writing", shown: "Ctrl Shift 7, 8" },
  heading: { place: "writing", shown: "Ctrl Alt 2" },
  quotation: { place: "writing", shown: "Ctrl Shift B" },
  cells: { place: "writing", shown: "Tab, Shift Tab" },
  panel: {
    place: "writing",
    shown: "Alt 1 to 6",
    keys: ["alt+1", "alt+2", "alt+3", "alt+4", "alt+5", "alt+6"],
    typing: true,
  },
  leavePanel: {
    place: "writing",
    shown: "Esc",
    keys: ["escape"],
    typing: true,
  },
} as const satisfies Record<string, Shortcut>;

export type ShortcutName = keyof typeof shortcuts;
/** Those that are listened for. */
export type HeardName = {
  [Name in ShortcutName]: (typeof shortcuts)[Name] extends { keys: readonly string[] } ? Name : never;
}[ShortcutName];
