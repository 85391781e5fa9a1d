import { parentPort, workerData } from "node:worker_threads";
import { connect, disconnect } from "../db/orm";
import { stopRankers } from "../ranking/house-ranker";
import { loggable } from "../told";
import { rehearseRule, type Rehearsal } from "./rehearse";

/** What a rehearsing thread is given. */
export interface ToRehearse {
  /** postgresql:// address of the database. */
  url: string;
  rule: number;
  most: number;
}

/** What it says. */
export type Rehearsing =
  | { kind: "read"; read: number; of: number }
  | { kind: "done"; rehearsal: Rehearsal }
  | { kind: "failed"; problem: string };

const { url, rule, most } = workerData as ToRehearse;
const say = (said: Rehearsing) => parentPort?.postMessage(said);
try {
  const orm = await connect(url);
  const tell = (read: number, of: number) => say({ kind: "read", read, of });
  say({ kind: "done", rehearsal: await rehearseRule(orm.em.fork(), rule, most, new Date(), tell) });
} catch (error) {
  say({ kind: "failed", problem: loggable(error) });
} finally {
  await stopRankers();
  await disconnect();
}
