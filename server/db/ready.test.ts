import { afterEach, expect, test } from "@jest/globals";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer, connect as connectTo, type Server } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { databaseReady } from "./ready";

const server = new URL(process.env.TEST_DATABASE_URL ?? "");
let proxy: Server | null = null;
afterEach(() => {
  proxy?.close();
});

/** Hands everything on to the database, on a port or socket of its own. */
function listen(at: number | string): Promise<number> {
  const made = createServer((socket) => {
    const inner = connectTo(Number(server.port), "127.0.0.1");
    socket.pipe(inner).pipe(socket);
    for (const end of [socket, inner]) end.on("error", () => undefined);
  });
  proxy = made;
  return new Promise((resolve) =>
    made.listen(typeof at === "number" ? { port: at, host: "127.0.0.1" } : { path: at }, () => {
      const address = made.address();
      resolve(typeof address === "object" && address !== null ? address.port : 0);
    }),
  );
}

/** Waits for a database whose way in is opened once it is waited for. @returns what was told meanwhile */
async function waitFor(url: URL, open: () => Promise<unknown>): Promise<string[]> {
  const said: string[] = [];
  let ready = Promise.resolve();
  await new Promise<void>((waits) => {
    ready = databaseReady(url.href, (problem) => {
      said.push(problem);
      waits();
    });
  });
  await open();
  await ready;
  return said;
}

test("a database that is not there yet is waited for, and that is told once", async () => {
  const port = await listen(0);
  await new Promise((done) => proxy?.close(done));
  const url = new URL(server.href);
  url.hostname = "127.0.0.1";
  url.port = String(port);
  expect(await waitFor(url, () => listen(port))).toEqual(["ECONNREFUSED"]);
});

test("one whose socket is not there yet is waited for too", async () => {
  const folder = mkdtempSync(join(tmpdir(), "socket-"));
  const url = new URL(server.href);
  url.hostname = encodeURIComponent(folder);
  expect(await waitFor(url, () => listen(join(folder, `.s.PGSQL.${server.port}`)))).toEqual(["ENOENT"]);
  proxy?.close();
  rmSync(folder, { recursive: true });
});

test("one that never lets in is not waited for", async () => {
  const url = new URL(server.href);
  url.password = "wrong";
  await expect(databaseReady(url.href, () => undefined)).rejects.toThrow(/password/);
});
