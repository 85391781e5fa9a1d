/** Where a shortcut acts, as the page Keys puts them together. */
export const places = [
  "Everywhere",
  "Waiting",
  "Answering, on the shelf",
  "Answering, in the answer",
  "Answering, everywhere",
  "Shelves",
  "In the search over a list",
  "Writing",
] as const;

export interface Shortcut {
  place: (typeof places)[number];
  /** As it is shown. */
  shown: string;
  does: string;
  /** What `useShortcuts` listens for; left out where a field, a list or an editor hears the key itself. */
  keys?: readonly string[];
  /** Whether it acts also while somebody types. */
  typing?: true;
}

/** Every shortcut of the program: what screens listen for, and what the page Keys lists. */
export const shortcuts = {
  undo: {
    place: "Everywhere",
    shown: "Alt Z",
    does: "call the letter back, take a change back",
    keys: ["alt+z"],
    typing: true,
  },
  lift: { place: "Everywhere", shown: "Space, ↑ ↓, Space", does: "on a handle: lift, move, put down" },
  orderUp: {
    place: "Everywhere",
    shown: "Alt ↑, Alt ↓",
    does: "on a handle: one place up or down",
    keys: ["alt+up"],
  },
  orderDown: { place: "Everywhere", shown: "", does: "", keys: ["alt+down"] },
  keepField: {
    place: "Everywhere",
    shown: "Enter",
    does: "in a field that opened for it: keep what was typed",
    keys: ["enter"],
    typing: true,
  },
  leaveField: {
    place: "Everywhere",
    shown: "Esc",
    does: "in such a field: leave it as it was",
    keys: ["escape"],
    typing: true,
  },
  foundDown: {
    place: "In the search over a list",
    shown: "↓",
    does: "to what was found",
    keys: ["down"],
    typing: true,
  },
  foundOpen: {
    place: "In the search over a list",
    shown: "Enter",
    does: "open the first that was found",
    keys: ["enter"],
    typing: true,
  },
  foundLeave: {
    place: "In the search over a list",
    shown: "Esc",
    does: "empty it; then back to the list",
    keys: ["escape"],
    typing: true,
  },
  messages: { place: "Everywhere", shown: "F8", does: "to the notices at the foot" },

  caseDown: { place: "Waiting", shown: "↑ ↓", does: "move along the list", keys: ["down"] },
  caseUp: { place: "Waiting", shown: "", does: "", keys: ["up"] },
  openCase: {
    place: "Waiting",
    shown: "Enter",
    does: "answer an easy case from here; open any other",
    keys: ["enter"],
  },
  sendHere: {
    place: "Waiting",
    shown: "Ctrl Enter",
    does: "send the answer that is open beside the list",
    keys: ["ctrl+enter", "meta+enter"],
    typing: true,
  },
  closeHere: { place: "Waiting", shown: "Esc", does: "close it", keys: ["escape"] },
  findCase: { place: "Waiting", shown: "/", does: "find a case", keys: ["/", "shift+/"] },
  alike: { place: "Waiting", shown: "A", does: "put cases with the same best reply together", keys: ["a"] },

  look: {
    place: "Answering, on the shelf",
    shown: "← →",
    does: "look at the next reply, as it reads for this case",
    keys: ["left", "right"],
    typing: true,
  },
  searchShelf: { place: "Answering, on the shelf", shown: "letters", does: "search the shelf" },
  take: {
    place: "Answering, on the shelf",
    shown: "Enter",
    does: "take the reply, in place of the one that stands; beside it where it answers a second question",
    keys: ["enter"],
    typing: true,
  },
  add: {
    place: "Answering, on the shelf",
    shown: "Shift Enter",
    does: "add the reply to those that stand",
    keys: ["shift+enter"],
    typing: true,
  },
  leaveShelf: {
    place: "Answering, on the shelf",
    shown: "Esc",
    does: "empty the search; then go to the answer",
    keys: ["escape"],
    typing: true,
  },

  blanks: { place: "Answering, in the answer", shown: "Tab, Shift Tab", does: "next and previous blank" },
  moveSlip: {
    place: "Answering, in the answer",
    shown: "Alt Shift ↑, Alt Shift ↓",
    does: "move the reply that the cursor is in up or down",
  },
  format: { place: "Answering, in the answer", shown: "Ctrl B, I, U", does: "bold, italic, underlined" },
  toBar: {
    place: "Answering, in the answer",
    shown: "Alt F10",
    does: "to the formatting bar; Esc comes back",
  },
  leaveBar: { place: "Answering, everywhere", shown: "", does: "", keys: ["escape"] },
  addAround: {
    place: "Answering, everywhere",
    shown: "Alt G",
    does: "add the opening and closing that the letter lacks",
    keys: ["alt+g"],
    typing: true,
  },
  undoTyping: {
    place: "Answering, everywhere",
    shown: "Ctrl Z, Ctrl Shift Z",
    does: "undo, and redo: words, values, files and taken replies",
    keys: ["ctrl+z", "meta+z"],
    typing: true,
  },
  redoTyping: {
    place: "Answering, everywhere",
    shown: "",
    does: "",
    keys: ["ctrl+shift+z", "meta+shift+z", "ctrl+y"],
    typing: true,
  },
  toShelf: {
    place: "Answering, in the answer",
    shown: "Esc",
    does: "back to the shelf",
    keys: ["escape"],
    typing: true,
  },

  send: {
    place: "Answering, everywhere",
    shown: "Ctrl Enter",
    does: "send and take the next case",
    keys: ["ctrl+enter", "meta+enter"],
    typing: true,
  },
  sendAndStay: {
    place: "Answering, everywhere",
    shown: "Ctrl Shift Enter",
    does: "send and stay",
    keys: ["ctrl+shift+enter", "meta+shift+enter"],
    typing: true,
  },
  caseBefore: {
    place: "Answering, everywhere",
    shown: "Alt ↑",
    does: "case before",
    keys: ["alt+up"],
    typing: true,
  },
  caseAfter: {
    place: "Answering, everywhere",
    shown: "Alt ↓",
    does: "case after",
    keys: ["alt+down"],
    typing: true,
  },

  findReply: { place: "Shelves", shown: "/", does: "find a reply", keys: ["/", "shift+/"] },
  rowDown: { place: "Shelves", shown: "↑ ↓", does: "move along the list", keys: ["down"] },
  rowUp: { place: "Shelves", shown: "", does: "", keys: ["up"] },
  mark: { place: "Shelves", shown: "Space", does: "mark the reply for a change in bulk", keys: ["space"] },
  openReply: { place: "Shelves", shown: "Enter", does: "open the reply", keys: ["enter"] },

  value: { place: "Writing", shown: "{", does: "insert a value or a blank; Esc for the brace itself" },
  link: { place: "Writing", shown: "Ctrl K", does: "link the selected words" },
  lists: { place: "Writing", shown: "Ctrl Shift 7, 8", does: "numbered list, list" },
  heading: { place: "Writing", shown: "Ctrl Alt 2", does: "heading" },
  quotation: { place: "Writing", shown: "Ctrl Shift B", does: "quotation" },
  cells: { place: "Writing", shown: "Tab, Shift Tab", does: "in a table: next and previous cell" },
  panel: {
    place: "Writing",
    shown: "Alt 1 to 6",
    does: "try on, blanks, passages, files, filing, history",
    keys: ["alt+1", "alt+2", "alt+3", "alt+4", "alt+5", "alt+6"],
    typing: true,
  },
  leavePanel: {
    place: "Writing",
    shown: "Esc",
    does: "from what stands beside the reply back to the words",
    keys: ["escape"],
    typing: true,
  },
} as const satisfies Record<string, Shortcut>;

export type ShortcutName = keyof typeof shortcuts;
/** Those that are listened for. */
export type HeardName = {
  [Name in ShortcutName]: (typeof shortcuts)[Name] extends { keys: readonly string[] } ? Name : never;
}[ShortcutName];
