import { useEffect, useRef, type KeyboardEvent } from "react";
import { isBlankEmpty } from "./blanks";
import DateEntry from "../ui/date-entry";
import { ManyPicker } from "../ui/many-picker";
import { useSorted } from "../ui/sortable";
import { Kbd } from "../ui/kbd";
import { LetterBlocks } from "../ui/letter-blocks";
import { BlankField } from "../answering/editor/blank-field";
import { StackPartsContext } from "../answering/editor/stack-parts";
import type { LookedAt } from "./use-looked";
import { blankLabel } from "#core/tokens/blanks";
import { t } from "../words/chats";

const PARTS = { useSorted, DateEntry, ManyPicker };

interface Props {
  looked: LookedAt;
  onSend: () => void;
  onBack: () => void;
  /** Takes its words to be written on. */
  onOtherwise: (text: string) => void;
}

/** A piece of the shelf as it would be sent, in the place where one writes: filled in, looked at, sent by Enter. */
export function Looked({ looked, onSend, onBack, onOtherwise }: Props) {
  const place = useRef<HTMLElement>(null);
  const send = useRef<HTMLButtonElement>(null);
  const { slip, letter, checks, fill } = looked;
  const blanks = Object.entries(slip.blanks).filter(([name]) => looked.isAsked(name));
  useEffect(() => {
    const first = place.current?.querySelector<HTMLElement>(
      "[data-blank-field] input, [data-blank-field] textarea, [data-blank-field] button",
    );
    (first ?? send.current)?.focus();
  }, [slip.id]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Escape") {
      event.preventDefault();
      onBack();
    } else if (event.key === "Enter" && event.target instanceof HTMLInputElement) {
      event.preventDefault();
      const open = blanks.find(([name]) => isBlankEmpty(slip.values[name]));
      const next = open && place.current?.querySelector<HTMLElement>(`[data-blank-field="${open[0]}"] input`);
      if (next && next !== event.target) next.focus();
      else onSend();
    }
  };
  return (
    // The keys act on what stands in it, from whichever of its fields they come.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <section ref={place} aria-label={slip.title} className="flex flex-col gap-1.5" onKeyDown={onKeyDown}>
      <p className="text-sm text-soft">
        {t("lookedAtFirst")} <strong className="text-ink">{slip.title}</strong>
      </p>
      <div className="letter max-h-48 overflow-y-auto">
        <LetterBlocks blocks={letter.blocks} />
      </div>
      {blanks.length > 0 && (
        <StackPartsContext value={PARTS}>
          <ul className="flex flex-wrap gap-x-4 gap-y-1 text-sm">
            {blanks.map(([name, blank]) => (
              <li key={name}>
                <span className="text-soft">{blankLabel(name, blank)} </span>
                <BlankField
                  name={name}
                  blank={blank}
                  value={slip.values[name] ?? null}
                  placeholder="…"
                  language={slip.language}
                  onFill={(value) => fill(name, value)}
                />
              </li>
            ))}
          </ul>
        </StackPartsContext>
      )}
      {checks.map((check, index) => (
        <p
          key={`${check.code}${index}`}
          className={`border-l-[3px] pl-2 text-sm ${check.severity === "stop" ? "border-stop text-stop" : "border-look text-look"}`}
        >
          {check.message}
        </p>
      ))}
      <p className="flex flex-wrap items-center justify-end gap-x-3 gap-y-1 text-sm text-soft">
        <button type="button" className="quiet-link mr-auto" onClick={() => onOtherwise(letter.text)}>
          {t("writeItOtherwise")}
        </button>
        <button ref={send} type="button" className="quiet-link" onClick={onSend}>
          {t("sendIt")}
        </button>
        <Kbd keys="Enter" />
        <button type="button" className="quiet-link" onClick={onBack}>
          {t("putItBack")}
        </button>
        <Kbd keys="Esc" />
      </p>
    </section>
  );
}
