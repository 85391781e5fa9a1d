import { Command } from "cmdk";
import { useState } from "react";
import * as z from "zod/mini";
import { LIST_ITEM, SearchedList } from "../../ui/searched-list";
import { useFound } from "../../ui/use-found";
import { Asked } from "./asked";
import { t } from "../../words/answering";

const colleague = z.object({ id: z.number(), name: z.string(), team: z.string(), cases: z.number() });
const team = z.object({ id: z.number(), name: z.string(), cases: z.number() });
/** Whom a case can be given to. */
interface Receiver {
  kind: "person" | "team";
  id: number;
  name: string;
  /** Of a colleague: their team. */
  of: string;
  cases: number;
}
const receivers = z.pipe(
  z.object({ people: z.array(colleague), teams: z.array(team) }),
  z.transform(
    (answer: { people: z.infer<typeof colleague>[]; teams: z.infer<typeof team>[] }): Receiver[] => [
      ...answer.people.map(({ team: of, ...one }) => ({ kind: "person" as const, of, ...one })),
      ...answer.teams.map((one) => ({ kind: "team" as const, of: t("aTeam"), ...one })),
    ],
  ),
);

/** Gives a case to a colleague or a team, found by typing a name, with a note for them. */
export default function AssignDialog({
  number,
  label,
  onClose,
}: {
  number: number;
  label: string;
  onClose: () => void;
}) {
  const [to, setTo] = useState<Receiver | null>(null);
  const [note, setNote] = useState("");
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const found = useFound(isOpen ? "/colleagues" : null, typed.trim(), receivers);
  return (
    <Asked
      title={t("giveLabelTo", { label })}
      words={t("itIsTheirsAndInTheirList")}
      yes={t("giveItToThem")}
      change={
        to && {
          what: "assign",
          to: to.kind === "person" ? to.id : null,
          team: to.kind === "team" ? to.id : null,
          note,
        }
      }
      number={number}
      onClose={onClose}
    >
      <SearchedList
        label={t("theColleague")}
        words={
          to ? (
            <span className="truncate">{[to.name, to.of].join(", ")}</span>
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
            key={`${known.kind} ${known.id}`}
            value={`${known.kind} ${known.id}`}
            keywords={[known.name, known.of]}
            onSelect={() => {
              setTo(known);
              setOpen(false);
            }}
            className={LIST_ITEM}
          >
            <span className="flex justify-between gap-4">
              <span>{known.name}</span>
              <span className="text-soft">
                {[known.of, t("countCases", { count: known.cases })].join(", ")}
              </span>
            </span>
          </Command.Item>
        ))}
      </SearchedList>
      <label className="mt-4 block text-sm">
        {t("aNoteWithIt")}
        <textarea
          value={note}
          maxLength={5000}
          rows={3}
          onChange={(event) => setNote(event.target.value)}
          className="mt-1 w-full border border-dashed border-board bg-desk px-2 py-1"
        />
      </label>
    </Asked>
  );
}
