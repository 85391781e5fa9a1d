import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import { act, cleanup, screen } from "@testing-library/react";
import { show } from "../testing/show";
import { DueWarnings } from "./due-warnings";
import { ToastProvider } from "./toast";

beforeEach(() => {
  jest.useFakeTimers({ now: Date.parse("2026-11-25T10:00:00Z") });
});
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

const warn = (number: number, answerBy: string) =>
  show(
    <ToastProvider>
      <DueWarnings due={[{ number, label: `SF-${number}`, answerBy }]} />
    </ToastProvider>,
  );
const pass = (minutes: number) => act(() => jest.advanceTimersByTime(minutes * 60_000));
const told = (words: RegExp) => screen.queryAllByText(words).length > 0;

test("a case is told of a quarter of an hour before its time passes, and once", () => {
  warn(1, "2026-11-25T11:00:00Z");
  pass(44);
  expect(told(/SF-1/)).toBe(false);
  pass(1.1);
  expect(told(/^SF-1 is due in 15 minutes$/)).toBe(true);
  cleanup();
  warn(1, "2026-11-25T11:00:00Z");
  pass(1);
  expect(told(/SF-1/)).toBe(false);
  cleanup();
  warn(1, "2026-11-25T11:30:00Z");
  pass(30);
  expect(told(/^SF-1 is due in 1\d minutes$/)).toBe(true);
});

test("one whose time passes sooner is told of at once, and one whose time has passed is not", () => {
  warn(2, "2026-11-25T10:05:00Z");
  pass(0.01);
  expect(told(/^SF-2 is due in 5 minutes$/)).toBe(true);
  cleanup();
  warn(3, "2026-11-25T09:59:00Z");
  pass(1);
  expect(told(/SF-3/)).toBe(false);
});
