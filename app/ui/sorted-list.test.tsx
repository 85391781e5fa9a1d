import { afterEach, expect, jest, test } from "@jest/globals";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import SortedList from "./sorted-list";

afterEach(cleanup);

const ships = ["kittiwake", "meridian", "tide"];

function show(onOrder: (keys: string[]) => void, keys = ships, fixed = false) {
  return render(
    <SortedList label="Ships" keys={keys} nameOf={(key) => key.toUpperCase()} onOrder={onOrder} fixed={fixed}>
      {(key, handle, index) => (
        <>
          {handle} {index + 1} {key}
        </>
      )}
    </SortedList>,
  );
}
const order = () => screen.getAllByRole("listitem").map((one) => one.textContent?.trim());

test("Alt and the arrows move an item by its handle, which keeps the focus; the ends are ends", async () => {
  const user = userEvent.setup();
  const settled = jest.fn<(keys: string[]) => void>();
  show(settled);
  const handle = screen.getByRole("button", { name: "Move MERIDIAN" });
  handle.focus();
  await user.keyboard("{Alt>}{ArrowUp}{/Alt}");
  expect(order()).toEqual(["1 meridian", "2 kittiwake", "3 tide"]);
  expect(settled).toHaveBeenLastCalledWith(["meridian", "kittiwake", "tide"]);
  expect(document.activeElement).toBe(handle);
  await user.keyboard("{Alt>}{ArrowUp}{/Alt}");
  expect(settled).toHaveBeenCalledTimes(1);
  await user.keyboard("{Alt>}{ArrowDown}{ArrowDown}{ArrowDown}{/Alt}");
  expect(order()).toEqual(["1 kittiwake", "2 tide", "3 meridian"]);
  expect(settled).toHaveBeenCalledTimes(3);
});

test("what is stored counts as soon as it is another", async () => {
  const user = userEvent.setup();
  const { rerender } = show(() => undefined);
  screen.getByRole("button", { name: "Move TIDE" }).focus();
  await user.keyboard("{Alt>}{ArrowUp}{/Alt}");
  expect(order()[1]).toBe("2 tide");
  rerender(
    <SortedList label="Ships" keys={["tide", "kittiwake"]} nameOf={(key) => key} onOrder={() => undefined}>
      {(key, handle, index) => (
        <>
          {handle} {index + 1} {key}
        </>
      )}
    </SortedList>,
  );
  expect(order()).toEqual(["1 tide", "2 kittiwake"]);
});

test("tells the keyboard how, and one that is fixed has no handles", () => {
  const { unmount } = show(() => undefined);
  const handle = screen.getByRole("button", { name: "Move TIDE" });
  expect(document.getElementById(handle.getAttribute("aria-describedby") ?? "")?.textContent).toContain(
    "Space lifts it",
  );
  unmount();
  show(() => undefined, ships, true);
  expect(screen.queryByRole("button")).toBeNull();
});
