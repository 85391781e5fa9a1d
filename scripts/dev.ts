import { reasonOf } from "#core/text/reason";
import { launch } from "./launch";

/** `npm run dev`: the same with reload; routes and screens change in place, the other processes start anew. */
const watch = (script: string) => ["node_modules/tsx/dist/cli.mjs", "watch", "--clear-screen=false", script];

await launch({
  build: () => Promise.resolve(),
  web: watch("scripts/dev-web.ts"),
  jobs: watch("server/jobs/main.ts"),
  standins: watch("standins/main.ts"),
}).catch((error: unknown) => {
  process.stderr.write(`plain-shelf: ${reasonOf(error)}\n`);
  process.exitCode = 1;
});
