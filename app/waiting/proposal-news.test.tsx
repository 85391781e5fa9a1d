import { afterEach, expect, test } from "@jest/globals";
import { cleanup, screen, within } from "@testing-library/react";
import { show } from "../testing/show";
import { ProposalNews } from "./proposal-news";

afterEach(cleanup);

const none = { toCheck: 0, waiting: 0, back: [], published: [] };
const decided = { key: "dogs", title: "Dogs aboard", decision: "Say which deck.", decidedBy: "Tadeo Rioja" };

test("an author reads what came back and why, what waits and what was published", () => {
  show(
    <ProposalNews
      news={{ ...none, waiting: 1, back: [decided], published: [{ ...decided, title: "Lifts" }] }}
    />,
  );
  const news = screen.getByRole("region", { name: "Proposals" });
  expect(news).toHaveTextContent("Sent back: Dogs aboard. Tadeo Rioja: “Say which deck.”");
  expect(within(news).getByRole("link", { name: "Dogs aboard" })).toHaveAttribute("href", "/replies/dogs");
  expect(
    within(news).getByRole("link", { name: "1 proposal of yours waits to be checked; published: “Lifts”" }),
  ).toBeVisible();
});

test("a curator reads how many wait", () => {
  show(<ProposalNews news={{ ...none, toCheck: 2 }} />);
  expect(screen.getByRole("link", { name: "2 proposals wait to be checked" })).toHaveAttribute(
    "href",
    "/shelves/proposals",
  );
});

test("nothing is said where there is nothing to say", () => {
  show(<ProposalNews news={none} />);
  expect(screen.queryByRole("region")).not.toBeInTheDocument();
});
