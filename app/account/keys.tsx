import { Kbd } from "../ui/kbd";

const groups: { place: string; keys: [string, string][] }[] = [
  {
    place: "Waiting",
    keys: [
      ["↑ ↓", "move along the list"],
      ["Enter", "answer an easy case from here; open any other"],
      ["Ctrl Enter", "send the answer that is open beside the list"],
      ["Esc", "close it"],
      ["/", "find a case"],
      ["A", "put cases with the same best reply together"],
    ],
  },
  {
    place: "Answering, on the shelf",
    keys: [
      ["← →", "look at the next reply, as it reads for this case"],
      ["letters", "search the shelf"],
      [
        "Enter",
        "take the reply, in place of the one that stands; beside it where it answers a second question",
      ],
      ["Shift Enter", "add the reply to those that stand"],
      ["Esc", "empty the search; then go to the answer"],
    ],
  },
  {
    place: "Answering, in the answer",
    keys: [
      ["Tab, Shift Tab", "next and previous blank"],
      ["Alt Shift ↑, Alt Shift ↓", "move the reply that the cursor is in up or down"],
      ["Ctrl B, I, U", "bold, italic, underlined"],
      ["Ctrl Z, Ctrl Shift Z", "undo, and back again; taken replies and blanks too"],
      ["Esc", "back to the shelf"],
    ],
  },
  {
    place: "Answering, everywhere",
    keys: [
      ["Ctrl Enter", "send and take the next case"],
      ["Ctrl Shift Enter", "send and stay"],
      ["Alt ↑, Alt ↓", "case before, case after"],
      ["Alt Z", "call the letter back"],
    ],
  },
  {
    place: "Shelves",
    keys: [
      ["/", "find a reply"],
      ["↑ ↓", "move along the list"],
      ["Space", "mark the reply for a change in bulk"],
      ["Enter", "open the reply"],
      ["Alt ↑, Alt ↓", "move what is within reach, or a shelf being arranged"],
      ["Alt Z", "take a change in bulk back"],
    ],
  },
  {
    place: "Writing",
    keys: [
      ["{", "insert a value or a blank; Esc for the brace itself"],
      ["Ctrl K", "link the selected words"],
      ["Ctrl Shift 7, 8", "numbered list, list"],
      ["Ctrl Alt 2", "heading"],
      ["Ctrl Shift B", "quotation"],
      ["Tab, Shift Tab", "in a table: next and previous cell"],
      ["Alt 1 to 6", "try on, blanks, passages, files, filing, history"],
      ["Alt ↑, Alt ↓", "move a blank or a file in its order"],
    ],
  },
];

export default function Keys() {
  return (
    <main className="mx-5 grow bg-sheet px-10 py-8">
      <title>Keys · Plain Shelf</title>
      <h1 className="text-xl font-bold">Keys</h1>
      <div className="mt-6 grid gap-x-16 gap-y-8 md:grid-cols-2">
        {groups.map((group) => (
          <section key={group.place}>
            <h2 className="border-b border-line pb-1 font-bold">{group.place}</h2>
            <dl className="mt-2 grid grid-cols-[11rem_1fr] gap-y-1.5">
              {group.keys.map(([keys, what]) => (
                <div key={keys} className="contents">
                  <dt>
                    <Kbd keys={keys} />
                  </dt>
                  <dd>{what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </main>
  );
}
