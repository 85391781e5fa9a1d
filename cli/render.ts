import { z } from "zod";
import { secondLook } from "#core/checks/second-look";
import { ferryDetails } from "../demo/details";
import { factLanguages, libraryTokens } from "#core/checks/lint";
import { compose } from "#core/compose/compose";
import { re2Patterns } from "#core/conditions/re2";
import { blankValueSchema } from "#core/tokens/blanks";
import { textFor } from "#core/document/texts";
import { contextSchema } from "#core/tokens/context";
import { catalogue } from "#core/tokens/catalogue";
import { guessLanguage } from "#core/language/guess";
import { Failure } from "./failure";
import { readChecked, readLibrary } from "./read";

export interface RenderOptions {
  library: string;
  reply: string;
  context: string;
  blanks?: string;
  channel: string;
  language?: string;
}

/**
 * Renders one reply of a library for a context, with its second look and trace.
 * @throws Failure when a file or the reply cannot be had
 */
export async function render(options: RenderOptions): Promise<object> {
  const { library, problems, attachments } = await readLibrary(options.library);
  const reply = library.replies.find((one) => one.id === options.reply);
  if (!reply) {
    const [problem] = problems;
    const hint = problem ? ` (${problem.where}: ${problem.message})` : "";
    throw new Failure(`${options.library}: there is no reply “${options.reply}”${hint}`);
  }
  const context = await readChecked(options.context, contextSchema);
  const values = options.blanks
    ? await readChecked(options.blanks, z.record(z.string(), blankValueSchema))
    : {};
  const [fallback] = reply.variants;
  const variant = reply.variants.find((one) => one.language === options.language) ?? fallback;
  const tokens = new Map([...ownCaseFields(context.case), ...libraryTokens(library, ferryDetails)]);
  const facts = Object.entries(library.houseFacts).map(([key, fact]) => [key, fact.value] as const);
  const whole = {
    ...context,
    house: { ...Object.fromEntries(facts), ...context.house },
    written: { ...factLanguages(library), ...context.written },
  };
  const slip = {
    id: reply.id,
    reply: reply.id,
    title: reply.title,
    part: reply.part,
    language: variant.language,
    document: textFor(variant, options.channel),
    blanks: reply.blanks,
    passages: reply.passages,
    values,
    subject: variant.subject,
    attachments: reply.attachments.flatMap((name) => attachments.get(name) ?? []),
  };
  const threadSubject = asText(context.case.subject);
  const inputs = {
    slips: [slip],
    context: whole,
    channel: options.channel,
    language: options.language ?? variant.language,
    tokens,
    patterns: re2Patterns,
    signature: null,
    stationery: null,
    subject: { from: reply.use_template_subject ? "reply" : "thread" } as const,
    threadSubject,
    caseNumber: asText(context.case.number) ?? "",
    attachments: [],
    contentId: (id: string) => id,
  };
  const letter = compose(inputs);
  const checks = secondLook({
    ...inputs,
    letter,
    recipient: asText(options.channel === "sms" ? context.customer.phone : context.customer.email),
    otherNames: [],
    sentReplies: [],
    standing: { is: "known", news: null, confirmed: false },
    languageOf: guessLanguage,
  });
  return {
    subject: letter.subject,
    html: options.channel === "email" ? letter.html : null,
    text: letter.text,
    attachments: [...letter.attachments, ...letter.pictures].map(({ name, contentType, size }) => ({
      name,
      contentType,
      size,
    })),
    checks,
    trace: letter.trace,
  };
}

function asText(value: unknown): string | null {
  return typeof value === "string" ? value : null;
}

/** Case details beyond the built-in ones are the house's own fields: they are known because they are there. */
function ownCaseFields(details: Record<string, unknown>) {
  const fields = Object.keys(details).map((key) => ({
    key,
    label: key.replaceAll("_", " "),
    type: "text" as const,
    example: "",
    ...{ of: "case" as const, topics: [], required: false, retired: false },
  }));
  return catalogue({ fields });
}
