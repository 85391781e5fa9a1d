import { useState } from "react";
import { useAct } from "../../ui/act";
import { DateField } from "../../ui/date-field";
import { t } from "../../words/answering";
import { Asking } from "./asked";

/** Keeps what the customer was promised, and by when. */
export default function PromiseDialog({
  number,
  label,
  onClose,
}: {
  number: number;
  label: string;
  onClose: () => void;
}) {
  const [words, setWords] = useState("");
  const [by, setBy] = useState("");
  const act = useAct();
  const keep = async () => {
    const done = await act(`/cases/${number}/promise`, { words, by });
    return done.ok ? null : done.problem;
  };
  return (
    <Asking
      title={t("whatWasPromisedOn", { label })}
      words={t("itStandsOnTheCase")}
      yes={t("keepThePromise")}
      go={words.trim() === "" || by === "" ? null : keep}
      onClose={onClose}
    >
      <label className="flex flex-col gap-1 text-sm">
        {t("whatWePromised")}
        <input
          value={words}
          maxLength={300}
          placeholder={t("moneyBack")}
          onChange={(event) => setWords(event.target.value)}
          className="lined-field text-base"
        />
      </label>
      <div className="mt-4 flex flex-col gap-1 text-sm">
        {t("untilWhichDay")}
        <span>
          <DateField label={t("untilWhichDay")} value={by} onChange={setBy} />
        </span>
      </div>
    </Asking>
  );
}
