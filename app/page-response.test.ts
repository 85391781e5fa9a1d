import { describe, expect, test } from "@jest/globals";
import { createElement, Suspense, use, type ReactNode } from "react";
import { pageResponse } from "./page-response";

/** What a page waits for, and the hand that gives it. */
class Late {
  give: (words: string) => void = () => undefined;
  refuse: (error: Error) => void = () => undefined;
  readonly words = new Promise<string>((resolve, reject) => {
    this.give = resolve;
    this.refuse = reject;
  });
}

const Words = ({ words }: { words: Promise<string> }) => createElement("p", null, use(words));

function Broken(): ReactNode {
  throw new Error("the page is broken");
}

function page(...children: ReactNode[]): ReactNode {
  return createElement("html", null, createElement("body", null, ...children));
}

const waitingFor = (words: Promise<string>) =>
  createElement(
    Suspense,
    { fallback: createElement("p", null, "Opening…") },
    createElement(Words, { words }),
  );

function respond(what: ReactNode, errors: unknown[] = []) {
  return pageResponse(what, {
    status: 200,
    headers: new Headers(),
    nonce: "n0nce",
    onError: (error) => errors.push(error),
  });
}

function readerOf(response: Response) {
  if (!response.body) throw new Error("the response has no body");
  return response.body.pipeThrough(new TextDecoderStream()).getReader();
}

describe("a page", () => {
  test("whose parts are there at once comes whole, each part where it belongs, with no script", async () => {
    const long = "All sailings of today are late. ".repeat(2000);
    const response = await respond(
      page(waitingFor(Promise.resolve(long)), createElement("p", null, "The end")),
    );
    expect(response.status).toBe(200);
    expect(response.headers.get("content-type")).toBe("text/html; charset=utf-8");
    const html = await response.text();
    expect(html).not.toContain("Opening…");
    expect(html).not.toContain("<script");
    expect(html.indexOf("All sailings")).toBeLessThan(html.indexOf("The end"));
  });

  test("of which something is late goes out before it, and that follows by a script of the page’s nonce", async () => {
    const late = new Late();
    const response = await respond(page(createElement("h1", null, "Waiting"), waitingFor(late.words)));
    const reader = readerOf(response);
    let html = (await reader.read()).value ?? "";
    expect(html).toContain("Waiting");
    expect(html).toContain("Opening…");
    late.give("close fit");
    for (let next = await reader.read(); !next.done; next = await reader.read()) html += next.value;
    expect(html).toContain("close fit");
    expect(html).toContain('<script nonce="n0nce">');
  });

  test("of which a part fails is told, and keeps the rest", async () => {
    const errors: unknown[] = [];
    const late = new Late();
    const waiting = respond(page(createElement("h1", null, "Waiting"), waitingFor(late.words)), errors);
    late.refuse(new Error("ranking is away"));
    const response = await waiting;
    const html = await response.text();
    expect(errors).toEqual([new Error("ranking is away")]);
    expect(response.status).toBe(500);
    expect(html).toContain("Waiting");
    expect(html).toContain("Opening…");
  });

  test("of which nothing can be rendered is refused", async () => {
    await expect(respond(page(createElement(Broken)))).rejects.toThrow("the page is broken");
  });
});
