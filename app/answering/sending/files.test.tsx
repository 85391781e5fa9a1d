import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import type { Editor } from "@tiptap/core";
import { closeHistory } from "@tiptap/pm/history";
import { cleanup, screen, waitFor } from "@testing-library/react";
import { useEffect } from "react";
import type { OpenCase } from "#server/answering/open";
import { showAtDesk } from "../../testing/desk";
import { useEditorOf } from "../../ui/editor/use-editor";
import { answerJson, filesThatGo } from "../editor/answer-attrs";
import { answerExtensions } from "../editor/extensions";
import { letterState } from "../editor/letter-state";
import { ownWordsSlip } from "../editor/slips";
import { useLetter } from "../editor/use-letter";
import { testLetterInputs } from "../testing";
import type { AnswerHandle } from "../use-answer";
import { Files } from "./files";
import { useOwnFiles } from "./use-own-files";

afterEach(cleanup);

const open = { channel: "email", draft: null } as OpenCase;
let editor: Editor;
let bring: ReturnType<typeof useOwnFiles>["add"];

function Page() {
  const made = useEditorOf(() => ({
    extensions: answerExtensions(testLetterInputs),
    content: answerJson([ownWordsSlip("en")]),
  }));
  const files = useOwnFiles(made);
  const letter = useLetter(made, (state) => state);
  useEffect(() => {
    if (made) editor = made;
    bring = files.add;
  }, [made, files.add]);
  return <Files open={open} answer={{ editor: made, letter, files } as AnswerHandle} />;
}

describe("files of an answer", () => {
  let stored: { id: string; name: string; contentType: string; size: number };
  let hand: ReturnType<typeof showAtDesk>["hand"];
  let asked: ReturnType<typeof showAtDesk>["asked"];
  beforeEach(async () => {
    stored = { id: "7", name: "form.pdf", contentType: "application/pdf", size: 1200 };
    ({ hand, asked } = showAtDesk(<Page />, { "/replies/files": () => stored }));
    await waitFor(() => expect(editor.isDestroyed).toBe(false));
  });
  const attach = (name: string, type = "application/pdf") =>
    hand.upload(screen.getByLabelText("Attach a file"), new File(["x"], name, { type }));
  const names = () => filesThatGo(editor.state.doc).map((file) => file.name);

  test("are attached, listed with their size, and removed; undo brings one back", async () => {
    await attach("form.pdf");
    expect(await screen.findByRole("link", { name: "form.pdf" })).toHaveAttribute("href", "/library-files/7");
    expect(screen.getByText("1 kB")).toBeVisible();
    await hand.click(screen.getByRole("button", { name: "Remove form.pdf" }));
    expect(names()).toEqual([]);
    expect(screen.queryByRole("link")).not.toBeInTheDocument();
    editor.commands.undo();
    expect(names()).toEqual(["form.pdf"]);
  });

  test("that are programs are asked about before they are brought, and left where that is cancelled", async () => {
    await attach("setup.exe", "");
    const dialog = await screen.findByRole("alertdialog", { name: "Attach “setup.exe”?" });
    expect(dialog).toHaveTextContent("It is a program");
    await hand.click(screen.getByRole("button", { name: "Cancel" }));
    expect(asked).toEqual([]);
    stored = { ...stored, name: "setup.exe" };
    await attach("setup.exe", "");
    await hand.click(await screen.findByRole("button", { name: "Attach it" }));
    await waitFor(() => expect(names()).toEqual(["setup.exe"]));
    expect(letterState(editor.state).checks.map(({ code }) => code)).toContain("attachment-risky");
  });

  test("that turn out to be programs are asked about once their bytes were read", async () => {
    stored = { ...stored, contentType: "application/x-msdownload" };
    await attach("form.pdf");
    await hand.click(await screen.findByRole("button", { name: "Cancel" }));
    expect(names()).toEqual([]);
  });

  test("that are pictures stand in the words and go only as long as they do", async () => {
    stored = { id: "9", name: "ramp.png", contentType: "image/png", size: 900 };
    await bring([new File(["x"], "ramp.png", { type: "image/png" })], "words");
    await waitFor(() => expect(names()).toEqual(["ramp.png"]));
    expect(letterState(editor.state).letter.pictures.map((file) => file.id)).toEqual(["9"]);
    expect(letterState(editor.state).checks.map(({ code }) => code)).toContain("picture-without-words");
    expect(screen.queryByRole("link", { name: "ramp.png" })).not.toBeInTheDocument();
    // What is done later is a step of its own.
    editor.view.dispatch(closeHistory(editor.state.tr.deleteSelection()));
    expect(names()).toEqual([]);
    editor.commands.undo();
    expect(names()).toEqual(["ramp.png"]);
    editor.commands.undo();
    expect(editor.state.doc.attrs.files).toEqual([]);
  });
});
