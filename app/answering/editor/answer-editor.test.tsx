import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import type { Editor } from "@tiptap/core";
import { act, cleanup, screen, waitFor, within } from "@testing-library/react";
import { useEffect } from "react";
import { readMarkdown } from "#core/formats/markdown";
import type { DraftSlip } from "#server/answering/draft";
import { testLetterInputs } from "../testing";
import { choose, show } from "../../testing/show";
import { useEditorOf } from "../../ui/editor/use-editor";
import { focusBlank, focusNamedBlank, focusOpenBlank, onTab } from "./blanks";
import { answerExtensions } from "./extensions";
import { letterState } from "./letter-state";
import SlipStack from "./slip-stack";
import { ownWordsSlip, slipJson, slipsOf } from "./slips";

afterEach(cleanup);

const usual = { required: true, printed: true };
const putOff: DraftSlip = {
  ...ownWordsSlip("en", "put-off"),
  reply: "put-off",
  title: "Sailing put off",
  versionNumber: 1,
  currentNumber: 2,
  document: readMarkdown(
    [
      "Hello {$customer.first_name}, you board at lane {$blank.lane}, deck {$blank.deck}.",
      ":::passage{id=change}\nA place is kept on the {$booking.new_ship}.\n:::",
      "Your animals: {$blank.animals}. Until {$blank.day}: {$blank.words}",
    ].join("\n\n"),
  ).doc,
  blanks: {
    lane: { ...usual, kind: "number", label: "lane", min: 1, max: 9 },
    deck: { ...usual, kind: "choice", label: "deck", options: ["upper", "lower"], many: false },
    animals: {
      ...usual,
      required: false,
      kind: "choice",
      label: "animals",
      options: ["dog", "cat"],
      many: true,
    },
    day: { ...usual, required: false, kind: "date", label: "day" },
    words: { ...usual, required: false, kind: "long_text", label: "words", default: "as agreed" },
    change: { ...usual, kind: "yes_no", label: "A change?", printed: false, hint: "No means money back" },
  },
  passages: { change: { when: { value: "blank.change", is: "equals", to: true } } },
};
const closing: DraftSlip = {
  ...ownWordsSlip("en", "closing"),
  part: "closing",
  title: "Safe travels",
  document: readMarkdown("Safe travels.").doc,
};

let editor: Editor;

function Page({ slips }: { slips: DraftSlip[] }) {
  const made = useEditorOf(() => ({
    extensions: answerExtensions(testLetterInputs),
    content: { type: "doc", content: slips.map(slipJson) },
  }));
  useEffect(() => {
    if (made) editor = made;
  }, [made]);
  return made && <SlipStack editor={made} slips={slipsOf(made.state.doc)} />;
}

const values = () => slipsOf(editor.state.doc)[0]?.values;
const letter = () => letterState(editor.state).letter.text;

