import { afterEach, expect, jest, test } from "@jest/globals";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { shortcuts, type HeardName, type Shortcut } from "./shortcuts";
import { useFieldKeys } from "./use-field-keys";
import { useShortcut } from "./use-shortcut";

afterEach(cleanup);

function Listener({
  name,
  onKey,
  enabled = true,
}: {
  name: HeardName;
  onKey: () => void;
  enabled?: boolean;
}) {
  useShortcut(name, onKey, { enabled });
  return null;
}

test("a letter is the screen’s, unless somebody types or a list is open", async () => {
  const heard = jest.fn();
  const user = userEvent.setup();
  render(
    <>
      <Listener name="findCase" onKey={heard} />
      <input aria-label="words" />
      <button role="combobox" aria-expanded="true" aria-controls="none">
        any topic
      </button>
    </>,
  );
  await user.keyboard("/");
  expect(heard).toHaveBeenCalledTimes(1);
  await user.type(screen.getByRole("textbox"), "/");
  expect(screen.getByRole<HTMLInputElement>("textbox").value).toBe("/");
  screen.getByRole("combobox").focus();
  await user.keyboard("/");
  await user.keyboard("{Control>}/{/Control}");
  expect(heard).toHaveBeenCalledTimes(1);
});

test("what acts while somebody types is heard there, and its own meaning is kept from the field", async () => {
  const heard = jest.fn();
  const user = userEvent.setup();
  render(
    <>
      <Listener name="send" onKey={heard} />
      <textarea aria-label="words" />
    </>,
  );
  await user.type(screen.getByRole("textbox"), "Hello{Control>}{Enter}{/Control}");
  expect(heard).toHaveBeenCalledTimes(1);
  await user.type(screen.getByRole("textbox"), "{Control>}{Shift>}{Enter}{/Shift}{/Control}{Enter}");
  expect(heard).toHaveBeenCalledTimes(1);
});

test("one that does nothing just now leaves the key its usual meaning", async () => {
  const heard = jest.fn();
  const user = userEvent.setup();
  const { rerender } = render(<Listener name="alike" onKey={heard} enabled={false} />);
  await user.keyboard("a");
  expect(heard).not.toHaveBeenCalled();
  rerender(<Listener name="alike" onKey={heard} />);
  await user.keyboard("a");
  expect(heard).toHaveBeenCalledTimes(1);
});

test("a field that opened for a few words keeps them on Enter and leaves on Escape, and hears no other field", async () => {
  const keep = jest.fn<(typed: string) => void>();
  const leave = jest.fn();
  function Field() {
    return <input ref={useFieldKeys({ keep, leave })} aria-label="language" />;
  }
  function Kept() {
    return <input ref={useFieldKeys({ keep })} aria-label="subject" />;
  }
  const user = userEvent.setup();
  render(
    <>
      <Field />
      <Kept />
    </>,
  );
  await user.type(screen.getByLabelText("language"), "pt-BR{Enter}");
  expect(keep.mock.calls).toEqual([["pt-BR"]]);
  await user.keyboard("{Escape}");
  expect(leave).toHaveBeenCalledTimes(1);
  await user.type(screen.getByLabelText("subject"), "Tickets{Escape}{Control>}{Enter}{/Control}{Enter}");
  expect(leave).toHaveBeenCalledTimes(1);
  expect(keep.mock.lastCall).toEqual(["Tickets"]);
  expect(keep).toHaveBeenCalledTimes(2);
});

test("no two of one place listen for the same keys", () => {
  const seen = new Map<string, string>();
  for (const [name, { place, keys = [] }] of Object.entries<Shortcut>(shortcuts))
    for (const one of keys) {
      const where = `${place}: ${one}`;
      expect([where, seen.get(where)]).toEqual([where, undefined]);
      seen.set(where, name);
    }
});
