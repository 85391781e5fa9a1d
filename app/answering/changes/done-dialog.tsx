import { useState } from "react";
import { useAct } from "../../ui/act";
import { t } from "../../words/answering";
import { Asking } from "./asked";

/** Says what was done, as the customer may read it in a letter. */
export default function DoneDialog({
  number,
  label,
  done,
  onClose,
}: {
  number: number;
  label: string;
  /** What was said before; null for nothing. */
  done: string | null;
  onClose: () => void;
}) {
  const [words, setWords] = useState(done ?? "");
  const act = useAct();
  const say = async () => {
    const kept = await act(`/cases/${number}/done`, { words });
    return kept.ok ? null : kept.problem;
  };
  return (
    <Asking
      title={t("whatWasDoneOn", { label })}
      words={t("lettersMayRead")}
      yes={t("sayIt")}
      go={words.trim() === (done ?? "") ? null : say}
      onClose={onClose}
    >
      <label className="flex flex-col gap-1 text-sm">
        {t("whatWasDone")}
        <input
          value={words}
          maxLength={300}
          placeholder={t("weAskedTheHarbour")}
          onChange={(event) => setWords(event.target.value)}
          className="lined-field text-base"
        />
      </label>
    </Asking>
  );
}
