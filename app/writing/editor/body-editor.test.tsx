import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { ferryDetails } from "../../../demo/details";
import type { Editor } from "@tiptap/core";
import { act, cleanup, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import type { Doc } from "#core/document/types";
import { readMarkdown } from "#core/formats/markdown";
import { catalogue } from "#core/tokens/catalogue";
import { show } from "../../testing/show";
import { BodyEditor } from "./body-editor";
import { TextField } from "./text-field";
import type { Definitions } from "./definitions";

afterEach(cleanup);

const usual = { required: true, printed: true };
const definitions: Definitions = {
  tokens: catalogue({ details: ferryDetails }),
  blanks: { lane: { ...usual, kind: "number", label: "lane number" } },
  passages: { ship: { when: { value: "booking.vehicle", is: "present" } } },
  findings: [],
  sample: (name) => (name === "customer.first_name" ? "Ottoline" : null),
};
const words = readMarkdown(
  [
    "Hello {$customer.first_name}, lane {$blank.lane} or {$blank.deck}, {$nobody.knows}.",
    ":::passage{id=ship}\nYour vehicle travels with you.\n:::",
    ":::passage{id=gone}\nThis has no condition.\n:::",
  ].join("\n\n"),
).doc;

let editor: Editor | null = null;
const onChange = jest.fn<(doc: Doc) => void>();
const onBrace = jest.fn<(editor: Editor) => void>();
const nothing = () => undefined;

function Desk({ changed }: { changed: Partial<Definitions> }) {
  const [doc, setDoc] = useState(words);
  const [isChanged, setChanged] = useState(false);
  return (
    <>
      <button type="button" onClick={() => setChanged(true)}>
        define anew
      </button>
      <button type="button" onClick={() => setDoc(readMarkdown("Other words.").doc)}>
        other words
      </button>
      <BodyEditor
        label="Words"
        doc={doc}
        definitions={isChanged ? { ...definitions, ...changed } : definitions}
        onChange={onChange}
        onEditor={(one) => {
          editor = one;
        }}
        onBrace={onBrace}
        onFocus={nothing}
        onBrought={() => new Map()}
        onFiles={nothing}
      />
    </>
  );
}

async function desk(changed: Partial<Definitions> = {}) {
  const hand = show(<Desk changed={changed} />);
  await screen.findByText("first name");
  return hand;
}

describe("the words of a reply", () => {
  test("show values and blanks by their names, and what nobody defined as such", async () => {
    await desk();
    expect(screen.getByText("first name")).toHaveClass("chip-token");
    expect(screen.getByText("lane number")).toHaveClass("chip-blank");
    for (const unknown of ["deck", "nobody.knows"])
      expect(screen.getByText(unknown)).toHaveClass("chip-unknown");
  });

  test("say beside a passage when it stands, and that it has no condition", async () => {
    await desk();
    expect(screen.getByText("when vehicle is known")).toHaveClass("margin-when");
    expect(screen.getByText("their condition is gone")).toHaveClass("margin-when");
  });

  test("follow what is defined anew, without a change of their own", async () => {
    const hand = await desk({
      blanks: { deck: { ...usual, kind: "text", label: "which deck" } },
      passages: { gone: { when: { value: "booking.reference", is: "missing" } } },
      findings: [
        {
          code: "stray-brace",
          severity: "look",
          message: "A brace stands alone",
          at: { in: "body", from: 1, to: 6 },
        } as unknown as Definitions["findings"][number],
      ],
    });
    onChange.mockClear();
    await hand.click(screen.getByRole("button", { name: "define anew" }));
    expect(await screen.findByText("which deck")).not.toHaveClass("chip-unknown");
    expect(screen.getByText("lane")).toHaveClass("chip-unknown");
    expect(await screen.findByText("when booking reference is not known")).toBeVisible();
    expect(screen.getByText("Hello")).toHaveAttribute("data-hint", "A brace stands alone");
    expect(onChange).not.toHaveBeenCalled();
  });

  test("say where a chosen chip’s value comes from", async () => {
    await desk();
    act(() => {
      editor?.chain().focus().setNodeSelection(7).run();
    });
    expect(await screen.findByText("Ottoline")).toBeVisible();
    expect(screen.getByText("{$customer.first_name}")).toBeVisible();
    act(() => {
      editor?.commands.setTextSelection(1);
    });
    await waitFor(() => expect(screen.queryByText("Ottoline")).not.toBeInTheDocument());
  });

  test("are told with every change, and changed from outside without being told", async () => {
    const hand = await desk();
    onChange.mockClear();
    act(() => {
      editor?.commands.insertContentAt(1, "Good day. ");
    });
    expect(JSON.stringify(onChange.mock.lastCall)).toContain("Good day. Hello");
    onChange.mockClear();
    await hand.click(screen.getByRole("button", { name: "other words" }));
    await waitFor(() =>
      expect(screen.getByRole("textbox", { name: "Words" })).toHaveTextContent("Other words."),
    );
    expect(onChange).not.toHaveBeenCalled();
  });
});

describe("a line with values", () => {
  test("reads and writes the text form; a brace asks for a value", async () => {
    const told = jest.fn<(text: string) => void>();
    let line: Editor | null = null;
    const hand = show(
      <TextField
        label="Subject"
        placeholder="as they wrote"
        text="Your sailing {$booking.reference}"
        definitions={definitions}
        onChange={told}
        onBrace={onBrace}
        onFocus={(one) => {
          line = one;
        }}
      />,
    );
    const field = await screen.findByRole("textbox", { name: "Subject" });
    expect(await screen.findByText("booking reference")).toHaveClass("chip-token");
    onBrace.mockClear();
    act(() => field.focus());
    await waitFor(() => expect(line).not.toBeNull());
    await hand.keyboard("{{");
    expect(onBrace).toHaveBeenCalledTimes(1);
    act(() => {
      line?.commands.insertContentAt(0, "{New} ");
    });
    expect(told).toHaveBeenLastCalledWith("\\{New\\} Your sailing {$booking.reference}");
  });
});
