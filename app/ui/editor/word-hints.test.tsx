import { afterEach, expect, test } from "@jest/globals";
import { cleanup, screen, waitFor } from "@testing-library/react";
import { show } from "../../testing/show";
import { WordHints } from "./word-hints";

afterEach(cleanup);

test("words that say something of themselves say it to who rests on them, until the hand moves on", async () => {
  const hand = show(
    <WordHints>
      <p>
        We sail <em data-hint="Stands when vehicle is known">with your van</em>.
      </p>
    </WordHints>,
  );
  const words = screen.getByText("with your van");
  await hand.hover(screen.getByText(/We sail/));
  expect(screen.queryByRole("tooltip")).not.toBeInTheDocument();
  await hand.hover(words);
  expect(await screen.findByRole("tooltip")).toHaveTextContent("Stands when vehicle is known");
  await hand.hover(screen.getByText(/We sail/));
  await waitFor(() => expect(screen.queryByRole("tooltip")).not.toBeInTheDocument());
});
