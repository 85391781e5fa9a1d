import { startTransition, useEffect, useState } from "react";
import * as z from "zod/mini";
import { contextSchema } from "#core/tokens/context";
import type { TrialCase } from "#core/compose/trials";
import { reasonOf } from "#core/text/reason";
import { readFrom } from "../../ui/read";
import { t } from "../../words/writing";

const cases = z.object({
  cases: z.array(
    z.object({
      number: z.number(),
      label: z.string(),
      customer: z.string(),
      channel: z.string(),
      language: z.string(),
      subject: z.string(),
      context: contextSchema,
    }),
  ),
});

const none: TrialCase[] = [];

/** Cases to try a reply on, fetched once and again when the writer asks for more. */
export function useTrialCases(pinned: number[]): { pool: TrialCase[]; problem: string | null } {
  const [pool, setPool] = useState<TrialCase[]>(none);
  const [problem, setProblem] = useState<string | null>(null);
  const wanted = pinned.join(",");
  useEffect(() => {
    const controller = new AbortController();
    const load = async () => {
      try {
        const read = cases.safeParse(await readFrom(`/replies/trials?pinned=${wanted}`, controller.signal));
        if (!read.success) throw new Error(t("theServersAnswerMakesNoSense"));
        startTransition(() => setPool(read.data.cases));
        const missing = wanted
          .split(",")
          .filter((number) => number !== "" && !read.data.cases.some((one) => String(one.number) === number));
        setProblem(missing.length > 0 ? t("thereIsNoCaseMissing", { missing: missing.join(", ") }) : null);
      } catch (error) {
        if (!controller.signal.aborted) setProblem(t("theCasesToTryOnCannot", { error: reasonOf(error) }));
      }
    };
    void load();
    return () => controller.abort();
  }, [wanted]);
  return { pool, problem };
}
