import { build } from "esbuild";
import { mkdtempSync, rmSync } from "node:fs";
import { join, resolve } from "node:path";
import { pathToFileURL } from "node:url";

/**
 * Runs a measurement as the built program runs: bundled, without what a loader adds to names and fields.
 * @param module under bench/, without its ending
 * @param name the function that it exports
 */
export async function asBuilt(module: string, name: string): Promise<object> {
  // Beside node_modules, so that packages are found from there.
  const folder = mkdtempSync(join(resolve("build"), "bench-"));
  try {
    const outfile = join(folder, `${module}.mjs`);
    await build({
      entryPoints: [`bench/${module}.ts`],
      outfile,
      bundle: true,
      platform: "node",
      format: "esm",
      target: "node20",
      packages: "external",
      alias: { "#core": "./core" },
      logLevel: "error",
    });
    const built = (await import(pathToFileURL(outfile).href)) as Record<
      string,
      () => object | Promise<object>
    >;
    const run = built[name];
    if (!run) throw new Error(`bench/${module}.ts has no ${name}`);
    return await run();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
