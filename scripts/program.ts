import type { ChildProcess } from "node:child_process";

/** Waits until an `npm start` whose output comes through pipes serves. @returns what it printed @throws that, when it ends before */
export function started(program: ChildProcess): Promise<string> {
  return new Promise((resolve, reject) => {
    let output = "";
    const onData = (chunk: Buffer) => {
      output += chunk.toString();
      if (output.includes("Plain Shelf is at")) resolve(output);
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
