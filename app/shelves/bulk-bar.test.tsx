import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import type { ShelfRow } from "#server/replies/shelves";
import { showAtDesk } from "../testing/desk";
import { choose } from "../testing/show";
import { BulkBar } from "./bulk-bar";
import type { Selection } from "./selection";

afterEach(cleanup);

const shelf = (key: string, mayPublish: boolean): ShelfRow => ({
  key,
  name: `Shelf ${key}`,
  mark: "S",
  audience: "everyone",
  teams: [],
  replies: 1,
  mine: false,
  mayPublish,
  usable: true,
});

function Page({ selected }: { selected: string[] }) {
  const [selection, setSelection] = useState<Selection>({ all: false, filter: "", keys: new Set(selected) });
  return (
    <BulkBar
      selection={selection}
      onSelect={setSelection}
      total={1200}
      shown={2}
      filter="tag=dog"
      shelves={[shelf("all", true), shelf("legal", false)]}
      owners={[{ id: 4, name: "Bram Osei" }]}
      tags={["dog"]}
    />
  );
}
const bar = () => screen.queryByRole("region", { name: "Selected replies" });
const confirmButton = () =>
  screen.queryByRole("group", { name: "Confirm the change" })?.querySelector<HTMLElement>(".filled-link") ??
  null;
const bulk = (answer: object) => ({
  "/shelves/bulk": () => answer,
  "/shelves/bulk/7/undo": () => ({ undone: 1, stay: 1 }),
});
const done = { id: 7, changed: 2, refused: 0, words: "2 replies moved" };

describe("a change in bulk", () => {
  test("is of what is selected, said first, done when confirmed, and taken back from its notice", async () => {
    const { hand, asked } = showAtDesk(<Page selected={["a", "b"]} />, bulk(done));
    expect(await screen.findByText("2 selected")).toBeVisible();
    const move = screen.getByRole("combobox", { name: "Move to" });
    await choose(hand, move, "Shelf all");
    expect(asked).toEqual([]);
    expect(confirmButton()).toHaveTextContent("Move 2 replies to Shelf all");
    await hand.keyboard("{Enter}");
    expect(await screen.findByText("2 replies moved.")).toBeVisible();
    expect(asked).toEqual([
      { to: "/shelves/bulk", body: { keys: ["a", "b"], change: { what: "move", shelf: "all" } } },
    ]);
    expect(bar()).not.toBeInTheDocument();
    await hand.keyboard("{Alt>}z{/Alt}");
    expect(
      await screen.findByText("1 reply is as before. 1 was changed since and not touched."),
    ).toBeVisible();
  });

  test("offers only shelves that are one’s to put on", async () => {
    const { hand } = showAtDesk(<Page selected={["a"]} />);
    (await screen.findByRole("combobox", { name: "Move to" })).focus();
    await hand.keyboard("{Enter}");
    expect((await screen.findAllByRole("option")).map((one) => one.textContent)).toEqual(["Shelf all"]);
  });

  test("is of everything that was found, once that is said", async () => {
    const { hand, asked } = showAtDesk(<Page selected={["a", "b"]} />, bulk(done));
    await hand.click(await screen.findByRole("button", { name: "all 1,200 found" }));
    expect(screen.getByText("1,200 selected")).toBeVisible();
    const tag = screen.getByLabelText("Tag");
    await hand.type(tag, " summer {Enter}");
    await hand.click(screen.getByRole("button", { name: "Add the tag “summer” to 1,200 replies" }));
    await waitFor(() =>
      expect(asked.map(({ body }) => body)).toEqual([
        { filter: "tag=dog", change: { what: "tag", tag: "summer" } },
      ]),
    );
  });

  test("that changed nothing, or was refused, says so and keeps the selection", async () => {
    const nothing = { id: null, changed: 0, refused: 2, words: "" };
    const { hand } = showAtDesk(<Page selected={["a", "b"]} />, bulk(nothing));
    await hand.click(await screen.findByRole("button", { name: "Retire" }));
    await hand.click(screen.getByRole("button", { name: "Retire 2 replies" }));
    expect(await screen.findByText("Nothing to change. 2 are not yours to change.")).toBeVisible();
    expect(bar()).toBeVisible();
    cleanup();
    const refused = showAtDesk(
      <Page selected={["a"]} />,
      bulk({ problem: "At most 10,000 at once", status: 400 }),
    );
    await refused.hand.click(await screen.findByRole("button", { name: "Restore" }));
    await refused.hand.click(screen.getByRole("button", { name: "Restore 1 reply" }));
    expect(await screen.findByText("At most 10,000 at once")).toBeVisible();
    expect(screen.getByText("1 selected")).toBeVisible();
  });

  test("is not made where it is cancelled, by key or button: the replies stay selected", async () => {
    const { hand, asked } = showAtDesk(<Page selected={["a", "b"]} />, bulk(done));
    await hand.click(await screen.findByRole("button", { name: "Retire" }));
    expect(confirmButton()).toHaveFocus();
    await hand.keyboard("{Escape}");
    expect(confirmButton()).toBeNull();
    await hand.click(screen.getByRole("button", { name: "Retire" }));
    await hand.click(screen.getByRole("button", { name: "Cancel" }));
    expect(confirmButton()).toBeNull();
    expect(screen.getByText("2 selected")).toBeVisible();
    expect(asked).toEqual([]);
  });

  test("gives replies to somebody, or to nobody", async () => {
    const { hand, asked } = showAtDesk(<Page selected={["a"]} />, bulk({ ...done, changed: 0 }));
    for (const name of ["Bram Osei", "nobody"]) {
      const give = await screen.findByRole("combobox", { name: "Give to" });
      await waitFor(() => expect(give).toBeEnabled());
      await choose(hand, give, name);
      await hand.click(screen.getByRole("button", { name: `Give 1 reply to ${name}` }));
    }
    await waitFor(() => expect(asked).toHaveLength(2));
    expect(asked.map(({ body }) => body)).toMatchObject([
      { change: { what: "owner", owner: 4 } },
      { change: { what: "owner", owner: null } },
    ]);
  });

  test("sets when they are to be looked at again", async () => {
    const { hand, asked } = showAtDesk(<Page selected={["a"]} />, bulk(done));
    const set = await screen.findByRole("button", { name: "set" });
    expect(set).toBeDisabled();
    await hand.type(await screen.findByRole("textbox", { name: "Review by" }), "1.3.2027");
    await hand.click(set);
    await hand.click(screen.getByRole("button", { name: "Have 1 reply reviewed by 1 March 2027" }));
    await waitFor(() =>
      expect(asked[0]?.body).toEqual({ keys: ["a"], change: { what: "review", by: "2027-03-01" } }),
    );
  });
});
