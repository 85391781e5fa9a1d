import { resolve } from "node:path";
import { pathToFileURL } from "node:url";

/**
 * What a thread is begun with (`new Worker(…, { eval: true })`): the processes run in the program's folder, whose sources
 * they read; a thread must be told how to read TypeScript.
 * @param path of its module, from that folder
 */
export function threadOf(path: string): string {
  const module = JSON.stringify(pathToFileURL(resolve(path)).href);
  return `import("tsx/esm/api").then(({ register }) => { register(); return import(${module}); })`;
}
