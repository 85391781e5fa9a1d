import { Command } from "cmdk";
import { useState } from "react";
import * as z from "zod/mini";
import { LIST_ITEM, SearchedList } from "../../ui/searched-list";
import { useFound } from "../../ui/use-found";
import { Asked } from "./asked";
import { t } from "../../words/answering";

const topics = z.pipe(
  z.object({ topics: z.array(z.string()) }),
  z.transform((answer: { topics: string[] }) => answer.topics),
);

/** Says what a case is about: a topic that other cases have, or a new one. */
export default function TopicDialog({
  number,
  label,
  topic,
  onClose,
}: {
  number: number;
  label: string;
  topic: string | null;
  onClose: () => void;
}) {
  const [to, setTo] = useState<string | null | undefined>(undefined);
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const found = useFound(isOpen ? "/topics" : null, typed.trim(), topics);
  const fresh = typed.trim();
  const choose = (next: string | null) => {
    setTo(next);
    setOpen(false);
  };
  return (
    <Asked
      title={t("whatLabelIsAbout", { label })}
      words={t("answersAndTheTimeForThem")}
      yes={t("setTheTopic")}
      change={to === undefined ? null : { what: "topic", topic: to }}
      number={number}
      onClose={onClose}
    >
      <SearchedList
        label={t("theTopic")}
        words={<span className="truncate">{(to === undefined ? topic : to) ?? t("noTopic")}</span>}
        open={isOpen}
        onOpen={(open) => {
          setOpen(open);
          setTyped("");
        }}
        className="lined-field w-full"
        input={{ value: typed, onValueChange: setTyped, placeholder: t("aTopic"), maxLength: 100 }}
        none={null}
      >
        {found.map((known) => (
          <Command.Item
            key={known}
            value={known}
            keywords={[known]}
            onSelect={() => choose(known)}
            className={LIST_ITEM}
          >
            {known}
          </Command.Item>
        ))}
        {fresh !== "" && !found.includes(fresh) && (
          <Command.Item
            value={`new ${fresh}`}
            keywords={[fresh]}
            onSelect={() => choose(fresh)}
            className={LIST_ITEM}
          >
            {t("aNewTopic", { topic: fresh })}
          </Command.Item>
        )}
        {topic !== null && (
          <Command.Item value="none" keywords={[typed]} onSelect={() => choose(null)} className={LIST_ITEM}>
            {t("noTopic")}
          </Command.Item>
        )}
      </SearchedList>
    </Asked>
  );
}
