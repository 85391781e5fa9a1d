import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import { act, renderHook, waitFor } from "@testing-library/react";
import { fetched } from "./fetched";
import { later } from "./later";

beforeEach(() => {
  jest.useFakeTimers();
});

afterEach(() => {
  jest.useRealTimers();
});

test("what the first look does without is fetched when it is wanted, once for all screens", async () => {
  jest.useRealTimers();
  const fetch = jest.fn(() => Promise.resolve((text: string) => text.length));
  const useLength = fetched(fetch, { ahead: false });
  const { result, rerender } = renderHook(({ wanted }) => useLength(wanted), {
    initialProps: { wanted: false },
  });
  expect(result.current).toBeNull();
  expect(fetch).not.toHaveBeenCalled();
  rerender({ wanted: true });
  await waitFor(() => expect(result.current?.("four")).toBe(4));
  expect(renderHook(() => useLength(false)).result.current?.("four")).toBe(4);
  expect(fetch).toHaveBeenCalledTimes(1);
});

test("what will be wanted is fetched once the page is there and had a moment", async () => {
  const fetch = jest.fn(() => Promise.resolve("here"));
  const useWord = fetched(fetch, { ahead: true });
  const { result } = renderHook(() => useWord(false));
  expect(fetch).not.toHaveBeenCalled();
  await act(() => jest.advanceTimersByTimeAsync(1000));
  expect(result.current).toBe("here");
});

test("a screen that was left fetches nothing any more", async () => {
  const fetch = jest.fn(() => Promise.resolve("here"));
  const useWord = fetched(fetch, { ahead: true });
  renderHook(() => useWord(false)).unmount();
  await act(() => jest.advanceTimersByTimeAsync(5000));
  expect(fetch).not.toHaveBeenCalled();
});

test("what comes later waits for a page that is still on its way", () => {
  const state = jest.spyOn(document, "readyState", "get").mockReturnValue("interactive");
  const [run, given] = [jest.fn(), jest.fn()];
  later(run);
  later(given)();
  jest.advanceTimersByTime(5000);
  expect(run).not.toHaveBeenCalled();
  window.dispatchEvent(new Event("load"));
  jest.advanceTimersByTime(1000);
  expect(run).toHaveBeenCalledTimes(1);
  expect(given).not.toHaveBeenCalled();
  state.mockRestore();
});
