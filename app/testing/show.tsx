import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactNode } from "react";
import { createMemoryRouter, RouterProvider } from "react-router";
import { Hints } from "../ui/hint";

type Hand = ReturnType<typeof userEvent.setup>;

/** Shows something as a page of the program does. @returns the hand that uses it */
export function show(children: ReactNode, at = "/"): Hand {
  const router = createMemoryRouter([{ id: "root", path: "*", element: <Hints>{children}</Hints> }], {
    initialEntries: [at],
  });
  render(<RouterProvider router={router} />);
  return userEvent.setup();
}

/** Opens a list by key and takes one of its options. */
export async function choose(hand: Hand, list: HTMLElement, option: string | RegExp): Promise<void> {
  list.focus();
  await hand.keyboard("{Enter}");
  await hand.click(await screen.findByRole("option", { name: option }));
}
