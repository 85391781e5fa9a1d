import { reasonOf } from "#core/text/reason";
import { spawn } from "node:child_process";
import { launch } from "./launch";

/** `npm start`: builds when the source has changed, and runs everything. */
const tsx = ["--import", "tsx"];

function build(): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [...tsx, "scripts/build.ts"], {
      stdio: ["ignore", "ignore", "inherit"],
    });
    child.once("exit", (code) => (code === 0 ? resolve() : reject(new Error("The build failed; see above"))));
  });
}

process.env.NODE_ENV = "production";
await launch({
  build,
  web: [...tsx, "server/web/main.ts"],
  jobs: [...tsx, "server/jobs/main.ts"],
  standins: [...tsx, "standins/main.ts"],
}).catch((error: unknown) => {
  process.stderr.write(`plain-shelf: ${reasonOf(error)}\n`);
  process.exitCode = 1;
});
