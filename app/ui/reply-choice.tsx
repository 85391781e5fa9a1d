import { Command } from "cmdk";
import { useState } from "react";
import * as z from "zod/mini";
import { LIST_ITEM, SearchedList } from "./searched-list";
import { useFound } from "./use-found";
import { t } from "../words/ui";

const answer = z.object({ key: z.string(), title: z.string(), shelf: z.string() });
const answers = z.pipe(
  z.object({ answers: z.array(answer) }),
  z.transform(({ answers: all }: { answers: z.infer<typeof answer>[] }) => all),
);

/** An answer on the shelf, found by typing its title. */
export function ReplyChoice({
  title,
  onChoose,
  className = "lined-field w-full text-base",
}: {
  /** Of the one that is chosen; null for none. */
  title: string | null;
  onChoose: (reply: { key: string; title: string }) => void;
  className?: string;
}) {
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const found = useFound(isOpen ? "/setup/answers" : null, typed.trim(), answers);
  return (
    <SearchedList
      label={t("theReply")}
      words={
        title === null ? (
          <span className="text-soft">{t("chooseAReply")}</span>
        ) : (
          <span className="truncate">{title}</span>
        )
      }
      open={isOpen}
      onOpen={(open) => {
        setOpen(open);
        setTyped("");
      }}
      className={className}
      input={{ value: typed, onValueChange: setTyped, placeholder: t("itsTitle"), maxLength: 200 }}
      none={t("noReplyIsLikeThat")}
    >
      {found.map((one) => (
        <Command.Item
          key={one.key}
          value={one.key}
          keywords={[one.title, one.shelf]}
          onSelect={() => {
            onChoose(one);
            setOpen(false);
          }}
          className={LIST_ITEM}
        >
          <span className="flex justify-between gap-4">
            <span>{one.title}</span>
            <span className="text-soft">{one.shelf}</span>
          </span>
        </Command.Item>
      ))}
    </SearchedList>
  );
}
