import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import type { ReplyRow } from "#server/replies/list";
import { useRows } from "./use-rows";

const SIZE = 10;
const TOTAL = 1000;

/** Only what tells rows apart. */
const row = (index: number, edition = "") => ({ key: `${edition}${index}` }) as ReplyRow;
const page = (number: number, edition = "") =>
  Array.from({ length: SIZE }, (_, at) => row((number - 1) * SIZE + at, edition));

const asked: string[] = [];
let answer = (_page: number) => Response.json({ rows: page(_page), total: TOTAL });

beforeEach(() => {
  asked.length = 0;
  answer = (number) => Response.json({ rows: page(number), total: TOTAL });
  jest.spyOn(globalThis, "fetch").mockImplementation((url) => {
    const address = typeof url === "string" ? url : "";
    asked.push(address);
    return Promise.resolve(answer(Number(new URL(address, "http://x").searchParams.get("page"))));
  });
});
afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});

const show = (filter = "tag=refund", found = { rows: page(1), total: TOTAL }) =>
  renderHook(({ of, by }) => useRows(of, 1, SIZE, by), { initialProps: { of: found, by: filter } });

test("what comes into sight is asked for once, with its filter; what was loaded is there at once", async () => {
  const { result } = show();
  expect(result.current.rowAt(3)?.key).toBe("3");
  expect(result.current.rowAt(45)).toBeUndefined();
  act(() => result.current.see(38, 47));
  await waitFor(() =>
    expect([result.current.rowAt(38)?.key, result.current.rowAt(47)?.key]).toEqual(["38", "47"]),
  );
  expect(asked).toEqual(["/shelves/rows?tag=refund&page=4", "/shelves/rows?tag=refund&page=5"]);
  act(() => result.current.see(40, 49));
  act(() => result.current.see(0, 9));
  act(() => result.current.see(38, 47));
  await new Promise((resolve) => setTimeout(resolve, 150));
  expect(asked).toHaveLength(2);
});

test("what the hand passes by quickly is not asked for", async () => {
  const { result } = show();
  for (const from of [100, 300, 500, 700, 900]) act(() => result.current.see(from, from + 9));
  await waitFor(() => expect(result.current.rowAt(905)?.key).toBe("905"));
  expect(asked).toEqual(["/shelves/rows?tag=refund&page=91"]);
});

test("loaded anew, the old rows stay until the new ones are there; another filter keeps none", async () => {
  const { result, rerender } = show();
  act(() => result.current.see(40, 49));
  await waitFor(() => expect(result.current.rowAt(40)?.key).toBe("40"));
  answer = (number) => Response.json({ rows: page(number, "new "), total: TOTAL });
  rerender({ of: { rows: page(1, "new "), total: TOTAL }, by: "tag=refund" });
  expect([result.current.rowAt(0)?.key, result.current.rowAt(40)?.key]).toEqual(["new 0", "40"]);
  await waitFor(() => expect(result.current.rowAt(40)?.key).toBe("new 40"));
  rerender({ of: { rows: page(1), total: TOTAL }, by: "tag=dog" });
  expect(result.current.rowAt(40)).toBeUndefined();
});

test("a stretch that cannot be read is told of, and asked for again when somebody says so", async () => {
  answer = () => Response.json({ problem: "x" }, { status: 503 });
  const { result } = show();
  act(() => result.current.see(40, 49));
  await waitFor(() => expect(result.current.problem).toBe(true));
  expect(asked).toHaveLength(1);
  answer = (number) => Response.json({ rows: page(number), total: TOTAL });
  act(() => result.current.again());
  await waitFor(() => expect(result.current.rowAt(40)?.key).toBe("40"));
  expect(result.current.problem).toBe(false);
});
