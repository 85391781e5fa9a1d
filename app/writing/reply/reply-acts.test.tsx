import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, screen, waitFor } from "@testing-library/react";
import type { OpenReply } from "#server/writing/open";
import { showAtDesk } from "../../testing/desk";
import { ReplyActs } from "./reply-acts";

afterEach(cleanup);

const shelf = (key: string, name: string, mayPublish = true) => ({ key, name, mayPublish });
const reply = (changes: object = {}) =>
  ({
    key: "dogs",
    state: "shelved",
    shelf: shelf("board", "On board"),
    mayPublish: true,
    shelves: [shelf("board", "On board"), shelf("tickets", "Tickets"), shelf("legal", "Legal", false)],
    ...changes,
  }) as unknown as OpenReply;
const answers = {
  "/shelves/bulk": () => ({ id: 7, changed: 1, refused: 0, words: "Done: 1 reply" }),
  "/shelves/bulk/7/undo": () => ({ undone: 1, stay: 0 }),
};

async function opened(changes: object = {}) {
  const desk = showAtDesk(<ReplyActs open={reply(changes)} />, answers);
  const opener = () => screen.getByRole("button", { name: "More for this reply" });
  await waitFor(() => expect(opener()).toBeEnabled());
  await desk.hand.click(opener());
  return desk;
}
const items = () => screen.getAllByRole("menuitem").map((item) => item.textContent);

describe("a reply as a whole", () => {
  test("is retired, and brought back by undo", async () => {
    const { hand, asked } = await opened();
    await hand.click(screen.getByRole("menuitem", { name: "Retire" }));
    expect(await screen.findByText("Done: 1 reply.")).toBeVisible();
    await hand.keyboard("{Alt>}z{/Alt}");
    expect(await screen.findByText("1 reply is as before.")).toBeVisible();
    expect(asked).toEqual([
      { to: "/shelves/bulk", body: { keys: ["dogs"], change: { what: "retire" } } },
      { to: "/shelves/bulk/7/undo", body: {} },
    ]);
  });

  test("is moved to another shelf of one's own, by keyboard", async () => {
    const { hand, asked } = await opened();
    expect(items()).toEqual(["Copy", "Move to", "Retire"]);
    await hand.keyboard("{ArrowDown}{ArrowDown}{ArrowRight}");
    expect(items()).not.toContain("Legal");
    await hand.keyboard("{Enter}");
    expect(await screen.findByText("Done: 1 reply.")).toBeVisible();
    expect(asked[0]?.body).toEqual({ keys: ["dogs"], change: { what: "move", shelf: "tickets" } });
  });

  test("that is retired is restored", async () => {
    await opened({ state: "retired" });
    expect(items()).toContain("Restore");
    expect(items()).not.toContain("Retire");
  });

  test("may be copied by everybody, and no more by who does not publish", async () => {
    await opened({ mayPublish: false });
    expect(items()).toEqual(["Copy"]);
    expect(screen.getByRole("menuitem", { name: "Copy" })).toHaveAttribute("href", "/replies/new?from=dogs");
  });
});
