import { afterEach, expect, jest, test } from "@jest/globals";
import { cleanup, screen } from "@testing-library/react";
import { show } from "../testing/show";
import RowActions from "./row-actions";

afterEach(cleanup);

function begin() {
  const pinned = jest.fn();
  const hand = show(
    <RowActions
      label="More for Dogs"
      actions={[
        { words: "Look through its versions", to: "/replies/dogs/history" },
        { words: "Keep it within reach", run: pinned },
      ]}
    />,
  );
  return { hand, pinned, opener: screen.getByRole("button", { name: "More for Dogs" }) };
}

test("what can be done with a row is opened and gone along by key; Escape gives the focus back", async () => {
  const { hand, pinned, opener } = begin();
  expect(screen.queryByRole("menu")).toBeNull();
  await hand.tab();
  await hand.keyboard("{ArrowDown}");
  expect(await screen.findByRole("menuitem", { name: "Look through its versions" })).toHaveFocus();
  await hand.keyboard("{ArrowDown}");
  expect(screen.getByRole("menuitem", { name: "Keep it within reach" })).toHaveFocus();
  await hand.keyboard("{Escape}");
  expect(opener).toHaveFocus();
  expect(pinned).not.toHaveBeenCalled();
  await hand.keyboard("{Enter}");
  await screen.findByRole("menu");
  await hand.keyboard("k{Enter}");
  expect(pinned).toHaveBeenCalledTimes(1);
  expect(screen.queryByRole("menu")).toBeNull();
});

test("what leads elsewhere is a link, and can be opened as one", async () => {
  const { hand, opener } = begin();
  await hand.click(opener);
  expect(await screen.findByRole("menuitem", { name: "Look through its versions" })).toHaveAttribute(
    "href",
    "/replies/dogs/history",
  );
});
