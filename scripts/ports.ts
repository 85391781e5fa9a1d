import getPort from "get-port";

/** Whether nobody listens on a port of a host. What was found free is not given out again for half a minute. */
export async function isFree(port: number, host = "127.0.0.1"): Promise<boolean> {
  return (await getPort({ port, host })) === port;
}

/** A port that was free just now. */
export function freePort(): Promise<number> {
  return getPort({ host: "127.0.0.1" });
}

/** A port whose neighbour is free too: the stand-in mail server listens one above its HTTP interface. */
export async function freePair(): Promise<number> {
  for (;;) {
    const port = await freePort();
    if (port < 65_535 && (await isFree(port + 1))) return port;
  }
}
