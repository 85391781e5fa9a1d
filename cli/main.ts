import { run } from "./run";

const { status, stdout, stderr } = await run(process.argv.slice(2));
process.stdout.write(stdout);
process.stderr.write(stderr);
process.exitCode = status;
