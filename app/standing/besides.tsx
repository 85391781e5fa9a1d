import { useMemo, useState } from "react";
import type { Closeness } from "#core/ranking/fit-words";
import { caseStateName, caseStates } from "#core/words/case-states";
import type { StandingAnswers } from "#server/standing/rules";
import { ReplyChoice } from "../ui/reply-choice";
import { said } from "../ui/select";
import type { MessagePart } from "../writing/conditions/condition-form";
import { t } from "../words/standing";

const fits: Record<Closeness, () => string> = {
  close: () => t("aCloseFit"),
  likely: () => t("aLikelyFit"),
  maybe: () => t("aDoubtfulFit"),
};
const closenesses = Object.keys(fits) as Closeness[];

/** What rules may ask of a message and its case besides what replies may, and what its values are called. */
export function useBesides({ titles }: Pick<StandingAnswers, "titles">): {
  besides: readonly MessagePart[];
  valueCalled: (name: string, value: string) => string | null;
} {
  // Titles of those that were chosen since.
  const [chosen, setChosen] = useState<Record<string, string>>({});
  return useMemo(() => {
    const titleOf = (key: string) => chosen[key] ?? titles[key] ?? null;
    const besides: MessagePart[] = [
      ["message.in_hours", t("inOurHours"), "yes_no"],
      ["message.is_first", t("itBeginsTheCase"), "yes_no"],
      ["message.answered_before", t("weHaveWrittenBefore"), "yes_no"],
      [
        ...(["message.best_reply", t("theBestReply"), "text"] as const),
        {
          field: (value, onChange) => (
            <ReplyChoice
              title={titleOf(value) ?? (value === "" ? null : value)}
              className="lined-field max-w-56"
              onChoose={({ key, title }) => {
                setChosen((before) => ({ ...before, [key]: title }));
                onChange(key);
              }}
            />
          ),
        },
      ],
      [
        ...(["message.best_fit", t("howItFits"), "text"] as const),
        { options: said(closenesses, (one) => fits[one]()) },
      ],
      ["case.state", t("theStateOfTheCase"), "text", { options: said(caseStates, caseStateName) }],
      ["case.tags", t("tagsOfTheCase"), "text"],
    ];
    const valueCalled = (name: string, value: string) => {
      if (name === "message.best_reply") return titleOf(value);
      const options = besides.find(([one]) => one === name)?.[3]?.options;
      return options?.find(([one]) => one === value)?.[1] ?? null;
    };
    return { besides, valueCalled };
  }, [titles, chosen]);
}
