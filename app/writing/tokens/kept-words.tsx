import type { Recognised } from "#core/tokens/recognise";
import { placeholderText } from "#core/document/placeholder";
import { Checkbox } from "../../ui/checkbox";
import { Hint } from "../../ui/hint";

/** The case's own values in an answer, each to become a token or to stay as it is written. */
export function KeptWords({
  found,
  refused,
  onRefuse,
}: {
  found: Recognised[];
  refused: ReadonlySet<number>;
  onRefuse: (refused: ReadonlySet<number>) => void;
}) {
  return (
    <section aria-label="Values of this case">
      <h2 className="mb-2 font-bold">Values of this case</h2>
      {found.length === 0 ? (
        <p className="text-sm text-soft">Nothing in these words is this case’s own.</p>
      ) : (
        <>
          <p className="mb-2 text-sm text-soft">What is ticked fills itself for every other case.</p>
          <ul className="flex flex-col">
            {found.map((one, index) => (
              <li key={`${one.from} ${one.words}`} className="border-b border-line py-1.5">
                <label className="flex items-baseline gap-2.5">
                  <Checkbox
                    checked={!refused.has(index)}
                    onChange={(on) => {
                      const next = new Set(refused);
                      if (on) next.delete(index);
                      else next.add(index);
                      onRefuse(next);
                    }}
                  />
                  <span className="font-serif">“{one.words}”</span>
                  <Hint words={placeholderText(one.token)}>
                    <span className="text-sm">is the {one.label}</span>
                  </Hint>
                  {!one.certain && <span className="ml-auto text-sm text-look">looks like it</span>}
                </label>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
