import { useState } from "react";
import { TopicChoice } from "../../ui/topic-choice";
import { Asked } from "./asked";
import { t } from "../../words/answering";

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
  return (
    <Asked
      title={t("whatLabelIsAbout", { label })}
      words={t("answersAndTheTimeForThem")}
      yes={t("setTheTopic")}
      change={to === undefined ? null : { what: "topic", topic: to }}
      number={number}
      onClose={onClose}
    >
      <TopicChoice topic={to === undefined ? topic : to} none={t("noTopic")} onChoose={setTo} />
    </Asked>
  );
}
