import type { ChildProcess } from "node:child_process";

/** Waits until an `npm start` whose output comes through pipes serves. @throws what it printed, when it ends before */
export function started(program: ChildProcess): Promise<void> {
  return new Promise((resolve, reject) => {
    let output = "";
    const onData = (chunk: Buffer) => {
      output += chunk.toString();
      if (output.includes("Plain Shelf is at")) resolve();
    };
    program.stdout?.on("data", onData);
    program.stderr?.on("data", onData);
    program.once("exit", (code) => reject(new Error(`npm start ended with ${code}:\n${output}`)));
  });
}

/** Stops it with all that it started, and waits for that. */
export function stopped(program: ChildProcess): Promise<void> {
  if (program.exitCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    program.removeAllListeners("exit");
    program.once("exit", () => resolve());
    program.kill("SIGTERM");
  });
}
