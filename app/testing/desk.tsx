import { render } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactNode } from "react";
import { createMemoryRouter, Outlet, RouterProvider } from "react-router";
import { Acts } from "../ui/act";
import { Hints } from "../ui/hint";
import { answerOrRefusal } from "../ui/refusal";
import { ToastProvider } from "../ui/toast";

/** What was asked of the server, in its order. */
type Asked = { to: string; body: unknown }[];

/**
 * Shows something as a screen of a signed-in person does, whose acts are answered by the test.
 * @param answers by address: what the server makes of a body; addresses that are not there answer that it is done
 * @returns the hand that uses it, and what was asked
 */
export function showAtDesk(
  children: ReactNode,
  answers: Record<string, (body: unknown) => object> = {},
  at = "/",
): { hand: ReturnType<typeof userEvent.setup>; asked: Asked } {
  const asked: Asked = [];
  const act = async (request: Request) => {
    const to = new URL(request.url).pathname;
    const body: unknown = await request.json();
    asked.push({ to, body });
    return answers[to]?.(body) ?? {};
  };
  const desk = (
    <Hints>
      <Acts>
        <ToastProvider>
          <Outlet />
        </ToastProvider>
      </Acts>
    </Hints>
  );
  const router = createMemoryRouter(
    [
      {
        id: "root",
        element: desk,
        children: [
          {
            path: "*",
            action: ({ request }) => answerOrRefusal({ serverAction: () => act(request) }),
            element: children,
          },
        ],
      },
    ],
    { initialEntries: [at] },
  );
  render(<RouterProvider router={router} />);
  return { hand: userEvent.setup(), asked };
}
