/** An error for the person at the command line: one line, and the exit code that goes with it. */
export class Failure extends Error {
  readonly exitCode: 1 | 2;

  /** @param exitCode 1 where the work could not be done, 2 where the command was called wrongly */
  constructor(message: string, exitCode: 1 | 2 = 1) {
    super(message);
    this.exitCode = exitCode;
  }
}
