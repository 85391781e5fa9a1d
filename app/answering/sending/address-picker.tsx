import { Command } from "cmdk";
import { useEffect, useState } from "react";
import * as z from "zod/mini";
import { readFrom } from "../../ui/read";
import { LIST_ITEM, SearchedList } from "../../ui/searched-list";
import { t } from "../../words/answering";

const WAIT_MS = 120;

const found = z.object({
  people: z.array(
    z.object({
      address: z.string(),
      name: z.nullable(z.string()),
      is: z.string(),
      of: z.nullable(z.string()),
    }),
  ),
});
type Person = z.infer<typeof found>["people"][number];

/** An address: of somebody found by typing their name, or as it is written. */
export function AddressPicker({ label, onAdd }: { label: string; onAdd: (address: string) => void }) {
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const [people, setPeople] = useState<Person[]>([]);
  const wanted = typed.trim();
  useEffect(() => {
    if (wanted === "") return;
    const abort = new AbortController();
    const timer = setTimeout(() => {
      readFrom(`/people?q=${encodeURIComponent(wanted)}`, abort.signal)
        .then((answer) => {
          const read = z.safeParse(found, answer);
          setPeople(read.success ? read.data.people : []);
        })
        // What is written as an address can be added all the same.
        .catch(() => setPeople([]));
    }, WAIT_MS);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [wanted]);
  const take = (address: string) => {
    setOpen(false);
    onAdd(address.toLowerCase());
  };
  const shown = wanted === "" ? [] : people;
  const isAddress = z.safeParse(z.email(), wanted).success;
  const isListed = shown.some((one) => one.address === wanted.toLowerCase());
  return (
    <SearchedList
      label={label}
      words={<span className="text-soft">{t("addSomebody")}</span>}
      open={isOpen}
      onOpen={(open) => {
        setOpen(open);
        setTyped("");
      }}
      className="text-sm"
      input={{ value: typed, onValueChange: setTyped, placeholder: t("aNameOrAnAddress"), maxLength: 254 }}
      none={isAddress ? null : t("nobodyIsCalledLikeThat")}
    >
      {shown.map((person) => (
        <Command.Item
          key={`${person.is} ${person.address}`}
          value={`${person.is} ${person.address}`}
          keywords={[person.name ?? "", person.address, person.of ?? ""]}
          onSelect={() => take(person.address)}
          className={LIST_ITEM}
        >
          <span className="block">{person.name ?? person.address}</span>
          <span className="block text-xs text-soft">
            {[person.address, person.of, person.is === "colleague" ? t("aColleague") : null]
              .filter((one) => one !== null)
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
