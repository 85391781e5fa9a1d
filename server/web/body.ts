import { z } from "zod";
import { Unusable } from "../errors";
import { t } from "../words";

/** Deepest nesting of a request's JSON that is read. */
const DEEPEST = 100;
/** Most values in a request's JSON. */
const MOST_VALUES = 200_000;

/** Reads a request's JSON by a schema. @throws ZodError; Unusable where it is no JSON, or holds what no text has */
export async function readBody<T>(request: Request, schema: z.core.$ZodType<T>): Promise<T> {
  let json: unknown;
  try {
    json = await request.json();
  } catch {
    throw new Unusable(t("theRequestIsNoJson"));
  }
  refuseUnusable(json);
  return z.parse(schema, json);
}

/** Reads a request's form. @throws Unusable where it is none, or holds what no text has */
export async function readForm(request: Request): Promise<FormData> {
  let form: FormData;
  try {
    form = await request.formData();
  } catch {
    throw new Unusable(t("theRequestIsNoForm"));
  }
  refuseUnusable(
    Object.fromEntries([...form].map(([name, value]) => [name, typeof value === "string" ? value : ""])),
  );
  return form;
}

/** Reads the parameters of an address by a schema. @throws ZodError; Unusable where they hold what no text has */
export function readQuery<T>(request: Request, schema: z.ZodType<T>): T {
  const query = Object.fromEntries(new URL(request.url).searchParams);
  refuseUnusable(query);
  return schema.parse(query);
}

/**
 * Refuses what no text of ours has (NUL, half surrogate pairs), what is nested too deep and what has too many parts, before
 * anything is made of it. Walks without recursion: what comes here may be of any depth.
 */
function refuseUnusable(value: unknown): void {
  const left: { value: unknown; path: string; depth: number }[] = [{ value, path: "", depth: 0 }];
  for (let count = 0; left.length > 0; count += 1) {
    const one = left.pop();
    if (!one) return;
    const where = one.path === "" ? "The request" : one.path;
    if (count > MOST_VALUES) throw new Unusable(t("theRequestHasMoreThanMost", { MOST_VALUES }));
    if (one.depth > DEEPEST)
      throw new Unusable(t("whereNestedDeeperThanDeepestLevels", { where: where.slice(0, 100), DEEPEST }));
    if (typeof one.value === "string") refuseText(one.value, where);
    else if (typeof one.value === "object" && one.value !== null)
      for (const [key, inner] of Object.entries(one.value)) {
        refuseText(key, where);
        left.push({ value: inner, path: one.path === "" ? key : `${one.path}.${key}`, depth: one.depth + 1 });
      }
  }
}

function refuseText(text: string, where: string): void {
  const what = text.includes("\u0000") ? "a NUL character" : text.isWellFormed() ? null : "half a character";
  if (what) throw new Unusable(t("whereHoldsWhatTakeItOut", { where: where.slice(0, 200), what }));
}
