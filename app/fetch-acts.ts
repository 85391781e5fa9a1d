import * as z from "zod/mini";

const manifest = z.object({
  routes: z.record(
    z.string(),
    z.object({ hasLoader: z.boolean(), hasClientAction: z.boolean(), module: z.string() }),
  ),
});

/** Fetches the scripts of what only acts: an act must not fail for a script that the server cannot give any more. */
export async function fetchActs(): Promise<void> {
  const { routes } = manifest.parse(Reflect.get(window, "__reactRouterManifest"));
  for (const { hasLoader, hasClientAction, module } of Object.values(routes))
    if (hasClientAction && !hasLoader) await import(/* @vite-ignore */ module);
}
