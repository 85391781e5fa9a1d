import { z } from "zod";

const inDatabase = z.object({
  code: z.string().regex(/^[0-9A-Z]{5}$/),
  table: z.string().optional(),
  constraint: z.string().optional(),
});
const LONGEST = 300;

/**
 * What went wrong, as a log may keep it: never values of statements, bodies or drafts. Errors of the database carry
 * whole statements with their values in their message, and parsers parts of what they read: of those only the kind is told.
 */
export function loggable(error: unknown): string {
  if (!(error instanceof Error)) return `something that is no error: ${typeof error}`;
  for (let one: unknown = error; one instanceof Error; one = one.cause) {
    const { data } = inDatabase.safeParse(one);
    if (data) return ["database", data.code, data.constraint ?? data.table].filter(Boolean).join(" ");
  }
  if (error.constructor.name.endsWith("Exception")) return error.constructor.name;
  if (error instanceof SyntaxError || error instanceof z.ZodError || error instanceof URIError)
    return error.name;
  return `${error.name}: ${error.message.split("\n", 1)[0]?.slice(0, LONGEST) ?? ""}`;
}

/** Where an error came about: its frames, without its message. */
export function framesOf(error: unknown): string | undefined {
  if (!(error instanceof Error)) return undefined;
  return error.stack
    ?.split("\n")
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 12)
    .join("\n");
}

/** Has a process end with one line of its log, where nobody caught what went wrong: what Node would print has values in it. */
export function endOnFaults(
  write: (line: { event: string; error: string; stack: string | undefined }) => void,
): void {
  const end = (event: string) => (error: unknown) => {
    write({ event, error: loggable(error), stack: framesOf(error) });
    process.exit(1);
  };
  process.on("uncaughtException", end("fault that nobody caught"));
  process.on("unhandledRejection", end("failure that nobody awaited"));
}
