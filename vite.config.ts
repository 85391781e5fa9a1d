import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { mkdirSync, writeFileSync } from "node:fs";
import { defineConfig, type Plugin } from "vite";

/** The package that a module is of; of ours, the folder. */
function partOf(module: string): string {
  const [, inPackage] = /.*\/node_modules\/((?:@[^/]+\/)?[^/]+)/.exec(module) ?? [];
  const [, own] = /\/((?:app|core)\/[^/]+)/.exec(module) ?? [];
  return inPackage ?? own ?? "other";
}

/** Writes down what the scripts are made of, in bytes by package, for `npm run bench -- screens`. */
function partsOfScripts(): Plugin {
  return {
    name: "parts-of-scripts",
    generateBundle(_options, bundle) {
      const parts: Record<string, Record<string, number>> = {};
      for (const [file, chunk] of Object.entries(bundle)) {
        if (chunk.type !== "chunk") continue;
        const sizes: Record<string, number> = {};
        for (const [module, { renderedLength }] of Object.entries(chunk.modules)) {
          const part = partOf(module);
          sizes[part] = (sizes[part] ?? 0) + renderedLength;
        }
        parts[file] = sizes;
      }
      mkdirSync("build", { recursive: true });
      writeFileSync("build/parts.json", JSON.stringify(parts));
    },
  };
}

export default defineConfig(({ isSsrBuild }) => ({
  // The server's bundle starts from the web process, so that it and the routes share one database connection.
  build: isSsrBuild ? { rollupOptions: { input: "./server/web/start.ts" } } : { assetsInlineLimit: 0 },
  plugins: [tailwindcss(), reactRouter(), ...(isSsrBuild ? [] : [partsOfScripts()])],
}));
