import { createServer } from "node:net";

/** Whether nobody listens on a port of a host. */
export function isFree(port: number, host = "127.0.0.1"): Promise<boolean> {
  return new Promise((resolve) => {
    const server = createServer();
    server.once("error", () => resolve(false));
    server.listen(port, host, () => server.close(() => resolve(true)));
  });
}

/** A port that was free just now. */
export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once("error", reject);
    server.listen(0, "127.0.0.1", () => {
      const address = server.address();
      server.close(() =>
        typeof address === "object" && address ? resolve(address.port) : reject(new Error("No port")),
      );
    });
  });
}

/** A port whose neighbour is free too: the stand-in mail server listens one above its HTTP interface. */
export async function freePair(): Promise<number> {
  for (;;) {
    const port = await freePort();
    if (port < 65_535 && (await isFree(port + 1))) return port;
  }
}
