import { Command } from "cmdk";
import { useState } from "react";
import * as z from "zod/mini";
import { caseStateName, caseStates } from "#core/words/case-states";
import { LIST_ITEM, SearchedList } from "../../ui/searched-list";
import { useFound } from "../../ui/use-found";
import { t } from "../../words/answering";

const one = z.object({
  number: z.number(),
  label: z.string(),
  subject: z.string(),
  customer: z.string(),
  status: z.enum(caseStates),
});
export type FoundCase = z.infer<typeof one>;
const cases = z.pipe(
  z.object({ cases: z.array(one) }),
  z.transform((answer: { cases: FoundCase[] }) => answer.cases),
);

interface Props {
  /** The case that is looked at. */
  beside: number;
  chosen: FoundCase | null;
  onChoose: (chosen: FoundCase) => void;
}

/** Another case: those of the same customer first, others by typing their number, subject or customer. */
export function CasePicker({ beside, chosen, onChoose }: Props) {
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const found = useFound(isOpen ? `/cases/${beside}/others` : null, typed.trim(), cases);
  return (
    <SearchedList
      label={t("theOtherCase")}
      words={
        chosen ? (
          <span className="truncate">{[chosen.label, chosen.subject].join(" ")}</span>
        ) : (
          <span className="text-soft">{t("chooseACase")}</span>
        )
      }
      open={isOpen}
      onOpen={(open) => {
        setOpen(open);
        setTyped("");
      }}
      className="lined-field w-full"
      input={{
        value: typed,
        onValueChange: setTyped,
        placeholder: t("numberSubjectOrCustomer"),
        maxLength: 200,
      }}
      none={t("noCaseIsLikeThat")}
    >
      {found.map((known) => (
        <Command.Item
          key={known.number}
          value={String(known.number)}
          keywords={[known.label, known.subject, known.customer]}
          onSelect={() => {
            setOpen(false);
            onChoose(known);
          }}
          className={LIST_ITEM}
        >
          <span className="block [overflow-wrap:anywhere]">
            {known.label} {known.subject}
          </span>
          <span className="block text-xs text-soft">
            {[known.customer, caseStateName(known.status)].join(", ")}
          </span>
        </Command.Item>
      ))}
    </SearchedList>
  );
}
