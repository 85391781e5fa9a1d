import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, screen, waitFor } from "@testing-library/react";
import type { Blank } from "#core/tokens/blanks";
import { choose, show } from "../../testing/show";
import { BlankForm } from "./blank-form";

afterEach(cleanup);

const usual = { required: true, printed: true };
const onChange = jest.fn<(blank: Blank) => void>();
const onRemove = jest.fn<() => void>();
beforeEach(() => {
  onChange.mockClear();
  onRemove.mockClear();
});

const form = (blank: Blank, used = false) =>
  show(<BlankForm name="deck" blank={blank} used={used} onChange={onChange} onRemove={onRemove} />);
const text: Blank = { ...usual, kind: "text", label: "which deck" };

describe("a blank", () => {
  test("is asked by its label, hinted at, and begins with what stands for it", async () => {
    const hand = form(text);
    await hand.type(screen.getByLabelText("Hint"), "as on the ticket");
    await hand.click(screen.getByLabelText("Begins with"));
    await hand.paste("{$booking.from}");
    expect(onChange.mock.lastCall).toEqual([
      { ...text, hint: "as on the ticket", default: "{$booking.from}" },
    ]);
    await hand.clear(screen.getByLabelText("Hint"));
    expect(onChange.mock.lastCall).toEqual([{ ...text, default: "{$booking.from}" }]);
  });

  test("that is not printed says what it is for", async () => {
    const hand = form(text);
    expect(screen.queryByText("It only steers passages.")).not.toBeInTheDocument();
    await hand.click(screen.getByRole("checkbox", { name: "printed in the letter" }));
    expect(screen.getByText("It only steers passages.")).toBeVisible();
    await hand.click(screen.getByRole("checkbox", { name: "must be filled" }));
    expect(onChange.mock.lastCall).toEqual([{ ...text, printed: false, required: false }]);
  });

  test("that cannot be kept yet says why, and stays as it was", async () => {
    const hand = form({ ...usual, kind: "money", label: "fare", currency: "EUR" });
    const currency = screen.getByLabelText("Currency");
    await hand.type(currency, "s");
    expect(await screen.findByRole("alert")).toHaveTextContent("Three letters, as in EUR");
    expect(currency).toHaveAttribute("aria-invalid", "true");
    expect(onChange).not.toHaveBeenCalled();
    await hand.clear(currency);
    await hand.type(currency, "SEK");
    await waitFor(() => expect(screen.queryByRole("alert")).not.toBeInTheDocument());
    expect(onChange.mock.lastCall?.[0]).toMatchObject({ currency: "SEK" });
  });

  test("is dropped, unless the words need it", async () => {
    const hand = form(text);
    await hand.click(screen.getByRole("button", { name: "remove the blank" }));
    expect(onRemove).toHaveBeenCalledTimes(1);
    cleanup();
    form(text, true);
    expect(screen.getByRole("button", { name: /^in use/ })).toBeDisabled();
  });
});

describe("the kind", () => {
  test("keeps what every kind has, and forgets what the last one alone had", async () => {
    const hand = form({ ...text, max: 40, hint: "short" });
    await choose(hand, screen.getByRole("combobox", { name: "Kind" }), "number");
    expect(onChange.mock.lastCall).toEqual([
      { ...usual, kind: "number", label: "which deck", hint: "short" },
    ]);
    await hand.type(screen.getByLabelText("At least"), "2");
    await hand.type(screen.getByLabelText("In steps of"), "0.5");
    expect(onChange.mock.lastCall?.[0]).toMatchObject({ min: 2, step: 0.5 });
  });

  test("choice begins with two, and takes a line each, once each", async () => {
    const hand = form(text);
    await choose(hand, screen.getByRole("combobox", { name: "Kind" }), "choice");
    expect(onChange.mock.lastCall?.[0]).toMatchObject({ kind: "choice", options: ["yes", "no"] });
    const choices = screen.getByLabelText("Choices, a line each");
    await hand.clear(choices);
    expect(await screen.findByRole("alert")).toHaveTextContent("Write a choice at least");
    await hand.type(choices, "upper{Enter} lower {Enter}{Enter}upper");
    expect(onChange.mock.lastCall?.[0]).toMatchObject({ options: ["upper", "lower"] });
    await hand.click(screen.getByRole("checkbox", { name: "several may be chosen" }));
    await hand.type(screen.getByLabelText("Joined by"), " or ");
    expect(onChange.mock.lastCall?.[0]).toMatchObject({ many: true, join: " or " });
  });

  test("date has a first and a last day", async () => {
    const hand = form({ ...usual, kind: "date", label: "day" });
    await hand.type(await screen.findByRole("textbox", { name: "From" }), "1.3.2027");
    expect(onChange.mock.lastCall?.[0]).toMatchObject({ min: "2027-03-01" });
  });
});
