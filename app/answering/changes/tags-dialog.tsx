import { useState } from "react";
import * as z from "zod/mini";
import { ManyPicker } from "../../ui/many-picker";
import { useFound } from "../../ui/use-found";
import { Asked } from "./asked";
import { t } from "../../words/answering";

const known = z.pipe(
  z.object({ tags: z.array(z.string()) }),
  z.transform((answer: { tags: string[] }) => answer.tags),
);

/** Says by which words a case is found among others: those that other cases have, or new ones. */
export default function TagsDialog({
  number,
  label,
  tags,
  onClose,
}: {
  number: number;
  label: string;
  tags: string[];
  onClose: () => void;
}) {
  const [chosen, setChosen] = useState(tags);
  const found = useFound("/tags", "", known);
  return (
    <Asked
      title={t("tagsOfLabel", { label })}
      words={t("tagsAreWords")}
      yes={t("setTheTags")}
      change={chosen.join() === tags.join() ? null : { what: "tags", tags: chosen }}
      number={number}
      onClose={onClose}
    >
      <ManyPicker
        label={t("tags")}
        value={chosen}
        options={found}
        onChange={setChosen}
        placeholder={t("noTags")}
        className="lined-field w-full"
        open
      />
    </Asked>
  );
}
