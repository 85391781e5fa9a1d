import type { QuestionInput } from "#core/forms/question";

/** The questions that the ferry line's replies ask. */
export const ferryQuestions: QuestionInput[] = [
  {
    key: "how_was_it",
    words: "How did we do?",
    kind: "scale",
    options: [],
    takesRemark: true,
    days: 30,
    setsStatus: null,
    setsTopic: null,
  },
  {
    key: "refund_or_sailing",
    words: "Would you like your money back, or another sailing?",
    kind: "choice",
    options: ["My money back", "Another sailing"],
    takesRemark: false,
    days: 14,
    setsStatus: "waiting",
    setsTopic: "refunds",
  },
];
