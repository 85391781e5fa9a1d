import { once } from "node:events";
import { runTo } from "./run";

const { status, stderr } = await runTo(process.argv.slice(2), async (text) => {
  // What reads it may be slower than we are.
  if (!process.stdout.write(text)) await once(process.stdout, "drain");
});
process.stderr.write(stderr);
process.exitCode = status;
