import type { EntityManager } from "@mikro-orm/postgresql";
import { steps, type StepName } from "#core/forms/steps";
import { Person, SetupStep } from "../db/entities/people";
import { preparedOne } from "../db/sql";
import { requireRole, type Viewer } from "../people/viewer";

/** A step of setting up the house. */
export interface Step {
  name: StepName;
  state: "done" | "skipped" | "open";
}

/** The steps in their order. A step is done when what it is for is there, or somebody did it. */
export async function readSteps(em: EntityManager): Promise<Step[]> {
  const known = await em.find(SetupStep, {});
  const there = await preparedOne<Record<StepName, boolean>>(
    em,
    `select false as house, false as team, false as mail,
            (select count(*) > 1 from people where active) as people,
            exists (select 1 from shelves where audience <> 'owner') as shelf,
            exists (select 1 from replies where state = 'shelved') as reply`,
  );
  return steps.map((name) => ({
    name,
    state: there[name] ? "done" : (known.find((one) => one.step === name)?.state ?? "open"),
  }));
}

/** The first step that is neither done nor skipped; null where there is none. */
export async function nextStep(em: EntityManager): Promise<StepName | null> {
  return (await readSteps(em)).find((step) => step.state === "open")?.name ?? null;
}

/** Puts a step down as done. */
export async function doStep(em: EntityManager, viewer: Viewer, step: StepName, now: Date): Promise<void> {
  await put(em, viewer, step, "done", now);
}

/** Skips a step; it can be done all the same. @throws NotAllowed unless lead */
export async function skipStep(em: EntityManager, viewer: Viewer, step: StepName, now: Date): Promise<void> {
  requireRole(viewer, "lead");
  const known = await em.findOne(SetupStep, { step });
  if (known?.state !== "done") await put(em, viewer, step, "skipped", now);
}

async function put(
  em: EntityManager,
  viewer: Viewer,
  step: StepName,
  state: "done" | "skipped",
  at: Date,
): Promise<void> {
  await em.upsert(SetupStep, { step, state, person: em.getReference(Person, viewer.id), at });
}
