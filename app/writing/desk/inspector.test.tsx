import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { ferryDetails } from "../../../demo/details";
import type { Editor } from "@tiptap/core";
import { EditorContent } from "@tiptap/react";
import { act, cleanup, screen, waitFor } from "@testing-library/react";
import { useEffect } from "react";
import { readMarkdown } from "#core/formats/markdown";
import { catalogue } from "#core/tokens/catalogue";
import { testContext } from "#core/compose/testing";
import { choose, show } from "../../testing/show";
import { useEditorOf } from "../../ui/editor/use-editor";
import { bodyExtensions } from "../editor/body";
import type { Definitions } from "../editor/definitions";
import { Inspector } from "./inspector";

afterEach(cleanup);

const usual = { required: true, printed: true };
const tokens = catalogue({ details: ferryDetails });
const definitions: Definitions = {
  tokens,
  blanks: { lane: { ...usual, kind: "number", label: "lane number" } },
  passages: { van: { when: { value: "booking.vehicle", is: "present" } } },
  findings: [],
  sample: () => null,
};
const onNewPassage = jest.fn<() => string>(() => "new");
const onEditPassage = jest.fn<(id: string) => void>();
const onEditBlank = jest.fn<(name: string) => void>();
beforeEach(() => {
  for (const one of [onNewPassage, onEditPassage, onEditBlank]) one.mockClear();
});

let editor: Editor;

function Desk({ markdown }: { markdown: string }) {
  const made = useEditorOf(() => ({
    extensions: bodyExtensions({ definitions, onBrace: () => undefined }),
    content: readMarkdown(markdown).doc,
  }));
  useEffect(() => {
    if (made) editor = made;
  }, [made]);
  return (
    <>
      <EditorContent editor={made} />
      {made && (
        <Inspector
          editor={made}
          words
          tokens={tokens}
          blanks={definitions.blanks}
          tried={{ context: testContext(), style: { language: "en", timeZone: "Europe/Lisbon" } }}
          passages={["van"]}
          onNewPassage={onNewPassage}
          onEditPassage={onEditPassage}
          onEditBlank={onEditBlank}
        />
      )}
    </>
  );
}

async function desk(markdown: string) {
  const hand = show(<Desk markdown={markdown} />);
  await screen.findByRole("group", { name: "At the cursor" });
  return hand;
}

const select = (at: number) => act(() => void editor.commands.setNodeSelection(at));
const cursor = (from: number, to = from) => act(() => void editor.commands.setTextSelection({ from, to }));
const json = () => JSON.stringify(editor.getJSON());

describe("at the cursor", () => {
  test("a value shows how it reads for the case that is tried on", async () => {
    await desk("Fare {$booking.fare}");
    select(6);
    const line = screen.getByRole("group", { name: "At the cursor" });
    expect(line).toHaveTextContent("fare");
    expect(line).toHaveTextContent("€118.00");
  });

  test("a value that nobody defined is said to be none", async () => {
    await desk("Hello {$nobody.knows}");
    select(7);
    expect(screen.getByText("There is no such token.")).toBeVisible();
  });

  test("a blank leads to where it is changed", async () => {
    const hand = await desk("Lane {$blank.lane}");
    select(6);
    await hand.click(screen.getByRole("button", { name: "change the blank" }));
    expect(onEditBlank).toHaveBeenCalledWith("lane");
  });

  test("a link’s address is kept once it is one, and taken off", async () => {
    const hand = await desk("See [the times](https://example.org/times).");
    cursor(8);
    const field = screen.getByLabelText("Leads to");
    expect(field).toHaveValue("https://example.org/times");
    await hand.clear(field);
    await hand.type(field, "nowhere");
    expect(field).toHaveAttribute("aria-invalid", "true");
    await hand.keyboard("{Enter}");
    expect(json()).toContain("https://example.org/times");
    await hand.clear(field);
    await hand.click(field);
    await hand.paste("https://example.org/{$booking.reference}");
    await hand.keyboard("{Enter}");
    expect(json()).toContain("https://example.org/{$booking.reference}");
    cursor(8);
    await hand.click(await screen.findByRole("button", { name: "remove link" }));
    await waitFor(() => expect(json()).not.toContain("https://example.org"));
  });

  test("a picture is said to show something, and is as wide as wanted", async () => {
    const hand = await desk("Before");
    act(() => {
      editor.commands.insertContentAt(1, {
        type: "image",
        attrs: { attachment: "4", alt: "", width: null },
      });
    });
    select(1);
    expect(screen.getByText("Say what the picture shows.")).toBeVisible();
    await hand.type(screen.getByLabelText("It shows"), "The ramp");
    await hand.type(screen.getByLabelText("Width"), "320");
    expect(json()).toContain('"attachment":"4","alt":"The ramp","width":320');
    expect(screen.queryByText("Say what the picture shows.")).not.toBeInTheDocument();
  });

  test("a table grows and shrinks by rows and columns", async () => {
    const hand = await desk("| a | b |\n| --- | --- |\n| c | d |");
    cursor(4);
    const rows = () => editor.view.dom.querySelectorAll("tr").length;
    const cells = () => editor.view.dom.querySelectorAll("th, td").length;
    expect([rows(), cells()]).toEqual([2, 4]);
    await hand.click(screen.getByRole("button", { name: "row below" }));
    expect([rows(), cells()]).toEqual([3, 6]);
    await hand.click(screen.getByRole("button", { name: "column after" }));
    expect([rows(), cells()]).toEqual([3, 9]);
    await hand.click(screen.getByRole("button", { name: "remove row" }));
    await hand.click(screen.getByRole("button", { name: "remove column" }));
    expect([rows(), cells()]).toEqual([2, 4]);
    await hand.click(screen.getByRole("button", { name: "remove table" }));
    expect(rows()).toBe(0);
  });
});

describe("conditions", () => {
  test("words stand under a new one, and are led to where it is said", async () => {
    const hand = await desk("Your van travels with you.");
    cursor(1, 9);
    await hand.click(screen.getByRole("button", { name: "stands only when…" }));
    await hand.click(screen.getByRole("button", { name: "Cancel" }));
    expect(onNewPassage).not.toHaveBeenCalled();
    await hand.click(screen.getByRole("button", { name: "stands only when…" }));
    await hand.click(screen.getByRole("button", { name: "these words" }));
    expect(onEditPassage).toHaveBeenCalledWith("new");
    expect(json()).toContain('"passages":[{"id":"new","otherwise":false}]');
  });

  test("words stand under one that is there, the other way round too, and are freed of it", async () => {
    const hand = await desk("Your van travels with you.");
    cursor(1, 9);
    await hand.click(screen.getByRole("button", { name: "stands only when…" }));
    await choose(
      hand,
      screen.getByRole("combobox", { name: "Under a condition that is there" }),
      "otherwise than when vehicle is known",
    );
    expect(json()).toContain('"id":"van","otherwise":true');
    cursor(3);
    await hand.click(screen.getByRole("button", { name: "swap with otherwise" }));
    expect(json()).toContain('"id":"van","otherwise":false');
    await hand.click(screen.getByRole("button", { name: "stands when vehicle is known" }));
    expect(onEditPassage).toHaveBeenLastCalledWith("van");
    await hand.click(screen.getByRole("button", { name: "add otherwise" }));
    expect(json()).toContain('"otherwise":true');
    cursor(3);
    await hand.click(screen.getByRole("button", { name: "remove the condition" }));
    expect(json()).not.toContain('"otherwise":false');
  });
});
