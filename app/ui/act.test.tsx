import { afterEach, expect, jest, test } from "@jest/globals";
import { cleanup, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { createMemoryRouter, Link, Outlet, RouterProvider } from "react-router";
import * as z from "zod/mini";
import { Acts, useAct, type Outcome } from "./act";
import { refusalOf, answerOrRefusal } from "./refusal";

afterEach(cleanup);

const numbered = z.object({ number: z.number() });

const settled = jest.fn<(outcome: Outcome<{ number: number }>) => void>();

function Page({ schema }: { schema: typeof numbered | (() => Promise<typeof numbered>) }) {
  const act = useAct();
  const [outcome, setOutcome] = useState<Outcome<{ number: number }> | null>(null);
  return (
    <>
      <button
        onClick={() =>
          void act("/publish", { remark: "x" }, schema).then((one) => {
            settled(one);
            setOutcome(one);
          })
        }
      >
        publish
      </button>
      <Link to="/other">leave</Link>
      <output>{JSON.stringify(outcome)}</output>
    </>
  );
}

/** A desk with an action; what screens show is loaded with `loader`. */
function show(
  action: (request: Request) => unknown,
  loader = () => 0,
  schema: Parameters<typeof Page>[0]["schema"] = numbered,
) {
  const router = createMemoryRouter([
    {
      element: (
        <Acts>
          <Outlet />
        </Acts>
      ),
      children: [
        { path: "/", loader, element: <Page schema={schema} /> },
        { path: "/other", element: <p>elsewhere</p> },
        {
          path: "/publish",
          action: ({ request }) =>
            answerOrRefusal({ serverAction: () => Promise.resolve().then(() => action(request)) }),
        },
      ],
    },
  ]);
  render(<RouterProvider router={router} />);
  return userEvent.setup();
}
const outcome = async () => {
  const shown = await screen.findByText(/\{"ok"/);
  return JSON.parse(shown.textContent) as unknown;
};

test("an act answers, sends what it was given, and what screens show is loaded again", async () => {
  const loader = jest.fn(() => 0);
  const sent: unknown[] = [];
  const user = show(async (request) => {
    sent.push(request.headers.get("content-type"), await request.json());
    return { number: 7 };
  }, loader);
  await user.click(await screen.findByRole("button", { name: "publish" }));
  expect(await outcome()).toEqual({ ok: true, data: { number: 7 } });
  expect(sent).toEqual(["application/json", { remark: "x" }]);
  expect(loader).toHaveBeenCalledTimes(2);
});

test("a refusal, a failing connection and an answer that makes no sense leave the screen, and are said", async () => {
  for (const [action, problem, status] of [
    [() => ({ problem: "Somebody was quicker", status: 409 }), "Somebody was quicker", 409],
    [
      () => {
        throw new TypeError("Failed to fetch");
      },
      "The server cannot be reached. Nothing was changed; try again.",
      0,
    ],
    [
      () => {
        throw Response.json({ problem: "Your session has ended. Sign in again." }, { status: 401 });
      },
      "Your session has ended. Sign in again.",
      401,
    ],
    [() => ({ letter: "x" }), "The server’s answer could not be read; load the page again", 200],
  ] as const) {
    const user = show(action);
    await user.click(await screen.findByRole("button", { name: "publish" }));
    expect(await outcome()).toEqual({ ok: false, problem, status });
    expect(screen.getByRole("button", { name: "publish" })).toBeTruthy();
    cleanup();
  }
});

test("what reads the answer may be fetched once there is one; where it cannot be, that is told", async () => {
  const later = show(
    () => ({ number: 7 }),
    undefined,
    () => Promise.resolve(numbered),
  );
  settled.mockClear();
  await later.click(await screen.findByRole("button", { name: "publish" }));
  await waitFor(() => expect(settled).toHaveBeenCalledWith({ ok: true, data: { number: 7 } }));
  cleanup();
  const never = show(
    () => ({ number: 7 }),
    undefined,
    () => Promise.reject(new TypeError("Failed to fetch")),
  );
  settled.mockClear();
  await never.click(await screen.findByRole("button", { name: "publish" }));
  await waitFor(() =>
    expect(settled).toHaveBeenCalledWith(expect.objectContaining({ ok: false, status: 200 })),
  );
});

test("an act goes its way though its screen is left meanwhile", async () => {
  let release = (_answer: object): void => undefined;
  const user = show(() => new Promise<object>((resolve) => (release = resolve)));
  settled.mockClear();
  await user.click(await screen.findByRole("button", { name: "publish" }));
  await user.click(screen.getByRole("link", { name: "leave" }));
  expect(await screen.findByText("elsewhere")).toBeTruthy();
  expect(settled).not.toHaveBeenCalled();
  release({ number: 1 });
  await waitFor(() => expect(settled).toHaveBeenCalledWith({ ok: true, data: { number: 1 } }));
});

/** A server that answers, before any action is asked, with a text and a status. */
const answered = (text: string, init: ResponseInit) => () => {
  throw new Response(text, init);
};

test("what a server in front of the actions says is told as it says it", async () => {
  const answer = await answerOrRefusal({
    serverAction: answered("That is too large: at most 2 MB are taken here.", { status: 413 }),
  });
  expect(await refusalOf(answer)).toEqual({
    problem: "That is too large: at most 2 MB are taken here.",
    status: 413,
  });
  const page = await answerOrRefusal({
    serverAction: answered("<html>bad gateway</html>", { status: 502 }),
  });
  expect(await refusalOf(page)).toEqual({ problem: "The server said 502", status: 502 });
});
