import { Command } from "cmdk";
import { useState } from "react";
import * as z from "zod/mini";
import { LIST_ITEM, SearchedList } from "../../ui/searched-list";
import { useFound } from "../../ui/use-found";
import { Asked } from "./asked";
import { t } from "../../words/answering";

const one = z.object({ id: z.number(), name: z.string(), team: z.string(), cases: z.number() });
type Colleague = z.infer<typeof one>;
const people = z.pipe(
  z.object({ people: z.array(one) }),
  z.transform((answer: { people: Colleague[] }) => answer.people),
);

/** Gives a case to a colleague, found by typing their name or team. */
export default function AssignDialog({
  number,
  label,
  onClose,
}: {
  number: number;
  label: string;
  onClose: () => void;
}) {
  const [to, setTo] = useState<Colleague | null>(null);
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const found = useFound(isOpen ? "/colleagues" : null, typed.trim(), people);
  return (
    <Asked
      title={t("giveLabelTo", { label })}
      words={t("itIsTheirsAndInTheirList")}
      yes={t("giveItToThem")}
      change={to && { what: "assign", to: to.id }}
      number={number}
      onClose={onClose}
    >
      <SearchedList
        label={t("theColleague")}
        words={
          to ? (
            <span className="truncate">{[to.name, to.team].join(", ")}</span>
          ) : (
            <span className="text-soft">{t("chooseAColleague")}</span>
          )
        }
        open={isOpen}
        onOpen={(open) => {
          setOpen(open);
          setTyped("");
        }}
        className="lined-field w-full"
        input={{ value: typed, onValueChange: setTyped, placeholder: t("nameOrTeam"), maxLength: 200 }}
        none={t("noColleagueIsLikeThat")}
      >
        {found.map((known) => (
          <Command.Item
            key={known.id}
            value={String(known.id)}
            keywords={[known.name, known.team]}
            onSelect={() => {
              setTo(known);
              setOpen(false);
            }}
            className={LIST_ITEM}
          >
            <span className="flex justify-between gap-4">
              <span>{known.name}</span>
              <span className="text-soft">
                {[known.team, t("countCases", { count: known.cases })].join(", ")}
              </span>
            </span>
          </Command.Item>
        ))}
      </SearchedList>
    </Asked>
  );
}
