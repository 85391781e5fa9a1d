import type { ForwarderInput } from "#core/forms/forwarder";

const example = `Hello Sollen Sound Ferries,

a traveller has a question about a crossing of yours.

Traveller: Ada Fenn
Order: CR-40117
Answer by: 30 November 2026, 18:00

Their words:
Can I still add a dog to this crossing?

--
Answer this mail, and we hand it on. No links, addresses or numbers, please.
`;

function span(words: string): { from: number; to: number } {
  const from = example.indexOf(words);
  return { from, to: from + words.length };
}

/** A marketplace that sells crossings, and forwards what its travellers ask. */
export const ferryForwarder: Omit<ForwarderInput, "mailbox"> = {
  name: "Crossings Market",
  sender: "@crossings.example.net",
  example,
  marks: {
    name: span("Ada Fenn"),
    reference: span("CR-40117"),
    deadline: span("30 November 2026, 18:00"),
    text: span("Can I still add a dog to this crossing?"),
  },
  rules: { noLinks: true, noAddresses: true, noNumbers: true, most: 1500 },
};
