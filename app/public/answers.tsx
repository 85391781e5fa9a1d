import { buttonsOf, type AskedWords } from "#core/questions/question";
import { Button } from "../ui/button";
import { t } from "../words/public";

/**
 * The answers to a question, within a form: one press where that is all, else a choice and a line for a remark. They are the
 * browser’s own controls: it works before any script has loaded, and without.
 */
export function Answers({ question, busy }: { question: AskedWords; busy: boolean }) {
  const buttons = buttonsOf(question);
  const chosen = question.takesRemark || buttons === null;
  return (
    <>
      <fieldset className="flex flex-col gap-3">
        <legend className="mb-3 font-serif text-letter">{question.words}</legend>
        <div
          className={question.kind === "scale" ? "flex flex-wrap gap-2" : "flex flex-col items-start gap-2"}
        >
          {buttons?.map(({ value, words }) =>
            chosen ? (
              <label
                key={value}
                className="flex min-h-11 min-w-11 cursor-pointer items-center gap-2 border border-line bg-sheet px-3 py-2 has-checked:border-accent has-checked:bg-wash has-checked:font-semibold"
              >
                <input type="radio" name="answer" value={value} required className="accent-accent" />
                {words}
              </label>
            ) : (
              <button
                key={value}
                type="submit"
                name="answer"
                value={value}
                disabled={busy}
                className="min-h-11 min-w-11 border border-accent bg-sheet px-4 py-2 font-semibold hover:bg-wash disabled:opacity-50"
              >
                {words}
              </button>
            ),
          )}
        </div>
        {buttons === null && (
          <input
            type="date"
            name="answer"
            required
            aria-label={question.words}
            min="1900-01-01"
            max="2199-12-31"
            className="boxed-field self-start"
          />
        )}
        {question.kind === "scale" && <p className="text-sm text-soft">{t("oneIsWorstFiveIsBest")}</p>}
      </fieldset>
      {question.takesRemark && (
        <label className="mt-4 flex flex-col gap-1 text-sm">
          {t("aRemark")}
          <textarea name="remark" rows={3} maxLength={2000} className="boxed-field font-serif text-letter" />
        </label>
      )}
      {chosen && (
        <Button type="submit" disabled={busy} className="mt-4">
          {t("answer")}
        </Button>
      )}
    </>
  );
}
