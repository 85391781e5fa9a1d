import type { EntityManager } from "@mikro-orm/postgresql";
import type { QuestionInput } from "#core/forms/question";
import { answerWords, type Answer } from "#core/questions/question";
import { AskedQuestion } from "../db/entities/changes";
import { Question } from "../db/entities/mailboxes";
import { query } from "../db/sql";
import { NotFound, Unusable } from "../errors";
import { findHouse } from "../house/house";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** A question as the setup lists it. */
export interface QuestionRow extends QuestionInput {
  id: number;
  /** How often it was asked, and how often each answer was pressed, the most frequent first. */
  asked: number;
  answers: { words: string; times: number }[];
}

/** Most different answers that are counted one by one. */
const MOST_ANSWERS = 12;

/** Questions with what was answered to them. @throws NotAllowed unless curator */
export async function listQuestions(em: EntityManager, viewer: Viewer): Promise<QuestionRow[]> {
  requireRole(viewer, "curator");
  const { language } = await findHouse(em);
  const questions = await em.find(Question, {}, { orderBy: { words: "asc", id: "asc" } });
  const counts = await query<{ question: number; answer: Answer | null; times: number }>(
    em,
    "select question_id as question, answer, count(*)::int as times from asked_questions group by question_id, answer order by times desc",
  );
  return questions.map(({ id, key, words, kind, options, takesRemark, days, setsStatus, setsTopic }) => {
    const own = counts.filter((one) => one.question === id);
    return {
      ...{ id, key, words, kind, options, takesRemark, days },
      setsStatus: setsStatus ?? null,
      setsTopic: setsTopic ?? null,
      asked: own.reduce((sum, one) => sum + one.times, 0),
      answers: own
        .flatMap(({ answer, times }) =>
          answer === null ? [] : [{ words: answerWords(kind, answer, language), times }],
        )
        .slice(0, MOST_ANSWERS),
    };
  });
}

/**
 * Makes a question, or changes one; what was asked before keeps its answers.
 * @param id null for a new one
 * @throws NotAllowed unless curator; NotFound; Unusable where another has its key, or its kind would change after it was asked
 */
export async function saveQuestion(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
  input: QuestionInput,
): Promise<number> {
  requireRole(viewer, "curator");
  return em.transactional(async (inner) => {
    const other = await inner.findOne(Question, { key: input.key });
    if (other && other.id !== id) throw new Unusable(t("anotherQuestionHasThisKey"), "key");
    const set = { ...input, options: input.kind === "choice" ? [...new Set(input.options)] : [] };
    if (id === null) {
      const made = inner.create(Question, set);
      await inner.flush();
      return made.id;
    }
    const known = await inner.findOne(Question, { id });
    if (!known) throw new NotFound(t("thereIsNoSuchQuestionAny"));
    const times = await inner.count(AskedQuestion, { question: id });
    if (times > 0 && (known.kind !== set.kind || known.key !== set.key))
      throw new Unusable(t("thisQuestionWasAskedBefore"), known.kind === set.kind ? "key" : "kind");
    Object.assign(known, set);
    return id;
  });
}

/** Takes a question away, with what was answered to it. @throws NotAllowed unless curator; NotFound */
export async function removeQuestion(em: EntityManager, viewer: Viewer, id: number): Promise<void> {
  requireRole(viewer, "curator");
  if ((await em.nativeDelete(Question, { id })) === 0) throw new NotFound(t("thereIsNoSuchQuestionAny"));
}
