import * as z from "zod/mini";
import { pressedStatuses, questionKinds } from "../questions/question";
import { words, wordsOrNone } from "./fields";
import { t } from "../words/forms";

/** A question with fixed answers, as a curator keeps it. */
export const questionSchema = z
  .strictObject({
    key: z
      .string()
      .check(
        z.trim(),
        z.toLowerCase(),
        z.regex(/^[a-z][a-z0-9_]{0,39}$/, t.error("lettersDigitsAndLowLines")),
      ),
    words: words(200, t.error("writeTheQuestion")),
    kind: z.enum(questionKinds),
    options: z.array(words(80, t.error("writeTheOption"))).check(z.maxLength(12)),
    takesRemark: z.boolean(),
    days: z
      .int(t.error("daysFrom1To365"))
      .check(z.gte(1, t.error("daysFrom1To365")), z.lte(365, t.error("daysFrom1To365"))),
    setsStatus: z.nullable(z.enum(pressedStatuses)),
    setsTopic: wordsOrNone(80),
  })
  .check(
    z.refine(({ kind, options }) => kind !== "choice" || new Set(options).size >= 2, {
      ...t.error("writeTwoAnswersOrMore"),
      path: ["options"],
    }),
  );
export type QuestionInput = z.infer<typeof questionSchema>;
