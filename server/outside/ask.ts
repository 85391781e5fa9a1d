import { z } from "zod";
import { reasonOf } from "#core/text/reason";
import { environment } from "../environment";
import { NotFound, Unusable } from "../errors";
import { t } from "../words";

const problemSchema = z.object({ problem: z.string() });

/** Asks the simulated outside. @throws NotFound; Unusable with its words where it refuses or cannot be reached */
export async function ask(path: string, init: RequestInit = {}): Promise<Response> {
  const { standins } = environment();
  if (!standins.on) throw new NotFound(t("theSimulatedOutsideIsSwitchedOff"));
  let response: Response;
  try {
    response = await fetch(standins.url + path, {
      ...init,
      signal: AbortSignal.timeout(8000),
      headers: { "Content-Type": "application/json" },
    });
  } catch (error) {
    throw new Unusable(t("theSimulatedOutsideCannotBeReached", { error: reasonOf(error) }));
  }
  if (response.ok) return response;
  const told = problemSchema.safeParse(await response.json().catch(() => null));
  const words = told.success ? told.data.problem : `The simulated outside answers ${response.status}`;
  throw response.status === 404 ? new NotFound(words) : new Unusable(words);
}

/** The same, its answer read by a schema. */
export async function askFor<T>(schema: z.ZodType<T>, path: string): Promise<T> {
  return schema.parse(await (await ask(path)).json());
}
