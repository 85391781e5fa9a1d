import { useState } from "react";
import * as z from "zod/mini";
import type { ConversationMessage } from "#server/cases/conversation";
import { useAct } from "../../ui/act";
import { Select } from "../../ui/select";
import { useToast } from "../../ui/toast";
import { useFound } from "../../ui/use-found";
import { t } from "../../words/answering";
import { Asking } from "./asked";

const rule = z.object({ id: z.int(), name: z.string() });
const names = z.pipe(
  z.object({ rules: z.array(rule) }),
  z.transform((answer: { rules: z.infer<typeof rule>[] }) => answer.rules),
);

/** Says which rule should have answered a message: it is tried on it whenever it is rehearsed. */
export default function RuleDialog({
  message,
  onClose,
}: {
  message: Pick<ConversationMessage, "id">;
  onClose: () => void;
}) {
  const rules = useFound("/standing/names", "", names);
  const [chosen, setChosen] = useState("");
  const act = useAct();
  const toast = useToast();
  const say = async () => {
    const kept = await act(`/standing/${chosen}/mark`, { message: message.id, should: true });
    if (!kept.ok) return kept.problem;
    toast({ words: t("itIsTriedOnThat") });
    return null;
  };
  return (
    <Asking
      title={t("aRuleShouldHaveAnswered")}
      words={t("itIsTriedWhenRehearsed")}
      yes={t("sayIt")}
      go={chosen === "" ? null : say}
      onClose={onClose}
    >
      <Select
        label={t("theRule")}
        className="lined-field w-full"
        value={chosen}
        placeholder={t("chooseARule")}
        options={rules.map(({ id, name }) => [String(id), name] as const)}
        onChange={setChosen}
      />
    </Asking>
  );
}
