import { expect, jest, test } from "@jest/globals";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { TokenMenu } from "./token-menu";
import type { ValueRow } from "./token-list";

const row = (kind: ValueRow["kind"], name: string, label: string, group: string): ValueRow => ({
  kind,
  name,
  label,
  group,
  sample: name === "customer.first_name" ? "Ines" : null,
  uncertain: name === "booking.reference" ? "not every case has a booking" : null,
});
const rows = [
  row("blank", "new_time", "new time", "Blanks of this reply"),
  row("token", "customer.first_name", "first name", "Customer"),
  row("token", "booking.reference", "booking reference", "Booking"),
];

function open(onNewBlank: ((words: string) => void) | null = null) {
  const said = { picked: jest.fn(), closed: jest.fn() };
  render(
    <TokenMenu
      rows={rows}
      at={{ left: 10, top: 10 }}
      onPick={(one) => said.picked(one.name)}
      onNewBlank={onNewBlank}
      onClose={said.closed}
    />,
  );
  return said;
}

test("what is typed finds the nearest value; Enter takes it, and so does Tab", async () => {
  const { picked } = open();
  const hand = userEvent.setup();
  expect(screen.getByRole("combobox", { name: "Find a value" })).toHaveFocus();
  await hand.keyboard("refer{Enter}");
  expect(picked.mock.calls).toEqual([["booking.reference"]]);
  await hand.clear(screen.getByRole("combobox"));
  await hand.keyboard("first{Tab}");
  expect(picked.mock.calls.at(-1)).toEqual(["customer.first_name"]);
});

test("with nothing typed, values stand in their groups, and arrows go along them", async () => {
  const { picked } = open();
  expect(screen.getAllByRole("group").map((one) => one.getAttribute("aria-labelledby")).length).toBe(3);
  expect(screen.getAllByRole("option").map((one) => one.getAttribute("aria-selected"))).toEqual([
    "true",
    "false",
    "false",
  ]);
  await userEvent.keyboard("{ArrowDown}{ArrowDown}{Enter}");
  expect(picked.mock.calls).toEqual([["booking.reference"]]);
});

test("each value says what it is here, or why it may be missing", () => {
  open();
  expect(screen.getByRole("option", { name: /^first name/ })).toHaveTextContent("first nameInes");
  expect(screen.getByRole("option", { name: /^booking reference/ })).toHaveTextContent(
    "nothing herenot every case has a booking",
  );
});

test("words that no value has become a new blank, where one may be made", async () => {
  const made = jest.fn();
  open(made);
  await userEvent.keyboard("gate number");
  await userEvent.click(screen.getByRole("option", { name: /a new blank “gate number”/ }));
  expect(made.mock.calls).toEqual([["gate number"]]);
});

test("where none may be made, that nothing is found is said, and Enter does nothing", async () => {
  const { picked, closed } = open();
  await userEvent.keyboard("gate number{Enter}");
  expect(screen.getByText("There is no such value.")).toBeVisible();
  expect(picked).not.toHaveBeenCalled();
  expect(closed).not.toHaveBeenCalled();
});

test("Escape leaves the brace in the text only where nothing was searched for", async () => {
  const { closed } = open();
  await userEvent.keyboard("{Escape}");
  expect(closed.mock.calls).toEqual([[true]]);
  await userEvent.keyboard("fir{Escape}");
  expect(closed.mock.calls.at(-1)).toEqual([false]);
});
