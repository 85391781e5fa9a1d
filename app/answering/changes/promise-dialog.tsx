import { useState } from "react";
import { useAct } from "../../ui/act";
import { Button } from "../../ui/button";
import { DateField } from "../../ui/date-field";
import { Dialog, DialogFoot } from "../../ui/dialog";
import { FormProblem } from "../../ui/form";
import { t } from "../../words/answering";

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
  const [problem, setProblem] = useState<string | undefined>();
  const [busy, setBusy] = useState(false);
  const act = useAct();
  const keep = async () => {
    setBusy(true);
    const done = await act(`/cases/${number}/promise`, { words, by });
    setBusy(false);
    if (done.ok) onClose();
    else setProblem(done.problem);
  };
  return (
    <Dialog title={t("whatWasPromisedOn", { label })} words={t("itStandsOnTheCase")} onClose={onClose}>
      <label className="mt-4 flex flex-col gap-1 text-sm">
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
      <FormProblem words={problem} />
      <DialogFoot className="mt-5" onCancel={onClose}>
        <Button disabled={busy || words.trim() === "" || by === ""} onClick={() => void keep()}>
          {t("keepThePromise")}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
