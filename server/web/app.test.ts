import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { once } from "node:events";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { request as ask, type IncomingHttpHeaders, type Server } from "node:http";
import { createServer, type AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { brotliCompressSync } from "node:zlib";
import type { ServerBuild } from "react-router";
import { Heartbeat } from "../db/entities/people";
import { readEnvironment, type Environment } from "../environment";
import { NotAllowed } from "../errors";
import { startSession } from "../people/sessions";
import { testHouse, type TestHouse } from "../testing";
import { webApp } from "./app";
import { readBody } from "./body";
import { signedIn } from "./context";
import { writeToken } from "./cookie";
import { download } from "./download";
import { actionResult } from "./results";
import { z } from "zod";

let house: TestHouse;
let server: Server;
let receiver: ReturnType<typeof createServer>;
let environment: Environment;
const ranker: { state: "ready" | "reading" | "down" } = { state: "ready" };
const folder = mkdtempSync(join(tmpdir(), "assets-"));

interface Args {
  request: Request;
  context: { viewer: TestHouse["maren"] | null; secure: boolean; address: string };
}

/** One address that says who asks, takes JSON, gives a file, streams, or fails. */
const resource = {
  loader: async (args: Args) => {
    const { pathname } = new URL(args.request.url);
    if (pathname === "/file") return download(Buffer.from("%PDF-1.7"), "Fähre „Tarn“.pdf", "application/pdf");
    if (pathname === "/script") return download(Buffer.from("<script>"), 'a"b\\c.html', "text/html");
    if (pathname === "/events")
      return new Response("event: list\n\n", { headers: { "Content-Type": "text/event-stream" } });
    if (pathname === "/broken") throw Object.assign(new Error("secret words of a letter"), { status: 599 });
    if (pathname === "/mine") return Response.json({ name: (await signedIn(args)).viewer.name });
    const { viewer, secure, address } = args.context;
    return Response.json({ viewer: viewer?.name ?? null, secure, address });
  },
  action: async (args: Args) =>
    actionResult(async () => {
      await signedIn(args);
      const { words } = await readBody(args.request, z.object({ words: z.string().max(9, "is too long") }));
      if (words === "no") throw new NotAllowed("That is not yours");
      return { words };
    }),
};

const build = {
  entry: { module: { default: () => new Response("a page") } },
  routes: { all: { id: "all", path: "*", module: resource } },
  assets: { routes: {}, entry: { imports: [], module: "" }, url: "", version: "test" },
  publicPath: "/",
  assetsBuildDirectory: folder,
  basename: "/",
  future: {},
  ssr: true,
  isSpaMode: false,
  prerender: [],
  routeDiscovery: { mode: "initial" },
} as unknown as ServerBuild;

interface Answer {
  status: number;
  headers: IncomingHttpHeaders;
  text: string;
}

/** Asks as any program may: with headers that browsers do not let a page set. */
function get(
  path: string,
  headers: Record<string, string> = {},
  method = "GET",
  body?: string,
): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const { port } = server.address() as AddressInfo;
    const request = ask({ port, host: "127.0.0.1", path, method, headers, agent: false }, (response) => {
      let text = "";
      response.setEncoding("utf8");
      response.on("data", (chunk: string) => (text += chunk));
      response.on("end", () =>
        resolve({ status: response.statusCode ?? 0, headers: response.headers, text }),
      );
    });
    request.on("error", reject);
    request.end(body);
  });
}

/** Sends JSON as a page of ours does. */
function post(path: string, body: string, headers: Record<string, string> = {}): Promise<Answer> {
  return get(
    path,
    {
      "Content-Type": "application/json",
      "Content-Length": String(Buffer.byteLength(body)),
      "Sec-Fetch-Site": "same-origin",
      ...headers,
    },
    "POST",
    body,
  );
}

async function cookieOf(person: TestHouse["maren"]): Promise<string> {
  const token = await startSession(house.em(), person.id, new Date());
  return (await writeToken(token, false)).split(";")[0] ?? "";
}

