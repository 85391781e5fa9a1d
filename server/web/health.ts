import { connect as connectTo } from "node:net";
import type { MikroORM } from "@mikro-orm/postgresql";
import { Heartbeat } from "../db/entities/people";
import type { RankerState } from "../ranking/house-ranker";
import type { Environment } from "../environment";

const STALE_MS = 20_000;

/** Whether the parts of the program are alive. */
export interface Health {
  database: boolean;
  jobs: boolean;
  receiving: boolean;
  /** Whether replies are found and ranked: reading right after the start, down while a thread that died is begun again. */
  ranking: RankerState;
}

/** Looks at the database, the job runner's heartbeat, the receiving port and the ranking thread. Never throws. */
export async function health(
  orm: MikroORM,
  environment: Environment,
  ranker: { state: RankerState },
): Promise<Health> {
  const [jobs, receiving] = await Promise.all([
    jobsAlive(orm),
    answers(environment.inboundSmtpPort, environment.host),
  ]);
  return { database: jobs !== null, jobs: jobs === true, receiving, ranking: ranker.state };
}

/** Null when the database cannot be asked. */
async function jobsAlive(orm: MikroORM): Promise<boolean | null> {
  try {
    return (await orm.em.fork().count(Heartbeat, { beatAt: { $gt: new Date(Date.now() - STALE_MS) } })) > 0;
  } catch {
    return null; // Told as database: false.
  }
}

function answers(port: number, host: string): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connectTo({ port, host: host === "0.0.0.0" ? "127.0.0.1" : host, timeout: 2000 });
    const done = (alive: boolean) => {
      socket.destroy();
      resolve(alive);
    };
    socket.once("connect", () => done(true));
    socket.once("error", () => done(false));
    socket.once("timeout", () => done(false));
  });
}
