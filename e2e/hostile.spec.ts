import { expect, test, type APIRequestContext } from "@playwright/test";
import type { RouteConfigEntry } from "@react-router/dev/routes";
import fc from "fast-check";
import routes from "../app/routes";
import { signIn } from "./house";

/** Every address of the program, with its parameters as they stand in `routes.ts`. */
function addresses(entries: RouteConfigEntry[], above = ""): string[] {
  return entries.flatMap(({ path, children }) => {
    const own = path === undefined ? above : `${above}/${path}`;
    return [...(path === undefined || path === "*" ? [] : [own]), ...addresses(children ?? [], own)];
  });
}

const NUMBERS = ["0", "-1", "2147483648", "99999999999999999999", "1e3", "x", "%F0%9F%9A%A2", "..%2F..", " "];

function filled(path: string, value: string): string {
  return path.replace(/:\w+/g, value);
}

const deep = `${"[".repeat(20_000)}${"]".repeat(20_000)}`;
const nested = (depth: number): object =>
  depth === 0 ? { value: "case.topic", is: "present" } : { not: nested(depth - 1) };
const document = {
  type: "doc",
  content: [{ type: "paragraph", content: [{ type: "image", attrs: { attachment: "x" } }] }],
};
const slip = {
  uid: "one",
  versionId: null,
  language: "en",
  document: { type: "doc", content: [{ type: "paragraph" }] },
  values: {},
};

/** Bodies as no screen sends them. */
const BODIES = [
  "",
  "{",
  "null",
  "[]",
  '"x"',
  deep,
  '{"a":"\\u0000"}',
  '{"a":"\\ud800"}',
  JSON.stringify({ undo: 2 ** 40 }),
  JSON.stringify({
    draft: { version: 0, language: "en-@", subject: { from: "thread" }, slips: [slip, slip] },
    text: "",
  }),
  JSON.stringify({
    draft: { version: 0, language: "en", subject: { from: "thread" }, slips: [slip, slip] },
    text: "",
  }),
  JSON.stringify({
    draft: { version: 0, language: "en", subject: { from: "thread" }, slips: [{ ...slip, document }] },
    text: "",
  }),
  JSON.stringify({
    draft: {
      version: 0,
      language: "en",
      subject: { from: "thread" },
      slips: [{ ...slip, versionId: 2 ** 31 }],
    },
    text: "",
  }),
  JSON.stringify({ version: 2 ** 31, lastMessage: -1 }),
  JSON.stringify({ revision: 2 ** 40, remark: null }),
  JSON.stringify({ value: { amount: 1e300, currency: "EUR" }, from: "0000-01-01" }),
  JSON.stringify({ over: 2 ** 31, decision: "x" }),
  JSON.stringify({ team: 2 ** 31, document: { type: "doc", content: [] } }),
  JSON.stringify({
    revision: 0,
    baseId: 2 ** 31,
    content: {
      title: "x",
      useTemplateSubject: false,
      blanks: {},
      passages: { a: { when: nested(200) } },
      variants: [{ language: "en", title: null, subject: null, document, original: null }],
      files: ["99999999999"],
    },
  }),
  JSON.stringify({ changed: "2026-01-01T00:00:00Z", shelf: "x", reviewBy: "0000-01-01" }),
];

async function statuses(request: APIRequestContext, path: string): Promise<[string, number][]> {
  const found: [string, number][] = [];
  for (const body of BODIES) {
    const response = await request.post(path, {
      data: Buffer.from(body),
      headers: { "Content-Type": "application/json", "Sec-Fetch-Site": "same-origin" },
      maxRedirects: 0,
    });
    found.push([`POST ${path} ${body.slice(0, 60)}`, response.status()]);
  }
  for (const form of ["a=%00", "a=%ED%A0%80", "id=2147483648", "who=%00&mail=x", "=", "x".repeat(5000)]) {
    const response = await request.post(path, {
      data: form,
      headers: { "Content-Type": "application/x-www-form-urlencoded", "Sec-Fetch-Site": "same-origin" },
      maxRedirects: 0,
    });
    found.push([`POST ${path} form ${form.slice(0, 40)}`, response.status()]);
  }
  return found;
}

test("no address answers bad input with a fault of the program", async ({ page }) => {
  test.setTimeout(240_000);
  await signIn(page, "sunniva@example.com");
  const all = addresses(routes).filter((path) => !/^\/(?:sign-out|events)$/.test(path));
  expect(all.length).toBeGreaterThan(45);
  const faults: [string, number][] = [];
  const note = (found: [string, number][]) => faults.push(...found.filter(([, status]) => status >= 500));
  for (const path of all) {
    const values = path.includes(":") ? NUMBERS : [""];
    for (const value of values) {
      // The simulated outside is another server: what it refuses is told as that.
      const address = filled(path, value);
      const response = await page.request.get(`${address}?q=%ED%A0%80&earlier=-1&page=1e9&after=2147483648`, {
        maxRedirects: 0,
      });
      note([[`GET ${address}`, response.status()]]);
    }
    note(await statuses(page.request, filled(path, "20001")));
  }
  const nul = await page.request.get("/shelves?q=%00");
  expect([nul.status(), await nul.text()]).toEqual([400, expect.stringContaining("cannot be read")]);
  expect((await page.request.get("/waiting?text=%E0%A4%A")).status()).toBe(400);
  expect(faults.filter(([path, status]) => !(path.includes("/outside") && status === 502))).toEqual([]);
});

