import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useRef, useState } from "react";
import { useFindKeys } from "./use-find-keys";

afterEach(cleanup);

/** A search whose list follows when the test says so. */
function Search({ done }: { done: string[] }) {
  const [searched, setSearched] = useState("");
  const [typed, setTyped] = useState("");
  const field = useRef<HTMLInputElement>(null);
  useFindKeys(field, {
    searched,
    toList: () => done.push(`list of “${searched}”`),
    open: () => done.push(`opened of “${searched}”`),
    clear: () => {
      if (field.current) field.current.value = "";
      setTyped("");
      setSearched("");
    },
  });
  return (
    <>
      <input ref={field} aria-label="Find" onChange={(event) => setTyped(event.target.value)} />
      <button type="button" onClick={() => setSearched(typed)}>
        the list comes
      </button>
    </>
  );
}

function show() {
  const done: string[] = [];
  render(<Search done={done} />);
  return {
    done,
    hand: userEvent.setup(),
    field: screen.getByRole<HTMLInputElement>("textbox", { name: "Find" }),
  };
}

describe("the keys of a search", () => {
  test("act on what was found for the words that are there, once it is", async () => {
    const { done, hand, field } = show();
    await hand.type(field, "dogs{Enter}");
    expect(done).toEqual([]);
    await hand.click(screen.getByRole("button", { name: "the list comes" }));
    expect(done).toEqual(["opened of “dogs”"]);
    await hand.type(field, "{ArrowDown}");
    expect(done).toEqual(["opened of “dogs”", "list of “dogs”"]);
  });

  test("go back step by step: the words first, then to the list", async () => {
    const { done, hand, field } = show();
    await hand.type(field, "dogs{Enter}{Escape}");
    expect(field.value).toBe("");
    await hand.click(screen.getByRole("button", { name: "the list comes" }));
    // What was waited for is not done any more.
    expect(done).toEqual([]);
    await hand.type(field, "{Escape}");
    expect(done).toEqual(["list of “”"]);
  });

  test("leave other fields alone", async () => {
    const { done, hand } = show();
    await hand.keyboard("{ArrowDown}{Enter}{Escape}");
    expect(done).toEqual([]);
  });
});
