import { useState } from "react";
import type { TimeOf } from "#server/cases/time-spent";
import { useAct } from "../../ui/act";
import { Select } from "../../ui/select";
import { useIsLead, usePerson } from "../../ui/use-person";
import { t } from "../../words/answering";
import { Asking } from "../changes/asked";

/** Sets right how long somebody was at a case: oneself, and for leads anybody. */
export default function TimeDialog({
  number,
  times,
  onClose,
}: {
  number: number;
  times: TimeOf[];
  onClose: () => void;
}) {
  const me = usePerson();
  const isLead = useIsLead();
  const whose = isLead ? times.filter((one) => one.person !== me) : [];
  const minutesOf = (person: number) =>
    String(Math.round((times.find((one) => one.person === person)?.seconds ?? 0) / 60));
  const [person, setPerson] = useState(me);
  const [minutes, setMinutes] = useState(minutesOf(me));
  const [reason, setReason] = useState("");
  const act = useAct();
  const set = async () => {
    const asked = { person, minutes: Number(minutes), reason };
    const done = await act(`/cases/${number}/correct-time`, asked);
    return done.ok ? null : done.problem;
  };
  return (
    <Asking
      title={t("howLongItTook")}
      words={t("whatWasMeasuredIsKept")}
      yes={t("setItRight")}
      go={minutes.trim() === "" || reason.trim() === "" ? null : set}
      onClose={onClose}
    >
      {whose.length > 0 && (
        <div className="mb-4 flex flex-col gap-1 text-sm">
          {t("whoseTime")}
          <Select
            label={t("whoseTime")}
            value={String(person)}
            options={[
              [String(me), t("mine")],
              ...whose.map((one) => [String(one.person), one.name] as const),
            ]}
            onChange={(value) => {
              setPerson(Number(value));
              setMinutes(minutesOf(Number(value)));
            }}
            className="boxed-field w-60"
          />
        </div>
      )}
      <label className="flex flex-col gap-1 text-sm">
        {t("minutesAltogether")}
        <input
          type="number"
          min={0}
          value={minutes}
          onChange={(event) => setMinutes(event.target.value)}
          className="lined-field w-28 text-base"
        />
      </label>
      <label className="mt-4 flex flex-col gap-1 text-sm">
        {t("why")}
        <input
          value={reason}
          maxLength={300}
          placeholder={t("wasOnThePhone")}
          onChange={(event) => setReason(event.target.value)}
          className="lined-field text-base"
        />
      </label>
    </Asking>
  );
}
