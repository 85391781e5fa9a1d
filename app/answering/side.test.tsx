import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { cleanup, screen } from "@testing-library/react";
import { createPortal } from "react-dom";
import { show } from "../testing/show";
import { SideTag, useSide } from "./side";

afterEach(cleanup);
// The window of the tests is never in front.
document.hasFocus = () => true;

function Page() {
  const { side, listen } = useSide();
  const go = (name: string) => () => screen.getByRole("textbox", { name }).focus();
  return (
    <>
      <main {...listen}>
        <button type="button">Their side</button>
        <section data-side="answer">
          <SideTag side="answer" keysGoTo={side} onGo={go("Words")} />
          <input aria-label="Words" />
          {createPortal(<input aria-label="List over the page" />, document.body)}
        </section>
        <section data-side="shelf">
          <SideTag side="shelf" keysGoTo={side} onGo={go("Find")} />
          <input aria-label="Find" />
        </section>
      </main>
      <p>Nothing to focus</p>
    </>
  );
}

describe("the side that the keys go to", () => {
  let hand: ReturnType<typeof show>;
  beforeEach(() => {
    hand = show(<Page />);
  });
  const tags = () => [...document.querySelectorAll(".side-tag")].map((tag) => tag.textContent);
  const neither = ["to the answer Esc", "to the shelf Esc"];

  test("is told on the side that has the focus, and the other says how to get there", async () => {
    expect(tags()).toEqual(neither);
    await hand.click(screen.getByRole("textbox", { name: "Words" }));
    expect(tags()).toEqual(["In the answer", "to the shelf Esc"]);
    await hand.click(screen.getByRole("button", { name: /to the shelf/ }));
    expect(tags()).toEqual(["to the answer Esc", "On the shelf"]);
    await hand.keyboard("dog");
    expect(screen.getByRole("textbox", { name: "Find" })).toHaveValue("dog");
    expect(screen.getByRole("textbox", { name: "Words" })).toHaveValue("");
  });

  test("stays where a list was opened from", async () => {
    await hand.click(screen.getByRole("textbox", { name: "Words" }));
    await hand.click(screen.getByRole("textbox", { name: "List over the page" }));
    expect(tags()).toEqual(["In the answer", "to the shelf Esc"]);
  });

  test("is neither on their side, and where nothing has the focus", async () => {
    await hand.click(screen.getByRole("textbox", { name: "Find" }));
    await hand.click(screen.getByRole("button", { name: "Their side" }));
    expect(tags()).toEqual(neither);
    await hand.click(screen.getByRole("textbox", { name: "Find" }));
    await hand.click(screen.getByText("Nothing to focus"));
    expect(tags()).toEqual(neither);
  });
});
