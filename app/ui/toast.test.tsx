import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { act, cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { ToastProvider, useToast, type ToastMessage } from "./toast";

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

/** A page with a field, and a button for each message. */
function Page({ messages }: { messages: ToastMessage[] }) {
  const toast = useToast();
  return (
    <>
      <input aria-label="field" />
      {messages.map((message, index) => (
        <button key={index} type="button" onClick={() => toast(message)}>
          {`show ${index}`}
        </button>
      ))}
    </>
  );
}

async function show(...messages: ToastMessage[]) {
  const user = userEvent.setup({ advanceTimers: (ms) => jest.advanceTimersByTime(ms) });
  render(
    <ToastProvider>
      <Page messages={messages} />
    </ToastProvider>,
  );
  for (const index of messages.keys())
    await user.click(screen.getByRole("button", { name: `show ${index}` }));
  return user;
}

const shown = () =>
  within(screen.getByRole("region", { name: "Notices, F8" }))
    .queryAllByRole("listitem")
    .map((one) => one.textContent);
const pass = (ms: number) => act(() => jest.advanceTimersByTime(ms));

describe("messages at the foot", () => {
  test("stand beside each other, and each goes in its own time", async () => {
    const end = Date.now() + 10_000;
    await show({ words: "Filed." }, { words: "On its way", until: end }, { words: "Kept." });
    expect(shown()).toEqual(["Filed.", expect.stringMatching(/^On its way\d+ s$/), "Kept."]);
    pass(8500);
    expect(shown()).toEqual([expect.stringContaining("On its way")]);
    pass(end - Date.now() + 300);
    expect(shown()).toEqual([]);
  });

  test("Alt+Z does what the latest offers, then what the one before offers", async () => {
    const first = jest.fn();
    const second = jest.fn();
    const user = await show(
      { words: "Moved.", action: { label: "Undo", run: first } },
      { words: "Sent.", action: { label: "Call it back", run: second } },
      { words: "Filed." },
    );
    await user.keyboard("{Alt>}z{/Alt}");
    expect([first.mock.calls.length, second.mock.calls.length]).toEqual([0, 1]);
    expect(shown()).toEqual(["Moved.UndoAlt Z", "Filed."]);
    await user.keyboard("{Alt>}z{/Alt}");
    expect(first).toHaveBeenCalledTimes(1);
    expect(shown()).toEqual(["Filed."]);
    await user.keyboard("{Alt>}z{/Alt}");
    expect(first).toHaveBeenCalledTimes(1);
  });

  test("Escape in a field leaves them, Escape on one closes that one, and so does its cross", async () => {
    const user = await show(
      { words: "Moved.", action: { label: "Undo", run: jest.fn() } },
      { words: "Filed." },
    );
    await user.click(screen.getByRole("textbox"));
    await user.keyboard("{Escape}");
    expect(shown()).toHaveLength(2);
    act(() => screen.getByRole("button", { name: /^Undo/ }).focus());
    await user.keyboard("{Escape}");
    expect(shown()).toEqual(["Filed."]);
    await user.click(screen.getByRole("button", { name: "Close the notice" }));
    expect(shown()).toEqual([]);
  });

  test("what says the same takes the other’s place, and what offers an undo stays", async () => {
    const undo = { words: "Retired 2.", action: { label: "Undo", run: jest.fn() } };
    const user = await show({ words: "Take it first." }, undo);
    await user.click(screen.getByRole("button", { name: "show 0" }));
    await user.click(screen.getByRole("button", { name: "show 1" }));
    expect(shown()).toEqual(["Retired 2.Undo", "Take it first.", "Retired 2.UndoAlt Z"]);
  });

  test("are read out, what failed at once", async () => {
    await show({ words: "It was not sent.", tone: "stop" }, { words: "Filed." });
    pass(50);
    expect(
      screen.getAllByRole("status").map((one) => [one.getAttribute("aria-live"), one.textContent]),
    ).toEqual([
      ["assertive", "Notice It was not sent."],
      ["polite", "Notice Filed."],
    ]);
  });
});
