import { render } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactNode } from "react";
import { createMemoryRouter, Outlet, RouterProvider } from "react-router";
import { Acts } from "../ui/act";
import { Questions } from "../ui/ask";
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
    const isJson = request.headers.get("content-type")?.startsWith("application/json") ?? false;
    // A form with files cannot be read here: this page's files are not the ones that requests know.
    const body: unknown = isJson ? await request.json() : "a form";
    asked.push({ to, body });
    return answers[to]?.(body) ?? {};
  };
  const desk = (
    <Hints>
      <Acts>
        <Questions>
          <ToastProvider>
            <Outlet />
          </ToastProvider>
        </Questions>
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
