import { useState } from "react";
import { asideKinds, asideName, type AsideKind } from "#core/words/case-states";
import { RadioGroup } from "../../ui/radio-group";
import { Asked } from "./asked";
import { t } from "../../words/answering";

const OWN = "own";

/** Why cases are set aside most often. */
const reasons: Record<AsideKind, () => string[]> = {
  "nothing to answer": () => [t("aThankYou"), t("sentTwice"), t("meantForSomebodyElse")],
  "junk or fraud": () => [t("advertising"), t("itWantsMoneyOrSecrets"), t("nonsense")],
};

/** Sets a case aside: as what, and why. */
export default function AsideDialog({
  number,
  label,
  onClose,
}: {
  number: number;
  label: string;
  onClose: () => void;
}) {
  const [as, setAs] = useState<AsideKind>("nothing to answer");
  const [chosen, setChosen] = useState("");
  const [own, setOwn] = useState("");
  const known = reasons[as]();
  const reason = chosen === OWN ? own.trim() : chosen;
  return (
    <Asked
      title={t("setLabelAside", { label })}
      words={as === "junk or fraud" ? t("itsTimeStopsAndItsSender") : t("itsTimeStops")}
      yes={t("setItAside")}
      change={reason === "" ? null : { what: "state", state: "set aside", asideAs: as, reason }}
      number={number}
      onClose={onClose}
    >
      <div className="grid grid-cols-2 gap-6">
        <RadioGroup
          label={t("asWhat")}
          value={as}
          options={asideKinds.map((value) => ({ value, words: asideName(value) }))}
          onChange={(value) => {
            setAs(value === "junk or fraud" ? value : "nothing to answer");
            setChosen((before) => (before === OWN ? OWN : ""));
          }}
        />
        <RadioGroup
          label={t("why")}
          value={chosen}
          options={[
            ...known.map((words) => ({ value: words, words })),
            { value: OWN, words: t("forAnotherReason") },
          ]}
          onChange={setChosen}
        />
      </div>
      {chosen === OWN && (
        <label className="mt-3 flex flex-col gap-1">
          {t("inAWordOrTwo")}
          <input
            value={own}
            maxLength={300}
            className="boxed-field"
            autoFocus
            onChange={(event) => setOwn(event.target.value)}
          />
        </label>
      )}
    </Asked>
  );
}
