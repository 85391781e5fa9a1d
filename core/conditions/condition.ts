import * as z from "zod/mini";
import { t } from "../words/conditions";

/** The tests that a condition can make of a value. */
export const operators = [
  "present",
  "missing",
  "equals",
  "differs",
  "contains",
  "lacks",
  "starts",
  "ends",
  "matches",
  "one_of",
  "less",
  "at_most",
  "more",
  "at_least",
  "before",
  "after",
  "between",
] as const;
export type Operator = (typeof operators)[number];

/** A regular expression that is longer is refused. */
export const MAX_PATTERN_LENGTH = 500;
/** So much of a text is looked through for a pattern, in UTF-16 units: what is asked stands at a message's beginning. */
export const MAX_MATCHED_LENGTH = 20_000;
const MAX_DEPTH = 12;
/** A condition of more tests is refused. */
const MAX_TESTS = 500;

const scalar = z.union([z.string().check(z.maxLength(2000)), z.number(), z.boolean()]);
type Scalar = z.infer<typeof scalar>;

/** One test: a token, a blank or the inbound message against a value. */
export interface Test {
  /** `group.key`, `blank.NAME` or `message.PART`. */
  value: string;
  is: Operator;
  to?: Scalar | Scalar[];
  ignore_case?: boolean;
}

/** Tests joined by all, any and not. */
export type Condition = Test | { all: Condition[] } | { any: Condition[] } | { not: Condition };

const test = z
  .strictObject({
    value: z.string().check(z.regex(/^[a-z]+\.[A-Za-z0-9_]+$/, t.error("aName"))),
    is: z.enum(operators),
    to: z.optional(z.union([scalar, z.array(scalar).check(z.minLength(1), z.maxLength(200))])),
    ignore_case: z.optional(z.boolean()),
  })
  .check((context) => {
    const message = unfit(context.value);
    if (message) context.issues.push({ code: "custom", path: ["to"], message, input: context.value });
  });

const branch: z.ZodMiniType<Condition> = z.lazy(() => shape);

const shape: z.ZodMiniType<Condition> = z.union([
  z.strictObject({ all: z.array(branch).check(z.minLength(1), z.maxLength(100)) }),
  z.strictObject({ any: z.array(branch).check(z.minLength(1), z.maxLength(100)) }),
  z.strictObject({ not: branch }),
  test,
]);

/** Zod schema of a condition: data, not a formula language. */
export const conditionSchema: z.ZodMiniType<Condition> = z.pipe(
  z
    .unknown()
    .check(
      z.refine(isShallow, { error: () => t("nestedDeeperThan", { most: MAX_DEPTH }), abort: true }),
      z.refine(isSmall, { error: () => t("moreTestsThan", { most: MAX_TESTS }), abort: true }),
    ),
  shape,
);

/** The passages of a reply by id. */
export const passagesSchema = z.record(
  z.string().check(z.regex(/^[A-Za-z][A-Za-z0-9_-]*$/, t.error("lettersDigitsHyphensAndUnderscores"))),
  z.strictObject({ when: conditionSchema, label: z.optional(z.string().check(z.maxLength(200))) }),
);
export type Passages = z.infer<typeof passagesSchema>;

/** Every test of a condition, wherever it stands. */
export function testsOf(condition: Condition): Test[] {
  if ("all" in condition) return condition.all.flatMap(testsOf);
  if ("any" in condition) return condition.any.flatMap(testsOf);
  if ("not" in condition) return testsOf(condition.not);
  return [condition];
}

/** Whether what may be a condition is nested no deeper than conditions are; looked at before it is read, level by level. */
function isShallow(value: unknown): boolean {
  let level: unknown[] = [value];
  for (let depth = 0; level.length > 0; depth += 1) {
    if (depth > MAX_DEPTH) return false;
    level = level.flatMap(partsOf);
  }
  return true;
}

function isSmall(value: unknown): boolean {
  let count = 0;
  for (let level: unknown[] = [value]; level.length > 0; level = level.flatMap(partsOf)) {
    count += level.length;
    if (count > MAX_TESTS) return false;
  }
  return true;
}

/** What is joined or turned round by what may be a condition. */
function partsOf(value: unknown): unknown[] {
  if (typeof value !== "object" || value === null) return [];
  const { all, any, not } = value as { all?: unknown; any?: unknown; not?: unknown };
  return [all, any]
    .flatMap((list) => (Array.isArray(list) ? (list as unknown[]) : []))
    .concat(not === undefined ? [] : [not]);
}

/** What is wrong with a test's comparison value; null when nothing is. */
function unfit({ is, to }: Test): string | null {
  switch (is) {
    case "present":
    case "missing":
      return to === undefined ? null : t("comparesWithNothing", { is });
    case "one_of":
      return Array.isArray(to) ? null : t("oneOfTakesAList");
    case "between":
      return Array.isArray(to) && to.length === 2 ? null : t("betweenTakesTwo");
    case "matches":
      if (typeof to !== "string") return t("matchesTakesARegularExpression");
      return to.length > MAX_PATTERN_LENGTH
        ? t("aRegularExpressionIsShorter", { most: MAX_PATTERN_LENGTH })
        : null;
    default:
      return to === undefined || Array.isArray(to) ? t("takesOneValue", { is }) : null;
  }
}
