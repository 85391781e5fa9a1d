import { afterEach, expect, test } from "@jest/globals";
import { createServer, connect as connectTo, type Server } from "node:net";
import { databaseReady } from "./ready";

const server = new URL(process.env.TEST_DATABASE_URL ?? "");
let proxy: Server | null = null;
afterEach(() => {
  proxy?.close();
});

/** Hands everything on to the database, on a port of its own. */
function listen(port: number): Promise<number> {
  const made = createServer((socket) => {
    const inner = connectTo(Number(server.port), server.hostname);
    socket.pipe(inner).pipe(socket);
    for (const end of [socket, inner]) end.on("error", () => undefined);
  });
  proxy = made;
  return new Promise((resolve) =>
    made.listen(port, "127.0.0.1", () => {
      const address = made.address();
      resolve(typeof address === "object" && address !== null ? address.port : 0);
    }),
  );
}

test("a database that is not there yet is waited for, and that is told once", async () => {
  const port = await listen(0);
  await new Promise((done) => proxy?.close(done));
  const url = new URL(server.href);
  url.port = String(port);
  const said: string[] = [];
  let ready = Promise.resolve();
  await new Promise<void>((waits) => {
    ready = databaseReady(url.href, (problem) => {
      said.push(problem);
      waits();
    });
  });
  await listen(port);
  await ready;
  expect(said).toEqual(["ECONNREFUSED"]);
});

test("one that never lets in is not waited for", async () => {
  const url = new URL(server.href);
  url.password = "wrong";
  await expect(databaseReady(url.href, () => undefined)).rejects.toThrow(/password/);
});
