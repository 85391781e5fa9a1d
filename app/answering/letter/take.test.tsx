import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { Editor } from "@tiptap/core";
import { UndoRedo } from "@tiptap/extensions/undo-redo";
import type { StripReply } from "#server/strip/strip";
import { stripReply } from "../../testing/replies";
import { answerAttrs } from "../editor/answer-attrs";
import { answerNodes } from "../editor/extensions";
import { setSubject } from "../editor/fill";
import { ownWordsSlip, slipJson, slipsOf } from "../editor/slips";
import type { Usual } from "./around";
import { alreadyIn, firstSlips, slipsWith, takeReply, wayOf, wayToAdd } from "./take";

const dogs = stripReply("dogs", "Dogs are welcome.\n\nOn a lead.");
const bikes = stripReply("bikes", "Bicycles stand on deck 3.");
const lifts = stripReply("lifts", "The lifts work.", { also: "Is there a lift?" });
const usual: Usual = {
  opening: [
    stripReply("hello", "Hello,", { part: "opening" }),
    stripReply("hallo", "Guten Tag,", { part: "opening", language: "de" }),
  ],
  closing: [stripReply("bye", "Safe travels,", { part: "closing", language: "en-GB" })],
};
const shelved = (id: number) =>
  [dogs, bikes, lifts].find(({ versionId }) => versionId === id)?.document ?? null;

let editor: Editor;
beforeEach(() => {
  editor = new Editor({
    extensions: [...answerNodes, UndoRedo],
    content: { type: "doc", content: [slipJson(ownWordsSlip("en"))] },
  });
});
afterEach(() => editor.destroy());

/** Replies that answer another question of the customer’s. */
const also = new Map([
  ["lifts", "Is there a lift?"],
  ["papers", "Which papers?"],
]);
const alsoOf = (key: string) => also.get(key) ?? null;
const take = (one: StripReply) =>
  takeReply(editor, one, usual, wayOf(slipsOf(editor.state.doc), one, alsoOf), shelved);
const add = (one: StripReply) =>
  takeReply(editor, one, usual, wayToAdd(slipsOf(editor.state.doc), one), shelved);
const keys = () => slipsOf(editor.state.doc).map((slip) => slip.reply);
const setAside = () => answerAttrs(editor.state.doc).setAside;
const words = () =>
  editor.state.doc.content.content.map((slip) => slip.textBetween(0, slip.content.size, " "));

/** Writes at the end of the slip of a reply. */
function write(key: string, text: string): void {
  const slip = slipsOf(editor.state.doc).find((one) => one.reply === key);
  if (!slip) throw new Error(`There is no slip of ${key}`);
  const end = slip.position + editor.state.doc.child(keys().indexOf(key)).nodeSize - 1;
  editor.commands.insertContentAt(end, { type: "paragraph", content: [{ type: "text", text }] });
}

describe("a first answer", () => {
  test("has the team’s opening and closing around it, in its language", () => {
    expect(firstSlips(dogs, usual).map((slip) => slip.reply)).toEqual(["hello", "dogs", "bye"]);
    const german = stripReply("hunde", "Hunde sind willkommen.", { language: "de" });
    expect(firstSlips(german, usual).map((slip) => slip.reply)).toEqual(["hallo", "hunde"]);
    expect(firstSlips(bikes, { opening: [], closing: [] }).map((slip) => slip.reply)).toEqual(["bikes"]);
  });

  test("that is an opening itself stands alone", () => {
    const [hello] = usual.opening;
    expect(hello && firstSlips(hello, usual).map((slip) => slip.reply)).toEqual(["hello"]);
  });

  test("takes the place of the empty page, and names its own slip", () => {
    const id = take(dogs);
    expect(keys()).toEqual(["hello", "dogs", "bye"]);
    expect(slipsOf(editor.state.doc).find((slip) => slip.id === id)?.reply).toBe("dogs");
    expect(setAside()).toEqual([]);
  });
});

