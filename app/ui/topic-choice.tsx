import { Command } from "cmdk";
import { useState } from "react";
import * as z from "zod/mini";
import { LIST_ITEM, SearchedList } from "./searched-list";
import { useFound } from "./use-found";
import { t } from "../words/ui";

const topics = z.pipe(
  z.object({ topics: z.array(z.string()) }),
  z.transform((answer: { topics: string[] }) => answer.topics),
);

interface Props {
  topic: string | null;
  onChoose: (topic: string | null) => void;
  /** What choosing none says; null where one is to be chosen. */
  none: string | null;
  className?: string;
}

/** A topic that cases have, or a new one. */
export function TopicChoice({ topic, onChoose, none, className = "lined-field w-full" }: Props) {
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const found = useFound(isOpen ? "/topics" : null, typed.trim(), topics);
  const fresh = typed.trim();
  const choose = (next: string | null) => {
    onChoose(next);
    setOpen(false);
  };
  return (
    <SearchedList
      label={t("theTopic")}
      words={<span className="truncate">{topic ?? none ?? t("aTopic")}</span>}
      open={isOpen}
      onOpen={(open) => {
        setOpen(open);
        setTyped("");
      }}
      className={className}
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
      {topic !== null && none !== null && (
        <Command.Item value="none" keywords={[typed]} onSelect={() => choose(null)} className={LIST_ITEM}>
          {none}
        </Command.Item>
      )}
    </SearchedList>
  );
}
