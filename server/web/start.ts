import "./heap";
import type { Express } from "express";
import type { Server } from "node:http";
import { connect, disconnect } from "../db/orm";
import { chatSockets } from "../chats/socket";
import { databaseReady } from "../db/ready";
import { environment } from "../environment";
import { closeHub, onEvent, openHub } from "../events/hub";
import { startBoss, useBoss } from "../queue/boss";
import { log } from "../log";
import { keptBest } from "../ranking/kept";
import { startRanker, stopRankers } from "../ranking/house-ranker";
import { endOnFaults } from "../told";
import { webApp } from "./app";

const serverBuild = () => import("virtual:react-router/server-build");

/**
 * Starts the web process. It and the routes come from one bundle, and so share one database connection.
 * @param assets folder of built assets; null while developing
 * @returns the application, for the developer's server, and how to stop
 */
export async function createWeb(assets: string | null): Promise<{
  app: Express;
  /** Holds customers' chat windows on the server that serves the application. */
  hold: (server: Server) => void;
  stop: () => Promise<void>;
}> {
  endOnFaults((line) => log.fatal(line));
  const settings = environment();
  await databaseReady(settings.databaseUrl, (problem) =>
    log.warn({ event: "waiting for the database", problem }),
  );
  const orm = await connect(settings.databaseUrl);
  const boss = await startBoss(settings.databaseUrl, "sender");
  useBoss(boss);
  await openHub(settings.databaseUrl);
  const ranker = startRanker(settings.databaseUrl);
  onEvent(({ kind }) => {
    // The library was changed: what fits best is found out anew.
    if (kind === "shelf") keptBest.clear();
  });
  const app = webApp({
    orm,
    environment: settings,
    ranker,
    // Developing, it changes; else what it says of the routes is worked out once.
    build: assets === null ? serverBuild : await serverBuild(),
    assets,
  });
  let letGo = (): void => undefined;
  return {
    app,
    hold(server) {
      letGo = chatSockets(server, () => orm.em.fork());
    },
    async stop() {
      letGo();
      await boss.stop({ graceful: false });
      await stopRankers();
      await closeHub();
      await disconnect();
    },
  };
}

/** Listens as the environment says, until told to stop. */
export async function serve(assets: string): Promise<void> {
  const settings = environment();
  const { app, hold, stop } = await createWeb(assets);
  const server = await new Promise<Server>((resolve, reject) => {
    const listening = app.listen(settings.port, settings.host, (error?: Error) =>
      error ? reject(error) : resolve(listening),
    );
  });
  hold(server);
  log.info({ event: "web ready", host: settings.host, port: settings.port });
  for (const signal of ["SIGINT", "SIGTERM"] as const) {
    process.once(signal, () => {
      server.close();
      server.closeAllConnections();
      stop().then(
        () => process.exit(0),
        () => process.exit(1),
      );
    });
  }
}