describe("another reply", () => {
  beforeEach(() => {
    take(dogs);
  });

  test("swaps the first, with the paragraphs that were added to it", () => {
    write("dogs", "Mine may bark.");
    take(bikes);
    expect(keys()).toEqual(["hello", "bikes", "bye"]);
    expect(words()[1]).toBe("Bicycles stand on deck 3. Mine may bark.");
    expect(setAside()).toEqual([]);
  });

  test("sets words aside that were changed within the first, which make no sense elsewhere", () => {
    const at = slipsOf(editor.state.doc)[1]?.position ?? 0;
    editor.commands.insertContentAt(at + 2 + "Dogs are welcome".length, " in your cabin");
    take(bikes);
    expect(words()[1]).toBe("Bicycles stand on deck 3.");
    expect(setAside().join(" ")).toContain("in your cabin");
    editor.commands.undo();
    expect(setAside()).toEqual([]);
    expect(words()[1]).toContain("welcome in your cabin");
  });

  test("brings its subject where it always does, unless the agent chose one; undo takes both back", () => {
    const subject = () => answerAttrs(editor.state.doc).subject;
    const named = stripReply("named", "Named.", { subject: "Your crossing", useTemplateSubject: true });
    take(named);
    expect(subject()).toEqual({ from: "reply" });
    editor.commands.undo();
    expect([subject(), keys()[1]]).toEqual([{ from: "thread" }, "dogs"]);
    setSubject(editor.view, { from: "own", text: "Mine" });
    take(named);
    expect(subject()).toEqual({ from: "own", text: "Mine" });
  });

  test("is stacked behind it, with what leads over where it answers a second question", () => {
    take(lifts);
    expect(keys()).toEqual(["hello", "dogs", null, "lifts", "bye"]);
    expect(words()[2]).toBe("As to your other question:");
    take(stripReply("papers", "Bring a passport.", { also: "Which papers?" }));
    expect(words()[4]).toBe("And as to your further question:");
    add(bikes);
    expect(keys()).toEqual(["hello", "dogs", null, "lifts", null, "papers", "bikes", "bye"]);
  });

  test("takes the place of what answers the same question, however many stand, and is said to before", () => {
    take(lifts);
    const way = (one: StripReply) => wayOf(slipsOf(editor.state.doc), one, alsoOf);
    expect(way(bikes)).toMatchObject({ how: "swap", title: "dogs" });
    take(bikes);
    expect(keys()).toEqual(["hello", "bikes", null, "lifts", "bye"]);
    const papers = stripReply("papers", "Bring a passport.", { also: "Which papers?" });
    expect(way(papers)).toEqual({ how: "add" });
    // What was searched for is known by the case all the same.
    expect(way({ ...papers, also: null })).toEqual({ how: "add" });
    const ramps = stripReply("ramps", "There is a ramp.", { also: "Is there a lift?" });
    expect(way(ramps)).toMatchObject({ how: "swap", title: "lifts" });
    expect(wayToAdd(slipsOf(editor.state.doc), ramps)).toEqual({ how: "add" });
  });

  test("is looked at as the answer would be with it", () => {
    const shown = (one: StripReply, way = wayOf(slipsOf(editor.state.doc), one, alsoOf)) => {
      const { slips, id } = slipsWith(slipsOf(editor.state.doc), one, usual, way);
      expect(slips.find((slip) => slip.id === id)?.reply).toBe(one.key);
      return slips.map((slip) => slip.reply);
    };
    expect(shown(bikes)).toEqual(["hello", "bikes", "bye"]);
    expect(shown(lifts)).toEqual(["hello", "dogs", null, "lifts", "bye"]);
    expect(shown(bikes, { how: "begin" })).toEqual(["hello", "bikes", "bye"]);
    expect(keys()).toEqual(["hello", "dogs", "bye"]);
  });

  test("of another part goes where that part stands", () => {
    editor.commands.setContent({
      type: "doc",
      content: [slipJson({ ...ownWordsSlip("en"), reply: "dogs", document: dogs.document })],
    });
    const [hello, bye] = [usual.opening[0], usual.closing[0]];
    if (!hello || !bye) throw new Error("The team has both");
    take(bye);
    take(hello);
    expect(keys()).toEqual(["hello", "dogs", "bye"]);
  });

  test("is one step to undo, however quickly it follows", () => {
    take(bikes);
    add(lifts);
    editor.commands.undo();
    expect(keys()).toEqual(["hello", "bikes", "bye"]);
    editor.commands.undo();
    expect(keys()).toEqual(["hello", "dogs", "bye"]);
    editor.commands.undo();
    expect(keys()).toEqual([null]);
  });

  test("need not be taken where it is in already, unless its blanks may say something else", () => {
    const swap = { how: "swap", slip: "", title: "dogs" } as const;
    expect(alreadyIn(editor, dogs, swap)?.reply).toBe("dogs");
    expect(alreadyIn(editor, dogs, { how: "add" })?.reply).toBe("dogs");
    expect(alreadyIn(editor, bikes, swap)).toBeNull();
    const asking = {
      ...dogs,
      blanks: { deck: { kind: "text", label: "deck", required: true, printed: true } as const },
    };
    expect(alreadyIn(editor, asking, { how: "add" })).toBeNull();
    expect(alreadyIn(editor, asking, swap)?.reply).toBe("dogs");
  });
});
