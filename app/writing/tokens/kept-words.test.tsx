import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, screen, within } from "@testing-library/react";
import { useState } from "react";
import { testContext } from "#core/compose/testing";
import { readMarkdown } from "#core/formats/markdown";
import { catalogue } from "#core/tokens/catalogue";
import { recognise } from "#core/tokens/recognise";
import { show } from "../../testing/show";
import { KeptWords, refusedAtFirst } from "./kept-words";

afterEach(cleanup);

const found = (words: string) =>
  recognise(readMarkdown(words).doc, testContext(), catalogue(), { language: "en-GB", timeZone: "UTC" });

function Page({ words }: { words: string }) {
  const [all] = useState(() => found(words));
  const [refused, setRefused] = useState(() => refusedAtFirst(all));
  return (
    <>
      <KeptWords found={all} refused={refused} onRefuse={setRefused} />
      <output>
        {all.flatMap(({ words: said }, index) => (refused.has(index) ? [said] : [])).join("; ")}
      </output>
    </>
  );
}

const stays = () => screen.getByRole("status").textContent;

describe("values in an answer", () => {
  test("fill themselves where the case knows them, and stay where they only look like one, until somebody says otherwise", async () => {
    const hand = show(<Page words="Dear Ottoline, pay €40.00 by 3 March 2027." />);
    const known = within(screen.getByRole("group", { name: "Fills itself for every case" }));
    const like = within(screen.getByRole("group", { name: /^Looks like a value/ }));
    expect(known.getByRole("checkbox", { name: /“Ottoline” is the first name/ })).toBeChecked();
    expect(like.getByRole("checkbox", { name: "“€40.00” amount" })).not.toBeChecked();
    expect(stays()).toBe("€40.00; 3 March 2027");
    await hand.click(like.getByRole("checkbox", { name: "“3 March 2027” day" }));
    await hand.click(known.getByRole("checkbox"));
    expect(stays()).toBe("Ottoline; €40.00");
    await hand.click(known.getByRole("checkbox"));
    expect(stays()).toBe("€40.00");
  });

  test("are told where there are none", () => {
    show(<Page words="Dogs are welcome." />);
    expect(screen.getByText(/^Nothing in these words/)).toBeVisible();
    expect(screen.queryByRole("checkbox")).not.toBeInTheDocument();
  });
});