/** Requests as screens send them: what is generated differs from one of them in a place or two. */
const REQUESTS: object[] = [
  {
    draft: { version: 0, language: "en", subject: { from: "own", text: "x" }, slips: [slip], to: null },
    text: "x",
  },
  { version: 1, lastMessage: 20_001, seen: "x", then: "next" },
  { value: { amount: 3, currency: "EUR" }, from: "2026-12-01" },
  { label: "x", type: "text", value: "x", changedBy: "lead" },
  { team: null, document: slip.document },
  { title: "x", department: "", phone: "x" },
  {
    team: 1,
    name: "x",
    header: slip.document,
    footer: null,
    accent: "#0d5a45",
    logo: null,
  },
  { team: 1, channel: "email", part: "opening", reply: "hello" },
  { revision: 1, remark: "x" },
  { over: 1, decision: "x" },
  { replace: true },
  { keys: ["a", "b"] },
  { key: null, name: "x", mark: "x", audience: "teams", teams: [1] },
  {
    revision: 0,
    baseId: null,
    content: {
      title: "x",
      useTemplateSubject: false,
      blanks: { hours: { kind: "number", label: "hours", required: true } },
      passages: { a: { when: nested(2) } },
      variants: [{ language: "en", title: null, subject: null, document: slip.document, original: null }],
      files: [],
    },
  },
  {
    title: "x",
    shelf: "x",
    part: "answer",
    tags: ["a"],
    topics: [],
    channels: ["email"],
    reviewBy: "2027-01-01",
  },
  { keys: ["a"], change: { what: "tag", tag: "x", add: true } },
  { filter: "state=shelved", change: { what: "shelf", shelf: "x" }, count: 3 },
  { pinned: true },
];

/** Values that nobody means. */
const hostile = fc.oneof(
  fc.constantFrom<unknown>(
    null,
    "",
    0,
    -1,
    2 ** 31,
    2 ** 53,
    1e308,
    true,
    [],
    {},
    "\u0000",
    "\ud800",
    "0000-01-01",
    "9".repeat(400),
    "{$case.number}{",
    nested(300),
    Array.from({ length: 2000 }, () => "x"),
    JSON.parse('{"__proto__":{"a":1}}') as unknown,
  ),
  fc.jsonValue({ maxDepth: 3 }),
  fc.string({ unit: "binary", maxLength: 30 }),
);

/** Every place in a value: the keys that lead there. */
function placesIn(value: unknown, above: string[] = []): string[][] {
  if (typeof value !== "object" || value === null) return [above];
  return [above, ...Object.entries(value).flatMap(([key, one]) => placesIn(one, [...above, key]))];
}

/** A value with another in one of its places. */
function changedAt(value: unknown, [first, ...rest]: string[], to: unknown): unknown {
  if (first === undefined) return to;
  if (Array.isArray(value))
    return value.map((one: unknown, at): unknown => (String(at) === first ? changedAt(one, rest, to) : one));
  const object = value as Record<string, unknown>;
  return { ...object, [first]: changedAt(object[first], rest, to) };
}

const generated = fc
  .tuple(fc.constantFrom(...REQUESTS), fc.array(fc.tuple(fc.nat(), hostile), { minLength: 1, maxLength: 2 }))
  .map(([request, changes]) =>
    changes.reduce<unknown>((value, [nth, to]) => {
      const places = placesIn(value);
      return changedAt(value, places[nth % places.length] ?? [], to);
    }, request),
  );

test("no action answers what is nearly a request with a fault of the program", async ({ page }) => {
  test.setTimeout(240_000);
  await signIn(page, "tadeo@example.com");
  const all = addresses(routes)
    .filter((path) => !/^\/(?:sign-out|events|outside)/.test(path))
    .map((path) => filled(path, "20001"));
  await fc.assert(
    fc.asyncProperty(fc.constantFrom(...all), generated, fc.boolean(), async (path, body, asForm) => {
      const json = JSON.stringify(body);
      const response = await page.request.post(path, {
        data: asForm ? new URLSearchParams({ request: json, ...flat(body) }).toString() : Buffer.from(json),
        headers: {
          "Content-Type": asForm ? "application/x-www-form-urlencoded" : "application/json",
          "Sec-Fetch-Site": "same-origin",
        },
        maxRedirects: 0,
      });
      const status = response.status();
      expect({ status, fault: status >= 500 || status === 429 }).toEqual({ status, fault: false });
    }),
    { numRuns: 550, endOnFailure: true, seed: Number(process.env.FC_SEED ?? 7) },
  );
});

/** What stands at the top of a request, as a form has it. */
function flat(body: unknown): Record<string, string> {
  if (typeof body !== "object" || body === null) return {};
  return Object.fromEntries(
    Object.entries(body).map(([key, value]) => [
      key,
      (typeof value === "string" ? value : (JSON.stringify(value) ?? "")).toWellFormed(),
    ]),
  );
}

test("what is too large, or from nobody, is refused before it is read", async ({
  page,
  playwright,
  baseURL,
}) => {
  const nobody = await playwright.request.newContext({ baseURL: baseURL ?? "" });
  const headers = { "Sec-Fetch-Site": "same-origin", "Content-Type": "application/x-www-form-urlencoded" };
  const large = await nobody.post("/sign-in", { data: "a=1&".repeat(500_000), headers });
  expect(large.status()).toBe(413);
  const json = { ...headers, "Content-Type": "application/json" };
  const draft = await nobody.post("/cases/20001/draft", { data: "{}", headers: json });
  expect([draft.status(), await draft.json()]).toEqual([
    401,
    { problem: "Your session has ended. Sign in again." },
  ]);
  await signIn(page);
  const huge = await page.request.post("/cases/20001/draft", {
    data: `{"a":"${"x".repeat(3_000_000)}"}`,
    headers: json,
  });
  expect(huge.status()).toBe(413);
  const home = await page.request.get("/waiting");
  expect(home.headers()["cache-control"]).toBe("no-store");
  await nobody.dispose();
});
