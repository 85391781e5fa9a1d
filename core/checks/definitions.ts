import { testsOf } from "../conditions/condition";
import { coverage } from "../conditions/coverage";
import { inWords } from "../conditions/in-words";
import { labelOf } from "../compose/passages";
import { allTexts } from "../document/texts";
import { documentText, passagesOf, walk } from "../document/walk";
import type { Token } from "../tokens/catalogue";
import { readText } from "../tokens/text-form";
import { isUnsatisfiable } from "./unsatisfiable";
import type {
  Used,
  WriterCode,
  WriterFinding,
  WriterPlace,
  WritingChecksInput,
  WrittenReply,
} from "./written";
import { t } from "../words/checks";

/** What is wrong with a reply's own definitions: its passages' conditions, and its blanks. */
export function definitions(reply: WrittenReply, input: WritingChecksInput, used: Used): WriterFinding[] {
  const findings: WriterFinding[] = [];
  const add = (
    severity: WriterFinding["severity"],
    code: WriterCode,
    message: string,
    at: WriterPlace | null,
  ) => {
    findings.push({ severity, code, message, language: null, channel: null, at });
  };
  const usedIds = new Set(used.uses.map((use) => use.id));
  const named = (id: string) => passageName(reply, id, input.tokens);
  for (const [id, passage] of Object.entries(reply.passages)) {
    const at: WriterPlace = { in: "passage", id };
    for (const test of testsOf(passage.when)) {
      if (test.value.startsWith("blank.")) {
        const name = test.value.slice("blank.".length);
        used.blanks.add(name);
        if (!Object.hasOwn(reply.blanks, name))
          add("wrong", "blank-unknown", t("thereIsNoBlankName", { name }), at);
      } else if (!test.value.startsWith("message.") && !input.tokens.has(test.value))
        add("wrong", "token-unknown", t("thereIsNoTokenName", { name: test.value }), at);
      if (test.is === "matches" && input.patterns(String(test.to), test.ignore_case ?? false) === null)
        add(
          "wrong",
          "condition-unusable",
          t("patternCannotBeRead", {
            pattern: String(test.to),
            passage: named(id),
            problem: input.patterns.problem?.(String(test.to)) ?? t("itCannotBeUsed"),
          }),
          at,
        );
    }
    if (!usedIds.has(id))
      add("look", "passage-unused", t("passageIsUsedNowhere", { passage: named(id) }), at);
    if (isUnsatisfiable(passage.when, reply.blanks))
      add("wrong", "passage-never", t("passageCanNeverStand", { passage: named(id) }), at);
  }
  const codes = {
    uncovered: "choice-uncovered",
    overlap: "passages-overlap",
    never: "passage-never",
    always: "passage-always",
  } as const;
  for (const finding of coverage(reply.passages, reply.blanks, used.uses, input.patterns, named)) {
    if (findings.some((one) => one.message === finding.message)) continue;
    const [id = ""] = finding.passages;
    const severity = finding.kind === "never" ? "wrong" : "look";
    const at: WriterPlace =
      finding.kind === "uncovered" ? { in: "blank", name: finding.blank } : { in: "passage", id };
    add(severity, codes[finding.kind], finding.message, at);
  }
  for (const [name, blank] of Object.entries(reply.blanks)) {
    for (const piece of readText(blank.default ?? "").pieces)
      if (piece.type === "token" && !input.tokens.has(piece.attrs.name))
        add("wrong", "token-unknown", t("thereIsNoTokenName", { name: piece.attrs.name }), {
          in: "blank",
          name,
        });
    if (!used.blanks.has(name))
      add("look", "blank-unused", t("blankIsUsedNowhere", { name }), { in: "blank", name });
  }
  return findings;
}

/** So many words tell a passage from others. */
const NAMING_WORDS = 6;

/** A passage as people know it: its first words, and when it stands. */
function passageName(reply: WrittenReply, id: string, tokens: ReadonlyMap<string, Token>): string {
  const passage = reply.passages[id];
  const condition = passage ? inWords(passage.when, (name) => labelOf(name, reply, tokens)) : "";
  for (const document of reply.variants.flatMap(allTexts)) {
    let words: string | null = null;
    walk(document, (node) => {
      if (words === null && passagesOf(node).some((ref) => ref.id === id)) words = documentText(node);
    });
    const first = (words ?? "").split(/\s+/u).filter(Boolean);
    if (first.length > 0) {
      const naming = first.slice(0, NAMING_WORDS).join(" ");
      const shown = first.length > NAMING_WORDS ? t("wordsAndMore", { words: naming }) : naming;
      return t("passageByItsWords", { words: shown, condition });
    }
  }
  return t("passageByItsCondition", { condition });
}
