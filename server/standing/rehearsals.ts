import { Worker } from "node:worker_threads";
import type { EntityManager } from "@mikro-orm/postgresql";
import { LRUCache } from "lru-cache";
import { log } from "../log";
import { requireRole, type Viewer } from "../people/viewer";
import { Conflict } from "../errors";
import { threadOf } from "../threads";
import { t } from "../words";
import type { Rehearsal } from "./rehearse";
import { ruleById } from "./rules";
import type { Rehearsing, ToRehearse } from "./thread";

const BEGIN = threadOf("server/standing/thread.ts");
const MEMORY_MB = 400;

/** How far a rehearsal is. */
export type RehearsalState =
  | { kind: "none" }
  | { kind: "read"; read: number; of: number }
  | { kind: "done"; rehearsal: Rehearsal }
  | { kind: "failed"; problem: string };

interface Held {
  state: RehearsalState;
  worker: Worker | null;
}

/** The latest rehearsals of this process, by database and rule. */
const rehearsals = new LRUCache<string, Held>({ max: 50 });

const keyOf = (em: EntityManager, rule: number) => `${em.config.get("clientUrl") ?? ""} ${rule}`;

/** Begins to try a rule on the latest messages, in a thread of its own. @throws NotAllowed unless lead; NotFound; Conflict while it is tried */
export async function beginRehearsal(
  em: EntityManager,
  viewer: Viewer,
  rule: number,
  most: number,
): Promise<void> {
  requireRole(viewer, "lead");
  await ruleById(em, rule);
  const key = keyOf(em, rule);
  if (rehearsals.get(key)?.worker != null) throw new Conflict(t("rehearsalIsUnderWay"));
  const workerData = { url: em.config.get("clientUrl") ?? "", rule, most } satisfies ToRehearse;
  const worker = new Worker(BEGIN, {
    ...{ eval: true, workerData, execArgv: [] },
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
  });
  const held: Held = { state: { kind: "read", read: 0, of: 0 }, worker };
  rehearsals.set(key, held);
  worker.on("message", (said: Rehearsing) => (held.state = said));
  worker.on("error", (error) => {
    log.error({ event: "rehearsal failed", error: error.message });
    held.state = { kind: "failed", problem: error.message };
  });
  worker.on("exit", () => {
    held.worker = null;
    // Whoever ended it before it was done gave it up.
    if (held.state.kind === "read") held.state = { kind: "none" };
  });
}

/** Gives a rehearsal up. @throws NotAllowed unless lead */
export async function endRehearsal(em: EntityManager, viewer: Viewer, rule: number): Promise<void> {
  requireRole(viewer, "lead");
  await rehearsals.get(keyOf(em, rule))?.worker?.terminate();
}

/** How far the rehearsal of a rule is, and what it found. @throws NotAllowed unless lead */
export function rehearsalOf(em: EntityManager, viewer: Viewer, rule: number): RehearsalState {
  requireRole(viewer, "lead");
  return rehearsals.get(keyOf(em, rule))?.state ?? { kind: "none" };
}