beforeAll(async () => {
  house = await testHouse();
  process.env.DATABASE_URL = house.database.url;
  receiver = createServer((socket) => socket.end());
  receiver.listen(0, "127.0.0.1");
  await once(receiver, "listening");
  const read = readEnvironment({
    DATABASE_URL: house.database.url,
    SESSION_SECRET: "x".repeat(40),
    INBOUND_SMTP_PORT: String((receiver.address() as AddressInfo).port),
    TRUST_PROXY: "10.0.0.0/8",
  });
  if (!read.ok) throw new Error(read.problem);
  environment = read.environment;
  mkdirSync(join(folder, "assets"));
  writeFileSync(join(folder, "assets", "a-1234.js"), "export const words = 1;");
  writeFileSync(join(folder, "assets", "a-1234.js.br"), brotliCompressSync("export const words = 1;"));
  writeFileSync(join(folder, "favicon.svg"), "<svg xmlns='http://www.w3.org/2000/svg'/>");
  const app = webApp({ orm: house.database.orm, environment, ranker, build, assets: folder });
  server = app.listen(0, "127.0.0.1");
  await once(server, "listening");
});

afterAll(async () => {
  server.close();
  receiver.close();
  rmSync(folder, { recursive: true });
  await house.close();
});

describe("who asks", () => {
  test("is nobody without a cookie, or with one that is no good", async () => {
    expect(JSON.parse((await get("/who")).text)).toMatchObject({ viewer: null, secure: false });
    for (const cookie of ["plain_shelf=x", `plain_shelf=${"y".repeat(3000)}`, "plain_shelf=", "a=b; ;;"])
      expect(JSON.parse((await get("/who", { Cookie: cookie })).text)).toMatchObject({ viewer: null });
  });

  test("is whose session the cookie names", async () => {
    const cookie = await cookieOf(house.maren);
    expect(JSON.parse((await get("/who", { Cookie: `other=1; ${cookie}` })).text)).toMatchObject({
      viewer: "Maren Test",
    });
  });

  test("is given a new token when the old one has served its time, once, over TLS only where it came so", async () => {
    const token = await startSession(house.em(), house.bram.id, new Date(Date.now() - 40 * 60_000));
    const cookie = (await writeToken(token, false)).split(";")[0] ?? "";
    const first = await get("/who", { Cookie: cookie, "X-Forwarded-Proto": "https" });
    const [fresh = ""] = first.headers["set-cookie"] ?? [];
    expect(fresh).toMatch(/^plain_shelf=.+; Max-Age=\d+; Path=\/; HttpOnly; Secure; SameSite=Lax$/);
    expect(fresh).not.toContain(cookie);
    expect(JSON.parse(first.text)).toMatchObject({ viewer: "Bram Test", secure: true });
    expect((await get("/who", { Cookie: fresh.split(";")[0] ?? "" })).headers["set-cookie"]).toBeUndefined();
  });

  test("is believed to be elsewhere only by proxies that are named", async () => {
    const { text } = await get("/who", { "X-Forwarded-For": "203.0.113.9, 10.1.2.3" });
    expect(JSON.parse(text)).toMatchObject({ address: "203.0.113.9" });
    const beyond = await get("/who", { "X-Forwarded-For": "203.0.113.9, 198.51.100.1" });
    expect(JSON.parse(beyond.text)).toMatchObject({ address: "198.51.100.1" });
  });

  test("is led to sign in and back, or told so in JSON", async () => {
    const page = await get("/mine?a=1");
    expect([page.status, page.headers.location]).toEqual([302, "/sign-in?to=%2Fmine%3Fa%3D1"]);
    const script = await get("/mine", { Accept: "application/json" });
    expect([script.status, JSON.parse(script.text)]).toEqual([
      401,
      { problem: "Your session has ended. Sign in again." },
    ]);
  });
});

