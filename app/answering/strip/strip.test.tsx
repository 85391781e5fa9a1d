import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, screen, within } from "@testing-library/react";
import { useRef, useState } from "react";
import type { StripReply } from "#server/strip/strip";
import { stripReply } from "../../testing/replies";
import { show } from "../../testing/show";
import { Strip } from "./strip";
import type { StripHandle } from "./use-strip";

afterEach(cleanup);

const dogs = stripReply("Dogs aboard", "Dogs like {$customer.first_name} are welcome.", {
  fit: 0.9,
  why: "“dog”, “lead”",
});
const lifts = stripReply("Lifts", "The lifts work.", { fit: 0.1, also: "Is there a lift?" });
const bikes = stripReply("Bicycles", "They stand on deck 3.", { fit: 0.01, why: "“deck”" });

const onLook = jest.fn<(looking: boolean, at?: number) => void>();
const onTake = jest.fn<(reply: StripReply, add: boolean) => void>();
const onLeave = jest.fn<() => void>();
beforeEach(() => {
  for (const one of [onLook, onTake, onLeave]) one.mockClear();
});

function Shelf({ taken = [], ...changes }: Partial<StripHandle> & { taken?: string[] }) {
  const [query, setQuery] = useState("");
  const [current, setCurrent] = useState(0);
  const search = useRef<HTMLInputElement>(null);
  const replies = changes.replies ?? [dogs, lifts, bikes];
  const strip: StripHandle = {
    query,
    setQuery,
    replies,
    current,
    setCurrent,
    chosen: replies[current] ?? null,
    rival: null,
    total: 68,
    searching: false,
    problem: null,
    nothingFits: false,
    unranked: false,
    askForMore: () => undefined,
    next: () => undefined,
    alsoOf: () => null,
    ...changes,
  };
  return (
    <Strip
      began={false}
      strip={strip}
      search={search}
      taken={new Set(taken)}
      onLook={onLook}
      onTake={onTake}
      onLeave={onLeave}
      keysGoTo="shelf"
      onSide={() => undefined}
    />
  );
}

const field = () => screen.getByRole("combobox", { name: "Find on the shelf" });
const chosen = () => screen.getByRole("option", { selected: true });

describe("the shelf", () => {
  test("has the hand in its field from the first moment, and says what fits in words", () => {
    show(<Shelf />);
    expect(document.activeElement).toBe(field());
    expect(screen.getByRole("status")).toHaveTextContent("68 replies, what fits the message best first.");
    const [first, second, third] = screen.getAllByRole("option");
    expect(first).toHaveTextContent("close fit: “dog”, “lead”");
    expect(first).toHaveTextContent("Dogs like … are welcome.");
    expect(second).toHaveTextContent("maybe: also asks “Is there a lift?”");
    expect(third).toHaveTextContent("B“deck”");
  });

  test("is gone along with the arrow keys, not past its ends", async () => {
    const hand = show(<Shelf />);
    await hand.keyboard("{ArrowRight}{ArrowRight}{ArrowRight}");
    expect(chosen()).toHaveTextContent("Bicycles");
    expect(onLook).toHaveBeenLastCalledWith(true, 2);
    expect(field()).toHaveAttribute("aria-activedescendant", chosen().id);
    await hand.keyboard("{ArrowLeft}{ArrowLeft}{ArrowLeft}");
    expect(chosen()).toHaveTextContent("Dogs aboard");
  });

  test("Enter takes what is chosen, Shift Enter adds it, two clicks take what is under them", async () => {
    const hand = show(<Shelf />);
    await hand.keyboard("{Enter}{Shift>}{Enter}{/Shift}");
    await hand.dblClick(screen.getByRole("option", { name: /Bicycles/ }));
    expect(onTake.mock.calls.map(([reply, how]) => [reply.key, how])).toEqual([
      ["Dogs aboard", false],
      ["Dogs aboard", true],
      ["Bicycles", false],
    ]);
  });

  test("what answers a second question goes beside the answer that is there", async () => {
    const hand = show(<Shelf taken={["Dogs aboard"]} />);
    expect(screen.getByRole("option", { name: /Dogs aboard/ })).toHaveTextContent("in your answer");
    await hand.keyboard("{ArrowRight}{Enter}");
    expect(onTake).toHaveBeenCalledWith(lifts, false);
  });

  test("says of a translation that it is behind its original", () => {
    show(<Shelf replies={[{ ...dogs, stale: true }]} />);
    expect(chosen()).toHaveTextContent("behind its original");
  });

  test("Escape empties the field, then leaves for the words", async () => {
    const hand = show(<Shelf />);
    await hand.keyboard("deck");
    expect(screen.getByRole("status")).toHaveTextContent("3 replies found, the nearest first.");
    await hand.keyboard("{Escape}");
    expect(field()).toHaveValue("");
    expect(onLeave).not.toHaveBeenCalled();
    await hand.keyboard("{Escape}");
    expect(onLeave).toHaveBeenCalledTimes(1);
  });

  test("says that nothing seems to fit, and Enter then leads to one’s own words", async () => {
    const hand = show(<Shelf nothingFits chosen={null} />);
    expect(screen.getByRole("status")).toHaveTextContent(/^Nothing on the shelf seems to fit/);
    await hand.keyboard("{Enter}");
    expect(onLeave).toHaveBeenCalledTimes(1);
    expect(onTake).not.toHaveBeenCalled();
  });

  test("says that nothing is like what was typed, with the way to write it", async () => {
    const hand = show(<Shelf replies={[]} chosen={null} />);
    const list = screen.getByRole("listbox", { name: "Replies" });
    expect(list).toHaveTextContent("Nothing on the shelf is like that.");
    await hand.click(within(list).getByRole("button", { name: "Write one and keep it" }));
    expect(onLeave).toHaveBeenCalledTimes(1);
  });

  test("says that it is in order of use, or what went wrong", () => {
    show(<Shelf unranked />);
    expect(screen.getByRole("status")).toHaveTextContent("by use: what fits cannot be told just now");
    cleanup();
    show(<Shelf problem="The shelf could not be searched: away" />);
    expect(screen.getByRole("status")).toHaveTextContent("The shelf could not be searched: away");
  });
});
