import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, screen, waitFor } from "@testing-library/react";
import { showAtDesk } from "../../testing/desk";
import { choose } from "../../testing/show";
import { ByRule } from "../inquiry/by-rule";
import RuleDialog from "./rule-dialog";
import TagsDialog from "./tags-dialog";

afterEach(cleanup);
beforeEach(() => {
  const known: Record<string, object> = {
    "/standing/names": { rules: [{ id: 4, name: "Bicycles" }] },
    "/tags": { tags: ["storm", "urgent"] },
  };
  globalThis.fetch = jest.fn((address: RequestInfo | URL) => {
    const path = typeof address === "string" ? (address.split("?")[0] ?? "") : "";
    return Promise.resolve({ ok: true, json: () => Promise.resolve(known[path] ?? null) } as Response);
  });
});
const button = (name: string | RegExp) => screen.getByRole("button", { name });

describe("which rule should have answered a message", () => {
  const shown = (answers: Parameters<typeof showAtDesk>[1] = {}) => {
    const onClose = jest.fn();
    return { onClose, ...showAtDesk(<RuleDialog message={{ id: 31 }} onClose={onClose} />, answers) };
  };

  test("is said once a rule is chosen, and of that message", async () => {
    const { hand, asked, onClose } = shown();
    expect(button("Say it")).toBeDisabled();
    await choose(hand, screen.getByRole("combobox", { name: "The rule" }), "Bicycles");
    await hand.click(button("Say it"));
    await waitFor(() => expect(onClose).toHaveBeenCalled());
    expect(asked).toEqual([{ to: "/standing/4/mark", body: { message: 31, should: true } }]);
    expect(await screen.findByText("The rule is tried on that from now on")).toBeInTheDocument();
  });

  test("stays open where it is refused, and says why", async () => {
    const { hand, onClose } = shown({
      "/standing/4/mark": () => {
        throw new Error("away");
      },
    });
    await choose(hand, screen.getByRole("combobox", { name: "The rule" }), "Bicycles");
    await hand.click(button("Say it"));
    expect(await screen.findByRole("alert")).toHaveTextContent(/\w/);
    expect(onClose).not.toHaveBeenCalled();
  });
});

describe("a letter that a rule sent", () => {
  const rule = { id: 4, name: "Bicycles", message: 31, should: null };

  test("says which, and that it should not have is said of what it answered", async () => {
    const { hand, asked } = showAtDesk(<ByRule rule={rule} />);
    expect(screen.getByText(/“Bicycles”/)).toBeInTheDocument();
    await hand.click(button(/should not/));
    await waitFor(() =>
      expect(asked).toEqual([{ to: "/standing/4/mark", body: { message: 31, should: false } }]),
    );
  });

  test("what was said of it can be taken back", async () => {
    const { hand, asked } = showAtDesk(<ByRule rule={{ ...rule, should: false }} />);
    await hand.click(button(/take that back/i));
    await waitFor(() =>
      expect(asked).toEqual([{ to: "/standing/4/mark", body: { message: 31, should: null } }]),
    );
  });
});

test("a case gets tags that others have, and new ones; what it has already is no change", async () => {
  const onClose = jest.fn();
  const { hand, asked } = showAtDesk(
    <TagsDialog number={7} label="SF-7" tags={["late"]} onClose={onClose} />,
    { "/cases/7/change": () => ({ change: 1, number: 7, words: "tagged SF-7: late, storm" }) },
  );
  expect(button("Set the tags")).toBeDisabled();
  await hand.click(screen.getByRole("combobox", { name: "Tags: late" }));
  expect(await screen.findByRole("option", { name: "storm" })).toBeInTheDocument();
  await hand.keyboard("storm{Enter}{Control>}a{/Control}quay");
  await screen.findByRole("option", { name: /quay/ });
  await hand.keyboard("{Enter}");
  await hand.keyboard("{Escape}");
  await hand.click(button("Set the tags"));
  await waitFor(() => expect(onClose).toHaveBeenCalled());
  expect(asked).toEqual([{ to: "/cases/7/change", body: { what: "tags", tags: ["late", "storm", "quay"] } }]);
  expect(await screen.findByText("Tagged SF-7: late, storm.")).toBeInTheDocument();
});
