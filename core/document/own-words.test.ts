import { describe, expect, test } from "@jest/globals";
import { readMarkdown } from "../formats/markdown";
import { ownWordsIn } from "./own-words";
import { documentText } from "./walk";

const doc = (text: string) => readMarkdown(text).doc;
const shelved = doc("The ship is {$blank.hours :integer} hours late.\n\nA coffee is on us.");
const own = (text: string) => {
  const { added, changed } = ownWordsIn(doc(text), shelved);
  return { added: added.map((block) => documentText({ type: "doc", content: [block] })), changed };
};

describe("a person's own words in a reply", () => {
  test("none where nothing was written, or something was only taken out", () => {
    expect(ownWordsIn(shelved, shelved)).toEqual({ added: [], changed: [] });
    expect(own("A coffee is on us.")).toEqual({ added: [], changed: [] });
  });

  test("a paragraph of their own goes along; one of the reply's that they changed does not", () => {
    expect(own("A coffee and cake is on us.\n\nGreetings to your daughter, who asked so nicely!")).toEqual({
      added: ["Greetings to your daughter, who asked so nicely!"],
      changed: ["A coffee and cake is on us."],
    });
  });

  test("what holds a blank of the reply stays with it", () => {
    expect(own("Please wait {$blank.hours :integer} more, Captain Ode begs you.").added).toEqual([]);
  });
});
