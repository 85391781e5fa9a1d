import { times } from "#core/text/counted";
import type { Condition } from "#core/conditions/condition";
import { inWords } from "#core/conditions/in-words";
import { labelOf } from "#core/compose/passages";
import type { Token } from "#core/tokens/catalogue";
import type { WriterFinding } from "#core/checks/written";
import type { Content } from "#server/replies/content";
import { ConditionForm } from "./condition-form";
import type { ChangeContent } from "../reply/use-reply";
import { t } from "../../words/writing";

interface Props {
  content: Content;
  tokens: ReadonlyMap<string, Token>;
  /** How often each passage is used in the words. */
  uses: ReadonlyMap<string, number>;
  findings: WriterFinding[];
  chosen: string | null;
  onChoose: (id: string | null) => void;
  change: ChangeContent;
}

/** The conditions of a reply's passages, each as a sentence, and the form of the chosen one. */
export function PassagesPanel({ content, tokens, uses, findings, chosen, onChoose, change }: Props) {
  const { passages, blanks } = content;
  const sentence = (when: Condition) => inWords(when, (name) => labelOf(name, { blanks }, tokens));
  const ids = Object.keys(passages);
  return (
    <div className="flex flex-col gap-3 text-sm">
      {ids.length === 0 && <p className="text-soft">{t("aPassageStandsOnlyWhenIts")}</p>}
      <ul className="flex flex-col">
        {ids.map((id) => {
          const passage = passages[id];
          if (!passage) return null;
          const used = uses.get(id) ?? 0;
          const notes = findings.filter((finding) => finding.at?.in === "passage" && finding.at.id === id);
          const open = id === chosen;
          return (
            <li key={id} className="flex flex-col gap-2 border-b border-line py-2">
              <span className="flex items-baseline gap-2">
                <button
                  type="button"
                  aria-expanded={open}
                  className={`text-left ${open ? "font-bold" : ""}`}
                  onClick={() => onChoose(open ? null : id)}
                >
                  {t("whenWhen", { when: sentence(passage.when) })}
                </button>
                <span className="ml-auto whitespace-nowrap text-soft">
                  {used === 0 ? t("notUsed") : times(used)}
                </span>
              </span>
              {notes.map((note) => (
                <p key={note.message} className={note.severity === "wrong" ? "text-stop" : "text-look"}>
                  {note.message}
                </p>
              ))}
              {open && (
                <div data-chosen className="flex flex-col gap-2">
                  <ConditionForm
                    condition={passage.when}
                    tokens={tokens}
                    blanks={blanks}
                    onRemove={null}
                    onChange={(when) =>
                      change((now) => ({ ...now, passages: { ...now.passages, [id]: { ...passage, when } } }))
                    }
                  />
                  <span className="flex items-baseline gap-4">
                    {!("all" in passage.when || "any" in passage.when || "not" in passage.when) && (
                      <button
                        type="button"
                        className="quiet-link"
                        onClick={() =>
                          change((now) => ({
                            ...now,
                            passages: {
                              ...now.passages,
                              [id]: { ...passage, when: { all: [passage.when, passage.when] } },
                            },
                          }))
                        }
                      >
                        {t("moreTests")}
                      </button>
                    )}
                    <code className="text-soft">{`{#${id}}`}</code>
                    <button
                      type="button"
                      className="quiet-link ml-auto"
                      disabled={used > 0}
                      onClick={() => {
                        onChoose(null);
                        change((now) => {
                          const { [id]: _gone, ...others } = now.passages;
                          return { ...now, passages: others };
                        });
                      }}
                    >
                      {used > 0 ? t("inUseTakeItsWordsOut") : t("removeTheCondition")}
                    </button>
                  </span>
                </div>
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
