import { Command } from "cmdk";
import { useState } from "react";
import * as z from "zod/mini";
import { LIST_ITEM, SearchedList } from "../../ui/searched-list";
import { useFound } from "../../ui/use-found";
import { t } from "../../words/answering";

const person = z.object({
  address: z.string(),
  name: z.nullable(z.string()),
  is: z.string(),
  of: z.nullable(z.string()),
});
const people = z.pipe(
  z.object({ people: z.array(person) }),
  z.transform((answer: { people: z.infer<typeof person>[] }) => answer.people),
);

interface Props {
  label: string;
  /** What stands on it; that somebody is added, where it is left out. */
  words?: string;
  onAdd: (address: string) => void;
}

/** An address: of somebody found by typing their name, or as it is written. */
export function AddressPicker({ label, words = t("addSomebody"), onAdd }: Props) {
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const wanted = typed.trim();
  const shown = useFound(wanted === "" ? null : "/people", wanted, people);
  const take = (address: string) => {
    setOpen(false);
    onAdd(address.toLowerCase());
  };
  const isAddress = z.safeParse(z.email(), wanted).success;
  const isListed = shown.some((one) => one.address === wanted.toLowerCase());
  return (
    <SearchedList
      label={label}
      words={<span className="text-soft">{words}</span>}
      open={isOpen}
      onOpen={(open) => {
        setOpen(open);
        setTyped("");
      }}
      className="text-sm"
      input={{ value: typed, onValueChange: setTyped, placeholder: t("aNameOrAnAddress"), maxLength: 254 }}
      none={isAddress ? null : t("nobodyIsCalledLikeThat")}
    >
      {shown.map((one) => (
        <Command.Item
          key={`${one.is} ${one.address}`}
          value={`${one.is} ${one.address}`}
          keywords={[one.name ?? "", one.address, one.of ?? ""]}
          onSelect={() => take(one.address)}
          className={LIST_ITEM}
        >
          <span className="block">{one.name ?? one.address}</span>
          <span className="block text-xs text-soft">
            {[one.address, one.of, one.is === "colleague" ? t("aColleague") : null]
              .filter((part) => part !== null)
              .join(", ")}
          </span>
        </Command.Item>
      ))}
      {isAddress && !isListed && (
        <Command.Item value={wanted} onSelect={() => take(wanted)} className={LIST_ITEM}>
          {t("addAddress", { address: wanted })}
        </Command.Item>
      )}
    </SearchedList>
  );
}
