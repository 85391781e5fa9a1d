import { describe, expect, test } from "@jest/globals";
import { caseStates } from "../words/case-states";
import { allStateWords, stateWords } from "./state-words";

describe("a state in the customer's words", () => {
  test("is what the house says, in the language of the letter whatever its region", () => {
    const own = { settled: { en: "done with", de: "erledigt" } };
    expect(stateWords(own, "settled", "en-GB")).toBe("done with");
    expect(stateWords(own, "settled", "de-AT")).toBe("erledigt");
  });

  test("is a usual one where the house says nothing, or not in that language", () => {
    expect(stateWords({}, "waiting on the customer", "en")).toBe("waiting for your answer");
    expect(stateWords({ settled: { de: "erledigt" } }, "settled", "en")).toBe("closed");
  });

  test("is none in a language that nobody wrote it in", () => {
    expect(stateWords({}, "open", "cy")).toBeNull();
    expect(stateWords({ open: { cy: "ar waith" } }, "open", "cy")).toBe("ar waith");
  });

  test.each(["en", "de", "es", "fr"])("is known of every state in %s", (language) => {
    expect(Object.values(allStateWords({}, language)).every((words) => words !== null)).toBe(true);
    expect(Object.keys(allStateWords({}, language))).toEqual([...caseStates]);
  });
});
