import { useState } from "react";
import { ChosenAddress } from "../sending/chosen-address";
import { CasePicker, type FoundCase } from "./case-picker";
import { Asked } from "./asked";
import { t } from "../../words/answering";

/** What is to be changed: of the case, or of one message. */
export type Wanted = { what: "join" } | { what: "move" } | { what: "move message"; message: number };

interface Props {
  wanted: Wanted;
  number: number;
  label: string;
  customer: string;
  onClose: () => void;
}

/** Asks for the other case or the other customer, and makes the change. */
export default function ChangeDialog({ wanted, number, label, customer, onClose }: Props) {
  const [other, setOther] = useState<FoundCase | null>(null);
  const [address, setAddress] = useState<string | null>(null);
  const pick = <CasePicker beside={number} chosen={other} onChoose={setOther} />;
  switch (wanted.what) {
    case "join":
      return (
        <Asked
          title={t("joinAnotherCaseToLabel", { label })}
          words={t("itsMessagesComeHere")}
          yes={t("joinThem")}
          change={other && { what: "join", other: other.number }}
          number={number}
          onClose={onClose}
        >
          {pick}
        </Asked>
      );
    case "move message":
      return (
        <Asked
          title={t("moveThisMessage")}
          words={t("itGoesToTheOtherCase")}
          yes={t("moveIt")}
          change={other && { what: "move message", message: wanted.message, to: other.number }}
          number={number}
          onClose={onClose}
        >
          {pick}
        </Asked>
      );
    case "move":
      return (
        <Asked
          title={t("moveLabelToAnotherCustomer", { label })}
          words={t("itIsCustomersNow", { customer })}
          yes={t("moveIt")}
          change={address === null ? null : { what: "move", address }}
          number={number}
          onClose={onClose}
        >
          <p className="flex flex-wrap items-baseline gap-3">
            <ChosenAddress label={t("theOtherCustomer")} chosen={address} onChoose={setAddress} />
          </p>
        </Asked>
      );
  }
}
