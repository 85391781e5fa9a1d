/** A reply to begin with, for a house that has few of its own. */
export interface Starter {
  title: string;
  part: "opening" | "answer" | "closing";
  /** Markdown, with tokens. */
  words: string;
}

/** What nearly every letter needs: a greeting, an answer that asks for time, a sign-off. */
export const starters: readonly Starter[] = [
  { title: "Greeting", part: "opening", words: "Hello {$customer.first_name :text fallback=there}," },
  {
    title: "We are looking into it",
    part: "answer",
    words:
      "Thank you for your message. We are looking into it, and you will have our answer by {$case.answer_by :datetime dateLength=long timePrecision=minute fallback=|tomorrow|}.\n\nIf anything changes until then, please answer this letter: your case is {$case.number}.",
  },
  { title: "Sign-off", part: "closing", words: "Kind regards," },
];
