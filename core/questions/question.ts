import { dayField } from "../forms/fields";
import type { TokenType } from "../tokens/catalogue";
import { t } from "../words/questions";

/** Questions with fixed answers, which a letter or a piece asks, and the customer answers by pressing one. */

export const questionKinds = ["scale", "choice", "date", "yes_no"] as const;
export type QuestionKind = (typeof questionKinds)[number];

/** What a case may become once its question was answered. */
export const pressedStatuses = ["waiting", "aside", "closed"] as const;

/** A question, as far as answering it goes. */
export interface AskedWords {
  words: string;
  kind: QuestionKind;
  /** Of a choice: its answers, as they are read. */
  options: string[];
  takesRemark: boolean;
}

/** What was answered: 1 to 5, an option, a date (ISO 8601) or yes (`true`) and no. */
export type Answer = string | number | boolean;

/** The ends of a scale. */
const SCALE = [1, 2, 3, 4, 5] as const;

/** An answer that can be pressed. */
export interface AnswerButton {
  /** What is sent when it is pressed. */
  value: string;
  words: string;
}

/** The answers that can be pressed; null for a date, which is chosen. */
export function buttonsOf({ kind, options }: Pick<AskedWords, "kind" | "options">): AnswerButton[] | null {
  switch (kind) {
    case "scale":
      return SCALE.map((value) => ({ value: String(value), words: String(value) }));
    case "choice":
      return options.map((value) => ({ value, words: value }));
    case "yes_no":
      return [
        { value: "yes", words: t("yes") },
        { value: "no", words: t("no") },
      ];
    case "date":
      return null;
  }
}

/** What was sent as an answer; null where the question has no such answer. */
export function readAnswer(
  { kind, options }: Pick<AskedWords, "kind" | "options">,
  given: string,
): Answer | null {
  switch (kind) {
    case "scale":
      return SCALE.find((value) => String(value) === given) ?? null;
    case "choice":
      return options.includes(given) ? given : null;
    case "yes_no":
      return given === "yes" ? true : given === "no" ? false : null;
    case "date":
      return dayField.safeParse(given).success ? given : null;
  }
}

/** An answer as people read it. @param language BCP 47 tag, for dates */
export function answerWords(kind: QuestionKind, answer: Answer, language: string): string {
  switch (kind) {
    case "scale":
      return t("answerOfScale", { answer: Number(answer), most: SCALE.length });
    case "yes_no":
      return t(answer === true ? "yes" : "no");
    case "choice":
      return String(answer);
    case "date":
      return new Intl.DateTimeFormat(language, { dateStyle: "long", timeZone: "UTC" }).format(
        new Date(`${String(answer)}T00:00:00Z`),
      );
  }
}

/** What kind of value the answers are, where letters print them. */
export function answerType(kind: QuestionKind): TokenType {
  return ({ scale: "integer", choice: "text", date: "date", yes_no: "yes_no" } as const)[kind];
}

const ASK = "ask.";

/** Whether a token asks a question. */
export function asksQuestion(name: string): boolean {
  return name.startsWith(ASK);
}

/** The keys of the questions that a letter asks, each once. @param trace of the letter */
export function askedIn(trace: readonly { kind: string; name: string; value: string | null }[]): string[] {
  const names = trace
    .filter((one) => one.kind === "token" && one.value !== null && asksQuestion(one.name))
    .map((one) => one.name.slice(ASK.length));
  return [...new Set(names)];
}