describe("an answer of two slips", () => {
  let hand: ReturnType<typeof show>;
  beforeEach(async () => {
    hand = show(<Page slips={[putOff, closing]} />);
    await screen.findByRole("region", { name: "Sailing put off" });
  });

  test("shows values of the case, and what has none as a gap", async () => {
    const slip = screen.getByRole("region", { name: "Sailing put off" });
    expect(within(slip).getByText("Ottoline")).toHaveClass("token");
    await hand.click(screen.getByRole("button", { name: /Folded: stands when A change\?/ }));
    expect(screen.getByRole("button", { name: /Left out/ })).toHaveAttribute("aria-expanded", "true");
    expect(within(slip).getByText(/ship of the new sailing/)).toHaveClass("missing");
    expect(within(slip).getByText("a newer version is on the shelf")).toBeVisible();
  });

  test("a number is typed, and held against its limits", async () => {
    const lane = screen.getByRole("spinbutton", { name: "lane" });
    expect(lane).toHaveAttribute("aria-required", "true");
    await hand.type(lane, "4");
    expect(values()).toEqual({ lane: 4 });
    expect(lane).not.toHaveAttribute("aria-invalid");
    await hand.type(lane, "4");
    expect(lane).toHaveAttribute("aria-invalid", "true");
    await hand.clear(lane);
    expect(values()).toEqual({});
    await hand.type(lane, "1.50");
    expect(lane).toHaveDisplayValue("1.50");
    await hand.tab();
    expect(lane).toHaveValue(1.5);
  });

  test("one of few is chosen, several are, and the letter says them", async () => {
    await choose(hand, screen.getByRole("combobox", { name: "deck" }), "lower");
    await hand.click(screen.getByRole("combobox", { name: "animals: none" }));
    await hand.click(await screen.findByRole("option", { name: "dog" }));
    await hand.click(await screen.findByRole("option", { name: "cat" }));
    await hand.keyboard("{Escape}");
    expect(values()).toEqual({ deck: "lower", animals: ["dog", "cat"] });
    expect(letter()).toContain("deck lower");
    expect(letter()).toContain("dog and cat");
    await choose(hand, screen.getByRole("combobox", { name: "deck" }), "deck");
    expect(values()).toEqual({ animals: ["dog", "cat"] });
  });

  test("a day is typed as people write it", async () => {
    await hand.type(screen.getByRole("textbox", { name: "day" }), "1 March 2027");
    expect(values()).toEqual({ day: "2027-03-01" });
  });

  test("what stands for an empty blank is shown in its field", async () => {
    const words = screen.getByRole("textbox", { name: "words" });
    expect(words).toHaveAttribute("placeholder", "as agreed");
    await hand.type(words, "as you wish");
    expect(letter()).toContain("as you wish");
  });

  test("a blank that only steers is asked for above the words, and says what it is for", async () => {
    const steering = screen.getByRole("combobox", { name: "A change?" });
    expect(steering.closest(".blank")).toHaveClass("open");
    await choose(hand, steering, "yes");
    expect(values()).toEqual({ change: true });
    await waitFor(() => expect(screen.queryByRole("button", { name: /Folded/ })).not.toBeInTheDocument());
    await waitFor(() => expect(steering.closest(".blank")).not.toHaveClass("open"));
    act(() => {
      editor.commands.undo();
    });
    expect(values()).toEqual({});
  });

  test("the hand is put on the first blank that is open, on a named one, and from one to the next", () => {
    focusBlank(editor, "put-off");
    expect(document.activeElement).toBe(screen.getByRole("combobox", { name: "A change?" }));
    expect(focusNamedBlank(editor, { slip: "put-off", name: "day" })).toBe(true);
    expect(document.activeElement).toBe(screen.getByRole("textbox", { name: "day" }));
    expect(focusNamedBlank(editor, { slip: "closing", name: "day" })).toBe(false);
    expect(focusOpenBlank(editor)).toBe(true);
    editor.commands.setTextSelection(3);
    expect(onTab(editor, 1)).toBe(true);
    expect(document.activeElement).toBe(screen.getByRole("spinbutton", { name: "lane" }));
  });

  test("a slip is dropped, and the last one leaves room for one’s own words", async () => {
    const drop = (name: string) =>
      within(screen.getByRole("region", { name })).getByRole("button", { name: "remove" });
    expect(screen.getByRole("button", { name: "Move Safe travels" })).toBeVisible();
    await hand.click(drop("Safe travels"));
    expect(slipsOf(editor.state.doc).map(({ id }) => id)).toEqual(["put-off"]);
    await waitFor(() => expect(screen.queryByRole("button", { name: /^Move/ })).not.toBeInTheDocument());
    await hand.click(drop("Sailing put off"));
    expect(slipsOf(editor.state.doc).map(({ reply, title }) => [reply, title])).toEqual([
      [null, "Your own words"],
    ]);
  });
});

test("the hand goes to a blank of a slip that was just taken, once it is drawn", async () => {
  show(<Page slips={[closing]} />);
  await screen.findByRole("region", { name: "Safe travels" });
  act(() => {
    editor.view.dispatch(editor.state.tr.insert(0, editor.schema.nodeFromJSON(slipJson(putOff))));
    focusBlank(editor, "put-off");
  });
  await waitFor(() =>
    expect(document.activeElement).toBe(screen.getByRole("combobox", { name: "A change?" })),
  );
});

test("a blank that the reply does not know is a gap, and says so", async () => {
  show(<Page slips={[{ ...putOff, blanks: {}, passages: {} }]} />);
  const [gap] = await screen.findAllByText("{$blank.lane}");
  expect(gap).toHaveClass("missing");
});
