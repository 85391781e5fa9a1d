import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, screen } from "@testing-library/react";
import { useState } from "react";
import type { Doc } from "#core/document/types";
import { readMarkdown } from "#core/formats/markdown";
import { show } from "../../testing/show";
import TextForm from "./text-form";

afterEach(cleanup);

const onChange = jest.fn<(doc: Doc) => void>();
function Page({ first }: { first: string }) {
  const [doc, setDoc] = useState(readMarkdown(first).doc);
  return (
    <>
      <TextForm
        doc={doc}
        onChange={(next) => {
          onChange(next);
          setDoc(next);
        }}
      />
      <button type="button" onClick={() => setDoc(readMarkdown("Written on the page.").doc)}>
        write on the page
      </button>
    </>
  );
}
const area = () => screen.getByRole<HTMLTextAreaElement>("textbox", { name: "The words as Markdown" });

describe("the words as Markdown", () => {
  test("change the page’s with each key", async () => {
    const hand = show(<Page first="Dogs are welcome." />);
    expect(area().value.trim()).toBe("Dogs are welcome.");
    await hand.clear(area());
    await hand.click(area());
    await hand.paste("Dogs are **welcome**, {$customer.first_name}.");
    expect(onChange.mock.lastCall).toEqual([
      readMarkdown("Dogs are **welcome**, {$customer.first_name}.").doc,
    ]);
  });

  test("follow the page, but never under the hand", async () => {
    const hand = show(<Page first="Dogs are welcome." />);
    await hand.click(screen.getByRole("button", { name: "write on the page" }));
    expect(area().value.trim()).toBe("Written on the page.");
    await hand.clear(area());
    await hand.type(area(), "Mine  ");
    expect(area().value).toBe("Mine  ");
  });

  test("that cannot be read say where, and lead there", async () => {
    const hand = show(<Page first="Fine." />);
    await hand.clear(area());
    await hand.click(area());
    await hand.paste("First line\n\nHello {$no such}");
    const problem = await screen.findByRole("button", { name: /^Line 3, column \d+: / });
    await hand.click(problem);
    expect(area()).toHaveFocus();
    const column = Number(/column (\d+)/.exec(problem.textContent)?.[1]);
    expect(area().selectionStart).toBe("First line\n\n".length + column - 1);
  });
});
