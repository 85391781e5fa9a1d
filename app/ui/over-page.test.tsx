import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { act, cleanup, fireEvent, render, renderHook, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { createMemoryRouter, Link, Outlet, RouterProvider } from "react-router";
import { show } from "../testing/show";
import { Confirm } from "./confirm";
import { Hint } from "./hint";
import { ManyPicker } from "./many-picker";
import { usePatternEngine } from "./pattern-engine";
import { useScrollKept } from "./use-scroll-kept";

afterEach(cleanup);

describe("a question before something is done", () => {
  function begin() {
    const done = jest.fn();
    const hand = show(
      <Confirm title="Remove it?" words="Its replies move." yes="Remove it" onYes={done}>
        <button type="button">away</button>
      </Confirm>,
    );
    return { done, hand, opener: screen.getByRole("button", { name: "away" }) };
  }

  test("stands first on what leaves all as it is, and gives the focus back", async () => {
    const { done, hand, opener } = begin();
    await hand.tab();
    await hand.keyboard("{Enter}");
    expect(screen.getByRole("alertdialog", { name: "Remove it?" })).toHaveAccessibleDescription(
      "Its replies move.",
    );
    expect(screen.getByRole("button", { name: "Cancel" })).toHaveFocus();
    await hand.keyboard("{Enter}");
    expect(opener).toHaveFocus();
    await hand.keyboard("{Enter}{Escape}");
    expect(screen.queryByRole("alertdialog")).toBeNull();
    expect(done).not.toHaveBeenCalled();
  });

  test("is answered once", async () => {
    const { done, hand, opener } = begin();
    await hand.click(opener);
    await hand.click(screen.getByRole("button", { name: "Remove it" }));
    expect(done).toHaveBeenCalledTimes(1);
    expect(screen.queryByRole("alertdialog")).toBeNull();
  });
});

test("a hint is shown to the keyboard too, and goes with Escape", async () => {
  const hand = show(
    <Hint words="Keep it within reach">
      <button type="button">pin</button>
    </Hint>,
  );
  await hand.tab();
  expect(await screen.findByRole("tooltip")).toHaveTextContent("Keep it within reach");
  expect(screen.getByRole("button", { name: "pin" })).toHaveAccessibleDescription("Keep it within reach");
  await hand.keyboard("{Escape}");
  expect(screen.queryByRole("tooltip")).toBeNull();
});

describe("several of many", () => {
  function Tags({ takesNew = true }: { takesNew?: boolean }) {
    const [value, setValue] = useState<string[]>(["dogs"]);
    return (
      <ManyPicker
        label="Tags"
        value={value}
        options={["dogs", "bikes", "refund"]}
        onChange={setValue}
        placeholder="none yet"
        open={takesNew}
      />
    );
  }
  const opener = () => screen.getByRole("combobox", { name: /^Tags:/ });

  test("are put on and taken off without closing the list", async () => {
    const hand = show(<Tags />);
    await hand.click(opener());
    await hand.keyboard("bik{Enter}");
    expect(screen.getByRole("option", { name: /bikes/ })).toBeVisible();
    await hand.clear(screen.getByRole("combobox", { name: "Tags" }));
    await hand.keyboard("dogs{Enter}{Escape}");
    expect(opener()).toHaveAccessibleName("Tags: bikes");
  });

  test("may be new, unless there is one that is written alike", async () => {
    const hand = show(<Tags />);
    await hand.click(opener());
    await hand.keyboard("DOGS");
    expect(screen.queryByRole("option", { name: /a new one/ })).toBeNull();
    await hand.clear(screen.getByRole("combobox", { name: "Tags" }));
    await hand.keyboard("sunshine");
    await hand.click(screen.getByRole("option", { name: "“sunshine”, a new one" }));
    await hand.keyboard("{Escape}");
    expect(opener()).toHaveAccessibleName("Tags: dogs, sunshine");
  });

  test("are only those of the list, where nothing new may be written", async () => {
    const hand = show(<Tags takesNew={false} />);
    await hand.click(opener());
    await hand.keyboard("sunshine");
    expect(screen.getByText("There is none like that.")).toBeVisible();
  });
});

test("a page that one comes back to stands where it was left; another begins at its top", async () => {
  const places: number[] = [];
  HTMLElement.prototype.scrollTo = function (_left?: unknown, top?: number) {
    this.scrollTop = top ?? 0;
    places.push(this.scrollTop);
  };
  function Page() {
    const scroll = useScrollKept();
    return (
      <div data-testid="page" {...scroll}>
        <Link to="/other">on</Link>
        <Outlet />
      </div>
    );
  }
  const router = createMemoryRouter([
    { path: "/", element: <Page />, children: [{ path: "other", element: "x" }] },
  ]);
  render(<RouterProvider router={router} />);
  const page = screen.getByTestId("page");
  page.scrollTop = 340;
  fireEvent.scroll(page);
  fireEvent.click(screen.getByRole("link", { name: "on" }));
  await screen.findByText("x");
  expect(page.scrollTop).toBe(0);
  await act(() => router.navigate(-1));
  await waitFor(() => expect(page.scrollTop).toBe(340));
  expect(places).toEqual([0, 0, 340]);
});

describe("the engine for patterns", () => {
  test("is not waited for where no pattern is", () => {
    const { result } = renderHook(() => usePatternEngine(false));
    expect(result.current.isReady).toBe(true);
    expect(result.current.patterns("a+", false)).toBeNull();
  });

  test("comes where one is, and is there at once the next time", async () => {
    const { result } = renderHook(() => usePatternEngine(true));
    expect(result.current.isReady).toBe(false);
    await waitFor(() => expect(result.current.isReady).toBe(true));
    expect(result.current.patterns("^boa+t$", true)?.("BOAAT")).toBe(true);
    expect(result.current.patterns("(", false)).toBeNull();
    expect(renderHook(() => usePatternEngine(true)).result.current.isReady).toBe(true);
  });
});
