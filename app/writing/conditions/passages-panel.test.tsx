import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { ferryDetails } from "../../../demo/details";
import { cleanup, screen } from "@testing-library/react";
import { useEffect, useState } from "react";
import { catalogue } from "#core/tokens/catalogue";
import type { WriterFinding } from "#core/checks/written";
import type { Content } from "#server/replies/content";
import { choose, show } from "../../testing/show";
import { freePassage } from "./new-passage";
import { PassagesPanel } from "./passages-panel";

afterEach(cleanup);

const lane = { kind: "number" as const, label: "lane", required: true, printed: true };
const begin: Content = {
  title: "Cars",
  useTemplateSubject: false,
  blanks: { lane },
  passages: {
    p1: { when: { value: "booking.vehicle", is: "present" } },
    p2: { when: { value: "blank.lane", is: "more", to: 3 } },
  },
  variants: [],
  files: [],
  pictures: [],
};
const findings: WriterFinding[] = [
  {
    severity: "wrong",
    code: "passage-unused",
    message: "It is used nowhere",
    at: { in: "passage", id: "p2" },
  } as WriterFinding,
];

const held = jest.fn<(passages: Content["passages"]) => void>();
const now = () => held.mock.lastCall?.[0];
function Page() {
  const [content, setContent] = useState(begin);
  const [chosen, setChosen] = useState<string | null>(null);
  useEffect(() => held(content.passages), [content]);
  return (
    <PassagesPanel
      content={content}
      tokens={catalogue({ details: ferryDetails })}
      uses={new Map([["p1", 2]])}
      findings={findings}
      chosen={chosen}
      onChoose={setChosen}
      change={(how) => setContent(how)}
    />
  );
}

describe("the conditions of a reply", () => {
  test("stand as sentences, with how often they are used and what is to be mended", () => {
    show(<Page />);
    expect(screen.getAllByRole("listitem").map((one) => one.textContent)).toEqual([
      expect.stringMatching(/^when .*vehicle.* is known2 times$/i),
      "when lane is more than 3not usedIt is used nowhere",
    ]);
  });

  test("open to be changed, and take more tests", async () => {
    const hand = show(<Page />);
    await hand.click(screen.getByRole("button", { name: "when lane is more than 3" }));
    await choose(hand, screen.getByRole("combobox", { name: "How it is compared" }), "is at least");
    expect(now()?.p2).toEqual({ when: { value: "blank.lane", is: "at_least", to: 3 } });
    await hand.click(screen.getByRole("button", { name: "more tests" }));
    expect(now()?.p2?.when).toEqual({ all: [expect.anything(), expect.anything()] });
    expect(screen.queryByRole("button", { name: "more tests" })).not.toBeInTheDocument();
  });

  test("are dropped once no words need them", async () => {
    const hand = show(<Page />);
    await hand.click(screen.getByRole("button", { name: /vehicle/i }));
    expect(screen.getByRole("button", { name: "in use: remove its words first" })).toBeDisabled();
    await hand.click(screen.getByRole("button", { name: "when lane is more than 3" }));
    await hand.click(screen.getByRole("button", { name: "remove the condition" }));
    expect(Object.keys(now() ?? {})).toEqual(["p1"]);
  });
});

test("a new condition has an id that no other has", () => {
  expect(freePassage({})).toBe("p1");
  expect(freePassage(begin.passages)).toBe("p3");
  const { p2 } = begin.passages;
  expect(p2 && freePassage({ p2 })).toBe("p3");
});
