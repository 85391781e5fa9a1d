import { AddressPicker } from "./address-picker";
import { t } from "../../words/answering";

interface Props {
  label: string;
  /** Null as long as none is. */
  chosen: string | null;
  onChoose: (address: string) => void;
}

/** The one address that is chosen, and a way to choose another. */
export function ChosenAddress({ label, chosen, onChoose }: Props) {
  return (
    <>
      {chosen !== null && <strong className="[overflow-wrap:anywhere]">{chosen}</strong>}
      <AddressPicker
        label={label}
        words={chosen === null ? t("chooseSomebody") : t("somebodyElse")}
        onAdd={onChoose}
      />
    </>
  );
}
