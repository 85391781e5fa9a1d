import { afterEach, describe, expect, test } from "@jest/globals";
import { Editor } from "@tiptap/core";
import { act, cleanup, screen, within } from "@testing-library/react";
import { createRef } from "react";
import type { SendCheck } from "#core/checks/check";
import { show } from "../testing/show";
import { Margin } from "./margin";
import { useLetter } from "./editor/use-letter";
import { SetAside } from "./draft/set-aside";
import { answerJson, untouchedAttrs } from "./editor/answer-attrs";
import { answerExtensions } from "./editor/extensions";
import { ownWordsSlip } from "./editor/slips";
import { testLetterInputs } from "./testing";

afterEach(cleanup);

const check = (severity: "stop" | "look", message: string) =>
  ({ code: "blank-empty", severity, message }) as SendCheck;
const margin = (checks: SendCheck[]) =>
  show(<Margin checks={checks} editor={null} page={createRef<HTMLDivElement>()} />);

window.matchMedia = (query) => ({ matches: true, media: query }) as MediaQueryList;

describe("the second look", () => {
  test("says that there is nothing to see to", () => {
    margin([]);
    expect(screen.getByText("Nothing to see to.")).toBeVisible();
    expect(screen.getByRole("status")).toHaveTextContent("Nothing to see to");
  });

  test("names what stops sending apart from what is worth a look, and counts what stops", () => {
    margin([
      check("stop", "Lane is empty."),
      check("look", "It promises a file."),
      check("stop", "No address."),
    ]);
    const notes = within(screen.getByRole("complementary", { name: "Second look" })).getAllByRole("button");
    expect(notes.map((note) => note.textContent)).toEqual([
      "Stops sendingLane is empty.",
      "Worth a lookIt promises a file.",
      "Stops sendingNo address.",
    ]);
    expect(screen.getByRole("status")).toHaveTextContent("2 stop sending");
  });

  test("counts what is worth a look where nothing stops", () => {
    margin([check("look", "It promises a file.")]);
    expect(screen.getByRole("status")).toHaveTextContent("1 worth a look");
  });
});

describe("words that a swap set aside", () => {
  let editor: Editor;
  const withWords = (setAside: string[]) => {
    editor = new Editor({
      extensions: answerExtensions(testLetterInputs),
      content: answerJson([ownWordsSlip("en")], { ...untouchedAttrs, setAside }),
    });
    return show(<Aside />);
  };
  const Aside = () => <SetAside editor={editor} letter={useLetter(editor, (letter) => letter)} />;
  afterEach(() => editor.destroy());
  const listed = () => screen.queryAllByRole("listitem").map((item) => item.firstChild?.textContent);

  test("are inserted or removed one by one, and undo brings them back in their order", async () => {
    const hand = withWords(["in your cabin", "mine may bark", "on a lead"]);
    const button = (words: string, name: string) => {
      const item = screen.getByText(words).closest("li");
      if (!item) throw new Error("Words stand in a list");
      return within(item).getByRole("button", { name });
    };
    await hand.click(button("in your cabin", "remove"));
    await hand.click(button("on a lead", "insert"));
    expect(listed()).toEqual(["mine may bark"]);
    expect(editor.state.doc.textContent).toBe("on a lead");
    act(() => void editor.commands.undo());
    expect(editor.state.doc.textContent).toBe("");
    expect(listed()).toEqual(["mine may bark", "on a lead"]);
    act(() => void editor.commands.undo());
    expect(listed()).toEqual(["in your cabin", "mine may bark", "on a lead"]);
    act(() => void editor.commands.redo());
    expect(listed()).toEqual(["mine may bark", "on a lead"]);
  });

  test("are nowhere where there are none", () => {
    withWords([]);
    expect(screen.queryByRole("region", { name: "Set aside" })).not.toBeInTheDocument();
  });
});
