import type { AnswerHandle } from "../use-answer";

/** Words that the agent had written into a reply that was swapped since: to put back where the cursor is, or to drop. */
export function SetAside({ answer }: { answer: AnswerHandle }) {
  const { editor, setAside, setSetAside } = answer;
  if (setAside.length === 0) return null;
  const without = (index: number) => setSetAside(setAside.filter((_, at) => at !== index));
  return (
    <section aria-label="Set aside" className="mt-3 border-t border-dashed border-line pt-2 text-sm">
      <p className="text-soft">Your changes to the reply before, set aside:</p>
      <ul>
        {setAside.map((words, index) => (
          <li key={index} className="mt-1.5 flex items-baseline gap-3">
            <span className="min-w-0 grow font-serif [overflow-wrap:anywhere]">{words}</span>
            <button
              type="button"
              className="quiet-link shrink-0"
              onClick={() => {
                editor?.chain().focus().insertContent({ type: "text", text: words }).run();
                without(index);
              }}
            >
              put it in
            </button>
            <button type="button" className="quiet-link shrink-0" onClick={() => without(index)}>
              drop
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
