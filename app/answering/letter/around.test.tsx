import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { Editor } from "@tiptap/core";
import { cleanup, screen } from "@testing-library/react";
import { readMarkdown } from "#core/formats/markdown";
import type { OpenCase } from "#server/answering/open";
import { stripReply } from "../../testing/replies";
import { show } from "../../testing/show";
import { answerJson } from "../editor/answer-attrs";
import { answerExtensions } from "../editor/extensions";
import { letterState } from "../editor/letter-state";
import { ownWordsSlip, slipFrom, slipsOf } from "../editor/slips";
import { useLetter } from "../editor/use-letter";
import { testLetterInputs } from "../testing";
import type { AnswerHandle } from "../use-answer";
import { AroundLine } from "./around-line";

const part = (name: "opening" | "closing", words: string, language = "en") =>
  stripReply(words, words, { part: name, language });
const house = {
  opening: [part("opening", "Hello {$customer.first_name}, thank you."), part("opening", "Guten Tag,", "de")],
  closing: [part("closing", "Safe travels,", "en-GB")],
};
const empty = { opening: [], closing: [] };

let editor: Editor;
afterEach(() => {
  cleanup();
  editor.destroy();
});

function Line({ usual, channel }: { usual: OpenCase["usual"]; channel: string }) {
  const letter = useLetter(editor, (state) => state);
  const open = { usual, channel, context: testLetterInputs.context } as OpenCase;
  return <AroundLine open={open} answer={{ editor, letter } as AnswerHandle} />;
}

function given(words: string, usual: OpenCase["usual"], language = "en", channel = "email") {
  const slip = words.startsWith("reply:")
    ? slipFrom(stripReply("dogs", words.slice(6), { language }))
    : { ...ownWordsSlip(language), document: readMarkdown(words).doc };
  editor = new Editor({
    extensions: answerExtensions({ ...testLetterInputs, language }),
    content: answerJson([slip]),
  });
  return show(<Line usual={usual} channel={channel} />);
}

const text = () => letterState(editor.state).letter.text;

describe("a letter that lacks an opening and a closing", () => {
  let hand: ReturnType<typeof show>;

  describe("in a house that has them", () => {
    beforeEach(() => {
      hand = given("Dogs are welcome.", house);
    });

    test("is offered each as it reads, and both by one key; undo takes both back", async () => {
      expect(screen.getByRole("button", { name: "add “Hello Ottoline, thank you.”" })).toBeVisible();
      await hand.keyboard("{Alt>}g{/Alt}");
      expect(text()).toBe("Hello Ottoline, thank you.\n\nDogs are welcome.\n\nSafe travels,");
      expect(slipsOf(editor.state.doc).map((slip) => slip.part)).toEqual(["opening", "answer", "closing"]);
      expect(screen.queryByRole("button")).not.toBeInTheDocument();
      editor.commands.undo();
      expect(text()).toBe("Dogs are welcome.");
    });

    test("may have one alone", async () => {
      await hand.click(screen.getByRole("button", { name: "add “Safe travels,”" }));
      expect(text()).toBe("Dogs are welcome.\n\nSafe travels,");
      expect(screen.getAllByRole("button")).toHaveLength(1);
    });
  });

  test("in a language that the house’s closing is not written in has a plain one", async () => {
    hand = given("Hunde sind willkommen.", house, "de");
    expect(screen.getByRole("button", { name: "add “Guten Tag,”" })).toBeVisible();
    await hand.click(screen.getByRole("button", { name: "add “Freundliche Grüße”" }));
    expect(text()).toBe("Hunde sind willkommen.\n\nFreundliche Grüße");
    // Plain words join the agent's own.
    expect(slipsOf(editor.state.doc)).toHaveLength(1);
  });

  test("in an empty house has plain ones, around a reply as slips of their own", async () => {
    hand = given("reply:Dogs are welcome.", empty);
    await hand.keyboard("{Alt>}g{/Alt}");
    expect(text()).toBe("Hello Ottoline,\n\nDogs are welcome.\n\nKind regards,");
    expect(slipsOf(editor.state.doc).map((slip) => slip.reply)).toEqual([null, "dogs", null]);
  });

  test("is left alone where nothing is lacking, or there is nothing to offer", () => {
    given("Hello Ottoline,\n\nyes.\n\nKind regards,", house);
    expect(screen.queryByRole("button")).not.toBeInTheDocument();
    cleanup();
    given("Sim.", empty, "pt");
    expect(screen.queryByRole("button")).not.toBeInTheDocument();
    cleanup();
    given("Yes.", empty, "en", "chat");
    expect(screen.queryByRole("button")).not.toBeInTheDocument();
  });
});
