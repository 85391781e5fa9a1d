import express from "express";
import { createServer } from "vite";
import type * as StartModule from "#server/web/start";

/** The web process for developers: Vite serves the screens and reloads what changes. */
const vite = await createServer({ server: { middlewareMode: true } });
const { createWeb } = (await vite.ssrLoadModule("./server/web/start.ts")) as typeof StartModule;
const { app, hold, stop } = await createWeb(null);
const server = express().use(vite.middlewares).use(app);
const listening = server.listen(Number(process.env.PORT || 4310), process.env.HOST || "127.0.0.1");
hold(listening);

for (const signal of ["SIGINT", "SIGTERM"] as const) {
  process.once(signal, () => {
    listening.close();
    listening.closeAllConnections();
    void Promise.all([stop(), vite.close()]).then(() => process.exit(0));
  });
}
