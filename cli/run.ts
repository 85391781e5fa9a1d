import { parseArgs } from "node:util";
import { z } from "zod";
import { lint } from "#core/checks/lint";
import { reasonOf } from "#core/text/reason";
import { replyChannels } from "#core/words/named";
import { isLanguageTag } from "#core/language/tag";
import { ferryDetails } from "../demo/details";
import { dkim } from "./dkim";
import { due, instantOption } from "./due";
import { Failure } from "./failure";
import { readLibrary } from "./read";
import { rank } from "./rank";
import { rehearse } from "./rehearse";
import { render } from "./render";

const USAGE = [
  "usage: shelf VERB [options]",
  "  render --library PATH --reply ID --context FILE [--blanks FILE] [--channel email|chat|sms] [--language TAG]",
  "  lint   --library PATH",
  "  user add --name NAME --email ADDRESS [--first NAME] [--role agent|curator|lead] [--team NAME]",
  "  dkim   --domain DOMAIN --out FILE [--selector shelf]",
  "  due    --calendar FILE --since INSTANT --within MINUTES [--pauses FILE]",
  "  rank   --replies FILE [--history FILE] --inquiries FILE [--top 5]",
  "  rehearse --rules FILE --messages FILE",
].join("\n");

const path = z.string({ error: "is wanted" }).min(1, "is empty");

const renderOptions = z.object({
  library: path,
  reply: path,
  context: path,
  blanks: path.optional(),
  channel: z.enum(replyChannels, `is one of ${replyChannels.join(", ")}`).default("email"),
  language: z.string().refine(isLanguageTag, "is a tag, as in en or pt-BR").optional(),
});
const lintOptions = z.object({ library: path });
const rankOptions = z.object({
  replies: path,
  history: path.optional(),
  inquiries: path,
  top: z.coerce
    .number("is a number")
    .int("is a whole number")
    .min(1, "is at least 1")
    .max(1000, "is at most 1000")
    .default(5),
});

const rehearseOptions = z.object({ rules: path, messages: path });

const userOptions = z.object({
  name: path,
  first: path.optional(),
  email: path,
  role: z.enum(["agent", "curator", "lead"], "is one of agent, curator, lead").default("agent"),
  team: path.optional(),
});

const dkimOptions = z.object({ domain: path, out: path, selector: path.default("shelf") });

const dueOptions = z.object({
  calendar: path,
  since: instantOption,
  within: z.coerce
    .number("is a number of minutes")
    .min(0, "is at least 0")
    .max(1_000_000, "is at most 1000000"),
  pauses: path.optional(),
});

function read<T>(schema: z.ZodType<T>, args: string[]): T {
  let values: unknown;
  try {
    const option = { type: "string" } as const;
    values = parseArgs({
      args,
      options: {
        library: option,
        reply: option,
        context: option,
        blanks: option,
        channel: option,
        language: option,
        replies: option,
        history: option,
        inquiries: option,
        top: option,
        name: option,
        first: option,
        email: option,
        role: option,
        team: option,
        domain: option,
        selector: option,
        out: option,
        calendar: option,
        since: option,
        within: option,
        pauses: option,
        rules: option,
        messages: option,
      },
    }).values;
  } catch (error) {
    const [first = "wrong use"] = reasonOf(error).split("\n");
    throw new Failure(first, 2);
  }
  const parsed = schema.safeParse(values);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new Failure(`--${String(issue?.path[0] ?? "")} ${issue?.message ?? "is not usable"}`, 2);
}

async function linesOf([verb, ...args]: string[]): Promise<Iterable<string> | AsyncIterable<string>> {
  switch (verb) {
    case "render":
      return [JSON.stringify(await render(read(renderOptions, args)), null, 2)];
    case "lint": {
      const { library, problems } = await readLibrary(read(lintOptions, args).library);
      return lint(library, problems, ferryDetails, new Date().toISOString()).map((finding) =>
        JSON.stringify(finding),
      );
    }
    case "user": {
      const [act, ...options] = args;
      if (act !== "add") throw new Failure(`“user ${act ?? ""}” is no verb of shelf; try user add`, 2);
      // What needs a database is read only where one is wanted.
      const { userAdd } = await import("./user-add");
      return [await userAdd(read(userOptions, options))];
    }
    case "dkim":
      return [JSON.stringify(dkim(read(dkimOptions, args)), null, 2)];
    case "due":
      return [JSON.stringify(await due(read(dueOptions, args)), null, 2)];
    case "rank":
      return rank(read(rankOptions, args));
    case "rehearse":
      return rehearse(read(rehearseOptions, args));
    case undefined:
    case "help":
    case "--help":
      throw new Failure(USAGE, 2);
    default:
      throw new Failure(
        `“${verb}” is no verb of shelf; try render, lint, rank, rehearse, due, dkim or user add`,
        2,
      );
  }
}

/** What came of a command: what it prints, and the code that it exits with. */
export interface Ran {
  status: number;
  stdout: string;
  stderr: string;
}

/**
 * Runs a command of `shelf`.
 * @param args as they stand behind its name
 * @param print takes what it prints, as it comes
 */
export async function runTo(
  args: string[],
  print: (text: string) => Promise<void> | void,
): Promise<Omit<Ran, "stdout">> {
  try {
    for await (const line of await linesOf(args)) await print(`${line}\n`);
    return { status: 0, stderr: "" };
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    return { status: error.exitCode, stderr: `shelf: ${error.message}\n` };
  }
}

/** The same, with all that it prints at once. */
export async function run(args: string[]): Promise<Ran> {
  let stdout = "";
  const ran = await runTo(args, (text) => {
    stdout += text;
  });
  return { ...ran, stdout };
}
