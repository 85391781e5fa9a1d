import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, screen, within } from "@testing-library/react";
import { createRef } from "react";
import type { SendCheck } from "#core/checks/check";
import { show } from "../testing/show";
import { Margin } from "./margin";
import { SetAside } from "./draft/set-aside";
import type { AnswerHandle } from "./use-answer";

afterEach(cleanup);

const check = (severity: "stop" | "look", message: string) =>
  ({ code: "blank-empty", severity, message }) as SendCheck;
const margin = (checks: SendCheck[]) =>
  show(<Margin checks={checks} editor={null} page={createRef<HTMLDivElement>()} />);

window.matchMedia = (query) => ({ matches: true, media: query }) as MediaQueryList;

describe("the second look", () => {
  test("says that there is nothing to see to", () => {
    margin([]);
    expect(screen.getByText("Nothing to see to.")).toBeVisible();
    expect(screen.getByRole("status")).toHaveTextContent("Nothing to see to");
  });

  test("names what stops sending apart from what is worth a look, and counts what stops", () => {
    margin([
      check("stop", "Lane is empty."),
      check("look", "It promises a file."),
      check("stop", "No address."),
    ]);
    const notes = within(screen.getByRole("complementary", { name: "Second look" })).getAllByRole("button");
    expect(notes.map((note) => note.textContent)).toEqual([
      "Stops sendingLane is empty.",
      "Worth a lookIt promises a file.",
      "Stops sendingNo address.",
    ]);
    expect(screen.getByRole("status")).toHaveTextContent("2 stop sending");
  });

  test("counts what is worth a look where nothing stops", () => {
    margin([check("look", "It promises a file.")]);
    expect(screen.getByRole("status")).toHaveTextContent("1 worth a look");
  });
});

describe("words that a swap set aside", () => {
  const setSetAside = jest.fn<(words: string[]) => void>();
  const answer = (setAside: string[]) => ({ editor: null, setAside, setSetAside }) as unknown as AnswerHandle;

  test("are dropped one by one", async () => {
    const hand = show(<SetAside answer={answer(["in your cabin", "mine may bark"])} />);
    const first = screen.getByText("in your cabin").closest("li");
    if (!first) throw new Error("Words stand in a list");
    await hand.click(within(first).getByRole("button", { name: "drop" }));
    expect(setSetAside).toHaveBeenCalledWith(["mine may bark"]);
  });

  test("are nowhere where there are none", () => {
    show(<SetAside answer={answer([])} />);
    expect(screen.queryByRole("region", { name: "Set aside" })).not.toBeInTheDocument();
  });
});
