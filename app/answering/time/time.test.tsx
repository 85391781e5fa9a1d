import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, fireEvent, renderHook } from "@testing-library/react";
import { useTimeSpent } from "./use-time-spent";

interface Told {
  open: number;
  active: number;
}

const told: [address: string, told: Told][] = [];
let visible: DocumentVisibilityState = "visible";

beforeEach(() => {
  jest.useFakeTimers();
  told.length = 0;
  visible = "visible";
  jest.spyOn(document, "visibilityState", "get").mockImplementation(() => visible);
  globalThis.fetch = ((address: string, init: { body: string }) => {
    told.push([address, JSON.parse(init.body) as Told]);
    return Promise.resolve(new Response("{}"));
  }) as typeof fetch;
});
afterEach(() => {
  cleanup();
  jest.useRealTimers();
  jest.restoreAllMocks();
});

const at = (number: number) =>
  renderHook(({ number: shown }) => useTimeSpent(shown), { initialProps: { number } });
const pass = (seconds: number) => {
  for (let second = 0; second < seconds; second += 1) jest.advanceTimersByTime(1000);
};
const hide = (state: DocumentVisibilityState) => {
  visible = state;
  fireEvent(document, new Event("visibilitychange"));
};
const sum = (of: keyof Told) => told.reduce((all, [, one]) => all + one[of], 0);

describe("the time at a case", () => {
  test("is told every half minute", () => {
    at(7);
    pass(29);
    expect(told).toEqual([]);
    pass(32);
    expect(told.map(([address]) => address)).toEqual(["/cases/7/time", "/cases/7/time"]);
    expect(sum("open")).toBe(60);
  });

  test("is at work for a minute after something was done, then only open", () => {
    at(7);
    pass(120);
    expect(sum("open")).toBe(120);
    expect(sum("active")).toBeGreaterThanOrEqual(58);
    expect(sum("active")).toBeLessThanOrEqual(61);
    fireEvent.keyDown(document, { key: "a" });
    pass(30);
    expect(sum("active")).toBeGreaterThanOrEqual(87);
  });

  test("runs in sight alone, and what is left is told when the page is hidden", () => {
    at(7);
    pass(10);
    hide("hidden");
    expect(sum("open")).toBe(10);
    pass(300);
    expect(sum("open")).toBe(10);
    hide("visible");
    pass(31);
    expect(sum("open")).toBeGreaterThanOrEqual(39);
    expect(sum("open")).toBeLessThanOrEqual(41);
  });

  test("is told of the case that is left, and goes on with the next", () => {
    const shown = at(7);
    pass(12);
    shown.rerender({ number: 8 });
    expect(told).toEqual([["/cases/7/time", { open: 12, active: 12 }]]);
    pass(5);
    shown.unmount();
    expect(told.at(-1)).toEqual(["/cases/8/time", { open: 5, active: 5 }]);
  });

  test("does not run while the machine sleeps", () => {
    let slept = 0;
    const awake = performance.now.bind(performance);
    jest.spyOn(performance, "now").mockImplementation(() => awake() + slept);
    const shown = at(7);
    pass(3);
    slept = 3_600_000;
    pass(5);
    shown.unmount();
    expect(sum("open")).toBeGreaterThanOrEqual(7);
    expect(sum("open")).toBeLessThanOrEqual(8);
  });
});
