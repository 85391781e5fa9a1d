import { afterEach, expect, test } from "@jest/globals";
import { cleanup, screen } from "@testing-library/react";
import type { VersionRow } from "#server/replies/history";
import { show } from "../../testing/show";
import { VersionsPanel } from "./versions-panel";

afterEach(cleanup);

const row = (changes: Partial<VersionRow>): VersionRow => ({
  id: 1,
  number: 1,
  state: "superseded",
  author: "Bram Osei",
  mine: false,
  at: "2026-11-01T10:00:00.000Z",
  remark: null,
  decidedBy: "Tadeo Rioja",
  decidedAt: "2026-11-01T10:00:00.000Z",
  decision: null,
  languages: ["en"],
  letters: 0,
  ...changes,
});

test("what became of a reply stands between its versions, with who did it; what is still written comes first", () => {
  show(
    <VersionsPanel
      replyKey="dogs"
      versions={[
        row({ id: 4, number: null, state: "draft", mine: true, decidedBy: null, decidedAt: null }),
        row({
          id: 3,
          number: 3,
          state: "sent back",
          decision: "Say which deck.",
          decidedAt: "2026-11-04T10:00:00.000Z",
        }),
        row({
          id: 2,
          number: 2,
          state: "published",
          author: "Tadeo Rioja",
          decidedAt: "2026-11-03T10:00:00.000Z",
        }),
        row({ id: 1, remark: "For the summer" }),
      ]}
      events={[
        { id: 8, words: "moved to On board", person: "Tadeo Rioja", at: "2026-11-02T10:00:00.000Z" },
        { id: 7, words: "retired", person: null, at: "2026-11-05T10:00:00.000Z" },
      ]}
    />,
  );
  const said = screen.getAllByRole("listitem").map((item) => item.textContent);
  expect(said).toEqual([
    expect.stringMatching(/^Not published yetyour working copy/),
    expect.stringMatching(/^Somebody who has left: retired/),
    expect.stringMatching(/^Version 3sent back by Tadeo Rioja.*“Say which deck\.”$/),
    expect.stringMatching(/^Version 2on the shelf/),
    expect.stringMatching(/^Tadeo Rioja: moved to On board/),
    expect.stringMatching(/^Version 1replaced, published by Tadeo Rioja.*“For the summer”$/),
  ]);
  // Who publishes their own needs not be named twice.
  expect(said[3]).not.toContain("published by");
  expect(screen.getByRole("link", { name: "Version 2" })).toHaveAttribute(
    "href",
    "/replies/dogs/history?after=2",
  );
});
