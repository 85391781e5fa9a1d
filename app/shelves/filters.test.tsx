import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, screen, waitFor, within } from "@testing-library/react";
import { useLocation } from "react-router";
import type { ReplyFilter } from "#server/replies/filter";
import { showAtDesk } from "../testing/desk";
import { choose } from "../testing/show";
import { Filters } from "./filters";

afterEach(cleanup);

const known = { tags: ["dog", "lift"], topics: ["refund"], languages: ["en", "de"] };
const owners = [{ id: 4, name: "Bram Osei" }];

/** A filter with nothing set but what an address says. */
function filterOf(search: string): ReplyFilter {
  const none: ReplyFilter = {
    q: "",
    shelf: "",
    part: null,
    state: null,
    tag: "",
    channel: null,
    language: "",
    topic: "",
    owner: null,
    review: null,
    season: null,
    use: null,
    sort: null,
    down: false,
    page: 1,
  };
  return { ...none, ...Object.fromEntries(new URLSearchParams(search)) };
}

function Page() {
  const { pathname, search } = useLocation();
  return (
    <>
      <Filters
        filter={filterOf(search)}
        known={known}
        owners={owners}
        columns={["tags", "uses"]}
        first={null}
      />
      <output aria-label="Address">{pathname + search}</output>
    </>
  );
}
const address = () => screen.getByLabelText("Address").textContent;
const open = async (at = "/") => {
  const shown = showAtDesk(<Page />, {}, at);
  await screen.findByRole("search");
  return shown;
};

describe("the filters of the shelves", () => {
  test("words are searched for once the hand rests, or at once with Enter", async () => {
    const { hand } = await open();
    await hand.keyboard("/");
    const field = screen.getByRole("searchbox", { name: "Find a reply" });
    expect(field).toHaveFocus();
    await hand.keyboard("dog on deck");
    await waitFor(() => expect(address()).toBe("/shelves?q=dog+on+deck"));
    expect(screen.getByRole("searchbox", { name: "Find a reply" })).toHaveValue("dog on deck");
    await hand.clear(screen.getByRole("searchbox", { name: "Find a reply" }));
    await hand.keyboard("{Enter}");
    await waitFor(() => expect(address()).toBe("/shelves"));
  });

  test("combine in the address, each to be taken off by itself", async () => {
    const { hand } = await open();
    await choose(hand, screen.getByRole("combobox", { name: "Tag" }), "dog");
    await choose(hand, screen.getByRole("combobox", { name: "State" }), "retired");
    expect(address()).toBe("/shelves?tag=dog&state=retired");
    expect(screen.getByRole("combobox", { name: "Tag" })).toHaveTextContent("dog");
    await hand.click(screen.getByRole("link", { name: "tag: dog" }));
    expect(address()).toBe("/shelves?state=retired");
    await choose(hand, screen.getByRole("combobox", { name: "State" }), "not retired");
    expect(address()).toBe("/shelves");
    expect(screen.queryByRole("link", { name: "clear all" })).not.toBeInTheDocument();
  });

  test("those that are wanted more seldom stand behind “more”", async () => {
    const { hand } = await open("/?shelf=desk&part=answer");
    await hand.click(screen.getByRole("button", { name: "More filters" }));
    const more = within(await screen.findByRole("dialog", { name: "More filters" }));
    await choose(hand, more.getByRole("combobox", { name: "Owner" }), "Bram Osei");
    expect(address()).toBe("/shelves?shelf=desk&part=answer&owner=4");
    await hand.keyboard("{Escape}");
    await hand.click(screen.getByRole("link", { name: "clear all" }));
    expect(address()).toBe("/shelves?shelf=desk");
  });
});

describe("the columns", () => {
  test("are chosen, and what the server refuses is said", async () => {
    const { hand, asked } = await open();
    await hand.click(screen.getByRole("button", { name: /^columns/ }));
    const columns = await screen.findByRole("group", { name: "Columns" });
    const boxes = within(columns).getAllByRole("checkbox");
    expect(boxes.filter((box) => box.getAttribute("aria-checked") === "true")).toHaveLength(2);
    await hand.click(within(columns).getByRole("checkbox", { name: "tags" }));
    await waitFor(() => expect(asked).toEqual([{ to: "/shelves/columns", body: { columns: ["uses"] } }]));
  });
});
