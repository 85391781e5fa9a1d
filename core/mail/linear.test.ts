import { expect, test } from "@jest/globals";
import { nameCandidates } from "../checks/names";
import { fromPlainText } from "../document/plain";
import { readMarkdown } from "../formats/markdown";
import { guessLanguage } from "../language/guess";
import { growth, LINEAR } from "../testing/growth";
import { fileName, isProgram } from "../text/file-name";
import { wellFormed } from "../text/well-formed";
import { readAuthenticationResults } from "./authentication";
import { flowed, flowOf, unflowed } from "./flowed";
import { splitQuoted } from "./quoting";
import { answerSubject, bareSubject, caseNumberIn, oneLine, withCaseNumber } from "./subject";
import { answeredIds } from "./threading";

/** Texts that make a careless reader look at everything before each place. */
const hostile: Record<string, string> = {
  "one long word": "a",
  spaces: " ",
  "tabs and spaces": " \t",
  "line ends": "\n",
  "quoted and not": "> a\nb\n",
  "deep quotes": ">",
  "Re:": "Re: ",
  "Re[2]:": "RE[2]: AW: ",
  "someone wrote": "On Mon, 23 Nov 2026 at 09:12, Maren wrote ",
  dashes: "-",
  "header lines": "From: a\nSent: b\nTo: c\n",
  "opening brackets": "(",
  "opening marks": "<",
  ids: "<a@b> ",
  "quotation marks": '"',
  backslashes: "\\",
  digits: "1 ",
  capitals: "Ab Cd, ",
  semicolons: "; a=b",
  "case numbers": "SF-1 sf-",
  dots: ".",
  "halves of characters": "\ud800",
  "soft line ends": "a \n",
};

/** What reads what strangers wrote, whole as it came. */
const readers: Record<string, (text: string) => unknown> = {
  splitQuoted,
  oneLine,
  bareSubject,
  answerSubject: (text) => answerSubject(text, "SF-1"),
  withCaseNumber: (text) => withCaseNumber(text, "SF-1"),
  caseNumberIn: (text) => caseNumberIn(text, "SF"),
  answeredIds: (text) => answeredIds(text, text),
  readAuthenticationResults,
  flowed,
  unflowed: (text) => unflowed(text, true),
  flowOf: (text) => flowOf(`Content-Type: text/plain; format=flowed\n${text}`),
  guessLanguage,
  fileName,
  isProgram,
  wellFormed,
  fromPlainText,
  nameCandidates,
};

for (const [name, read] of Object.entries(readers)) {
  test(`${name} takes time in proportion to what it reads, whatever that is`, async () => {
    for (const [what, piece] of Object.entries(hostile)) {
      const ratio = await growth((size) => piece.repeat(Math.ceil(size / piece.length)), 4500, read);
      expect({ what, linear: ratio < LINEAR, ratio }).toMatchObject({ what, linear: true });
    }
  });
}

test("the measure tells what is not in proportion", async () => {
  const everyPair = (text: string) => {
    let found = 0;
    for (const one of text) for (const other of text) found += one === other ? 1 : 0;
    return found;
  };
  expect(await growth((size) => "a".repeat(size), 200, everyPair)).toBeGreaterThan(LINEAR);
});

test("what is pasted as Markdown is read in time in proportion to it", async () => {
  for (const piece of ["> a\nb\n", "**a", "[a](", ":passage["]) {
    const ratio = await growth((size) => piece.repeat(Math.ceil(size / piece.length)), 600, readMarkdown);
    expect({ piece, linear: ratio < LINEAR, ratio }).toMatchObject({ piece, linear: true });
  }
});