describe("headers", () => {
  test("of every page keep it out of caches and frames, and let only our own scripts run", async () => {
    const { headers } = await get("/who");
    const policy = String(headers["content-security-policy"]);
    expect(headers["cache-control"]).toBe("no-store");
    expect(headers["x-frame-options"]).toBe("DENY");
    expect(headers["x-content-type-options"]).toBe("nosniff");
    expect(headers["x-powered-by"]).toBeUndefined();
    expect(policy).toContain("frame-ancestors 'none'");
    expect(/script-src 'self' 'nonce-([^']+)'/.exec(policy)?.[1]?.length).toBeGreaterThan(20);
    expect((await get("/who")).headers["content-security-policy"]).not.toBe(policy);
  });

  test("ask for TLS from then on where a page came over it, and only there", async () => {
    expect((await get("/who")).headers["strict-transport-security"]).toBeUndefined();
    const { headers } = await get("/who", { "X-Forwarded-Proto": "https" });
    expect(headers["strict-transport-security"]).toBe("max-age=31536000");
  });

  test("of a message's frame leave the policy to the message, and let our own page show it", async () => {
    const { headers } = await get("/messages/12/html");
    expect(headers["content-security-policy"]).toBeUndefined();
    expect(headers["x-frame-options"]).toBe("SAMEORIGIN");
  });
});

describe("files", () => {
  test("of the build are sent as they were compressed, and kept for ever", async () => {
    const { status, headers } = await get("/assets/a-1234.js", { "Accept-Encoding": "br, gzip" });
    expect(status).toBe(200);
    expect(headers["content-encoding"]).toBe("br");
    expect(headers["cache-control"]).toBe("public, max-age=31536000, immutable");
    expect((await get("/assets/a-1234.js")).text).toBe("export const words = 1;");
    expect((await get("/favicon.svg")).headers["content-type"]).toBe("image/svg+xml");
  });

  test("that are not there are not, and none lies above the folder", async () => {
    for (const path of [
      "/assets/none.js",
      "/assets/%2e%2e/%2e%2e/etc/passwd",
      "/assets/..%2f..%2fpackage.json",
    ]) {
      const { status, text } = await get(path);
      expect(text).not.toContain("plain-shelf");
      expect(status).toBeGreaterThanOrEqual(400);
    }
  });

  test("for the customer or from one are named in any script, and run nowhere", async () => {
    const { headers, text } = await get("/file");
    expect(text).toBe("%PDF-1.7");
    expect(headers["content-disposition"]).toBe(
      "inline; filename=\"F_hre _Tarn_.pdf\"; filename*=UTF-8''F%C3%A4hre%20%E2%80%9ETarn%E2%80%9C.pdf",
    );
    expect(headers["content-security-policy"]).toContain("sandbox");
    const script = await get("/script");
    expect(script.headers["content-disposition"]).toMatch(/^attachment; filename="a_b_c\.html"/);
  });
});

describe("what changes something", () => {
  test("must come from a page of ours, however the browser says where it came from", async () => {
    const cookie = await cookieOf(house.maren);
    const { port } = server.address() as AddressInfo;
    const from = (headers: Record<string, string>) =>
      get(
        "/act",
        { Cookie: cookie, "Content-Type": "application/json", "Content-Length": "14", ...headers },
        "POST",
        '{"words":"ok"}',
      );
    const elsewhere: Record<string, string>[] = [
      {},
      { Origin: "https://evil.example.net" },
      { Origin: "null" },
      { "Sec-Fetch-Site": "cross-site", Origin: `http://127.0.0.1:${port}` },
      { "Sec-Fetch-Site": "same-site" },
      { "Sec-Fetch-Site": "none" },
    ];
    for (const headers of elsewhere)
      expect({ headers, status: (await from(headers)).status }).toEqual({ headers, status: 403 });
    expect((await from({ Origin: `http://127.0.0.1:${port}` })).status).toBe(200);
    expect((await from({ "Sec-Fetch-Site": "same-origin" })).status).toBe(200);
  });

  test("wants somebody who is signed in, before anything of it is read", async () => {
    const { status, text, headers } = await post("/act", '{"words":"ok"}');
    expect([status, JSON.parse(text)]).toEqual([401, { problem: "Your session has ended. Sign in again." }]);
    expect(headers.connection).toBe("close");
  });

  test("is refused in a sentence that says where and why", async () => {
    const Cookie = await cookieOf(house.maren);
    const answers = await Promise.all(
      ['{"words":"ok"}', '{"words":"far too long"}', "{", '{"words":"no"}', '{"words":"a\\u0000"}'].map(
        (body) => post("/act", body, { Cookie }),
      ),
    );
    expect(answers.map(({ status, text }) => [status, JSON.parse(text) as unknown])).toEqual([
      [200, { words: "ok" }],
      [400, { status: 400, problem: "words: is too long", at: "words" }],
      [400, { status: 400, problem: "The request is no JSON" }],
      [403, { status: 403, problem: "That is not yours" }],
      [400, { status: 400, problem: "words holds a NUL character; remove it and try again" }],
    ]);
  });
});

