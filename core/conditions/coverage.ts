import { blankLabel, blankWords, type Blank, type Blanks, type BlankValue } from "../tokens/blanks";
import { ownEntry } from "../tokens/own";
import { valueOf } from "../tokens/values";
import { testsOf, type Condition, type Passages } from "./condition";
import { evaluate } from "./evaluate";
import type { PatternEngine } from "./patterns";
import { t } from "../words/conditions";

/** More choices than this of a blank that takes several are looked at one by one, not in every combination. */
const MOST_COMBINED = 8;

/** A passage as it is used in a document: by its condition, or by its opposite. */
export interface PassageUse {
  id: string;
  otherwise: boolean;
}

/** What is odd about the passages that one blank steers. */
export interface CoverageFinding {
  kind: "uncovered" | "overlap" | "never" | "always";
  blank: string;
  passages: string[];
  message: string;
}

/** The values that a blank which steers passages can take; none for kinds that cannot be listed. */
export function choicesOf(blank: Blank): BlankValue[] {
  if (blank.kind === "yes_no") return [true, false];
  if (blank.kind !== "choice") return [];
  if (!blank.many) return blank.options;
  const singles = blank.options.map((one) => [one]);
  if (blank.options.length > MOST_COMBINED) return [...singles, blank.options];
  return Array.from({ length: 2 ** blank.options.length - 1 }, (_, index) =>
    blank.options.filter((_option, bit) => ((index + 1) >> bit) & 1),
  );
}

/** The one blank that a condition depends on; null when it depends on more or on anything else. */
function steeringBlank(condition: Condition): string | null {
  const names = new Set(testsOf(condition).map((test) => test.value));
  const [only] = names;
  return names.size === 1 && only?.startsWith("blank.") ? only.slice("blank.".length) : null;
}

/** Every blank that a condition anywhere among passages reads. */
export function steeringBlanks(passages: Passages): string[] {
  const names = Object.values(passages).flatMap((passage) => testsOf(passage.when).map((test) => test.value));
  return [...new Set(names)].flatMap((name) =>
    name.startsWith("blank.") ? [name.slice("blank.".length)] : [],
  );
}

/**
 * Looks at passages that depend on the choices of one blank alone: a choice that leaves all of them out,
 * two of which one always stands though both can, one that never or always stands.
 * @param uses how the passages are used in the reply's documents
 * @param named how a passage is called where a person reads of it, by its id
 */
export function coverage(
  passages: Passages,
  blanks: Blanks,
  uses: PassageUse[],
  patterns: PatternEngine,
  named: (id: string) => string = (id) => `“${id}”`,
): CoverageFinding[] {
  const findings: CoverageFinding[] = [];
  const byBlank = new Map<string, PassageUse[]>();
  for (const use of distinct(uses)) {
    const condition = ownEntry(passages, use.id)?.when;
    const blank = condition && steeringBlank(condition);
    if (blank) byBlank.set(blank, [...(byBlank.get(blank) ?? []), use]);
  }
  for (const [name, steered] of byBlank) {
    const blank = ownEntry(blanks, name);
    const values = blank ? choicesOf(blank) : [];
    if (!blank || values.length === 0) continue;
    const tables = steered.map((use) => ({
      use,
      stands: values.map(
        (value) => holds(ownEntry(passages, use.id)?.when, value, patterns) !== use.otherwise,
      ),
    }));
    for (const { use, stands } of tables) {
      if (stands.some(Boolean) && !stands.every(Boolean)) continue;
      const kind = stands[0] ? "always" : "never";
      findings.push({
        kind,
        blank: name,
        passages: [use.id],
        message: t(kind === "never" ? "passageNever" : "passageAlways", { passage: useInWords(use, named) }),
      });
    }
    if (steered.length < 2) continue;
    const open = values.filter((_, index) => tables.every(({ stands }) => !stands[index]));
    for (const value of open.filter(isSingle)) {
      findings.push({
        kind: "uncovered",
        blank: name,
        passages: steered.map((use) => use.id),
        message: t("noPassageStands", { blank: blankLabel(name, blank), value: blankWords(value) }),
      });
    }
    findings.push(...overlaps(name, tables, named));
  }
  return findings;
}

interface Table {
  use: PassageUse;
  stands: boolean[];
}

function overlaps(blank: string, tables: Table[], named: (id: string) => string): CoverageFinding[] {
  return tables.flatMap((one, index) =>
    tables.slice(index + 1).flatMap((other): CoverageFinding[] => {
      if (one.stands.every(Boolean) || other.stands.every(Boolean)) return [];
      const neverBothOut = one.stands.every((stands, at) => stands || other.stands[at]);
      const bothAtTimes = one.stands.some((stands, at) => stands && other.stands[at]);
      if (!neverBothOut || !bothAtTimes) return [];
      const message = t("passagesOverlap", {
        passage: useInWords(one.use, named),
        other: useInWords(other.use, named),
      });
      return [{ kind: "overlap", blank, passages: [one.use.id, other.use.id], message }];
    }),
  );
}

function holds(condition: Condition | undefined, value: BlankValue, patterns: PatternEngine): boolean {
  if (!condition) return true;
  const given = valueOf(value, null, "");
  const values = { value: () => given, now: "1970-01-01T00:00:00Z", patterns };
  return evaluate(condition, values).holds;
}

function distinct(uses: PassageUse[]): PassageUse[] {
  return [...new Map(uses.map((use) => [`${use.id} ${use.otherwise}`, use])).values()];
}

function isSingle(value: BlankValue): boolean {
  return !Array.isArray(value) || value.length === 1;
}

function useInWords(use: PassageUse, named: (id: string) => string): string {
  return use.otherwise ? t("otherwise", { passage: named(use.id) }) : named(use.id);
}