describe("limits", () => {
  test.each([
    ["/sign-in", 8 * 1024 + 1, "That is too large: at most 8 kB are taken here."],
    ["/cases/7/draft", 2 * 1024 ** 2 + 1, "That is too large: at most 2 MB are taken here."],
    ["/cases/7/draft.data", 2 * 1024 ** 2 + 1, "That is too large: at most 2 MB are taken here."],
    ["/cases/7/files", 21 * 1024 ** 2 + 1, "That is too large: at most 21 MB are taken here."],
    ["/anything", 256 * 1024 + 1, "That is too large: at most 256 kB are taken here."],
  ])("%s takes no body of %d bytes, and waits for none of it", async (path, length, problem) => {
    const answer = await get(
      path,
      {
        "Content-Length": String(length),
        "Content-Type": "application/json",
        "Sec-Fetch-Site": "same-origin",
      },
      "POST",
      "",
    );
    expect([answer.status, JSON.parse(answer.text)]).toEqual([413, { problem }]);
  });

  test("who is still sending what is too large hears why, and not of a broken connection", async () => {
    for (let time = 0; time < 5; time += 1) {
      const { status } = await post("/cases/7/draft", "x".repeat(6 * 1024 ** 2));
      expect(status).toBe(413);
    }
  });

  test("a body must say how long it is", async () => {
    const { status } = await get("/act", { "Transfer-Encoding": "chunked" }, "POST", "{}");
    expect(status).toBe(411);
  });

  test.each(["/who%00", "/who?a=%00", "/%E0%A4%A", "/who?%"])("%s is no address", async (path) => {
    const { status, text } = await get(path);
    expect([status, text]).toEqual([400, "This address cannot be read. Go back and follow a link of ours."]);
  });

  test("who asks much more often than a hand can is told to wait, and others are not", async () => {
    const [hasty, other] = [await cookieOf(house.bram), await cookieOf(house.maren)];
    const answers = await Promise.all(
      Array.from({ length: 63 }, () => post("/replies/files", '{"words":"ok"}', { Cookie: hasty })),
    );
    const refused = answers.filter(({ status }) => status === 429);
    expect(refused).toHaveLength(3);
    expect(refused[0]?.text).toMatch(/That was too often\. Wait \d+ s, then try again\./);
    expect(Number(refused[0]?.headers["retry-after"])).toBeGreaterThan(0);
    expect((await post("/replies/files", '{"words":"ok"}', { Cookie: other })).status).toBe(200);
    expect((await post("/act", '{"words":"ok"}', { Cookie: hasty })).status).toBe(200);
  });
});

test("what fails says nothing of why", async () => {
  const { status, text } = await get("/broken");
  expect(status).toBeGreaterThanOrEqual(500);
  expect(text).not.toContain("secret words");
});

test("a stream is sent as it comes, not held back to be compressed", async () => {
  const { headers } = await get("/events", { "Accept-Encoding": "gzip, br" });
  expect(headers["content-encoding"]).toBeUndefined();
});

describe("/healthz", () => {
  test("is well when each part is, and says which is not", async () => {
    await house.em().nativeDelete(Heartbeat, {});
    const without = await get("/healthz");
    expect([without.status, JSON.parse(without.text)]).toEqual([
      503,
      { database: true, jobs: false, receiving: true, ranking: "ready" },
    ]);
    await house.em().insert(Heartbeat, { name: "jobs", beatAt: new Date() });
    const well = await get("/healthz");
    expect([well.status, JSON.parse(well.text)]).toEqual([
      200,
      { database: true, jobs: true, receiving: true, ranking: "ready" },
    ]);
    expect(well.headers["cache-control"]).toBe("no-store");
  });

  test("a ranking that is being read is well, one that is down is not", async () => {
    ranker.state = "reading";
    expect((await get("/healthz")).status).toBe(200);
    ranker.state = "down";
    expect((await get("/healthz")).status).toBe(503);
    ranker.state = "ready";
  });
});
