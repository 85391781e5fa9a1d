import type { Effects } from "#core/standing/effects";
import { listed } from "#core/text/counted";
import { caseStateName, setStates, type SetState } from "#core/words/case-states";
import type { StandingAnswers } from "#server/standing/rules";
import { FieldProblem } from "../ui/form";
import { ManyPicker } from "../ui/many-picker";
import { Picker } from "../ui/picker";
import { said, Select } from "../ui/select";
import { TopicChoice } from "../ui/topic-choice";
import { Part } from "./part";
import type { EditedRule } from "./use-rule";
import { t } from "../words/standing";

type Known = Pick<StandingAnswers, "people" | "teams">;

/** What else happens to the case, as the end of the sentence. */
export function effectsWords(
  { state, topic, owner, team, tags = [] }: Effects,
  { people, teams }: Known,
): string {
  const nameIn = (list: { id: number; name: string }[], id: number) =>
    list.find((one) => one.id === id)?.name ?? t("somebodyWhoIsGone");
  const parts = [
    ...(state === undefined ? [] : [t("theCaseIsThen", { state: caseStateName(state) })]),
    ...(topic === undefined ? [] : [t("itsTopicIsThen", { topic })]),
    ...(owner === undefined ? [] : [t("itIsThenOf", { name: nameIn(people, owner) })]),
    ...(team === undefined ? [] : [t("itGoesTo", { name: nameIn(teams, team) })]),
    ...(tags.length === 0 ? [] : [t("itIsTagged", { tags: listed(tags) })]),
  ];
  return parts.length === 0 ? t("nothingElseHappens") : listed(parts);
}

/** What else happens to the case: the part of the sentence that opens to choose it. */
export function EffectsPart({ edited: { form }, answers }: { edited: EditedRule; answers: StandingAnswers }) {
  const effects = form.watch("effects");
  const set = (next: { [Key in keyof Effects]: Effects[Key] | undefined }) => {
    const known = Object.fromEntries(
      Object.entries({ ...effects, ...next }).filter(([, value]) => value !== undefined),
    );
    form.setValue("effects", known, { shouldDirty: true, shouldValidate: true });
  };
  const oneOf = (list: { id: number; name: string }[]) => [
    {
      heading: t("asItIs"),
      options: [["", t("leftAsItIs")] as const, ...list.map(({ id, name }) => [String(id), name] as const)],
    },
  ];
  const numbered = (value: string) => (value === "" ? undefined : Number(value));
  const nameOf = (list: { id: number; name: string }[], id: number | undefined) =>
    list.find((one) => one.id === id)?.name ?? t("leftAsItIs");
  const row = "grid grid-cols-[5rem_minmax(0,1fr)] items-baseline gap-3";
  return (
    <Part label={t("whatElseHappens")} words={effectsWords(effects, answers)} className="w-96 max-w-[90vw]">
      <p className={row}>
        {t("itsState")}
        <Select<SetState | "">
          label={t("itsState")}
          value={effects.state ?? ""}
          options={[["", t("leftAsItIs")], ...said(setStates, caseStateName)]}
          onChange={(state) => set({ state: state === "" ? undefined : state })}
        />
      </p>
      <p className={row}>
        {t("itsTopic")}
        <TopicChoice
          topic={effects.topic ?? null}
          none={t("leftAsItIs")}
          onChoose={(topic) => set({ topic: topic ?? undefined })}
        />
      </p>
      <p className={row}>
        {t("whoseItIs")}
        <Picker
          label={t("whoseItIs")}
          value={String(effects.owner ?? "")}
          words={nameOf(answers.people, effects.owner)}
          groups={oneOf(answers.people)}
          onChange={(value) => set({ owner: numbered(value) })}
        />
      </p>
      <p className={row}>
        {t("itsTeam")}
        <Picker
          label={t("itsTeam")}
          value={String(effects.team ?? "")}
          words={nameOf(answers.teams, effects.team)}
          groups={oneOf(answers.teams)}
          onChange={(value) => set({ team: numbered(value) })}
        />
      </p>
      <p className={row}>
        {t("tagsToo")}
        <ManyPicker
          label={t("tagsToo")}
          value={effects.tags ?? []}
          options={answers.tags}
          onChange={(tags) => set({ tags: tags.length === 0 ? undefined : tags })}
          placeholder={t("noMoreTags")}
          className="lined-field w-full"
          open
        />
      </p>
      <FieldProblem words={form.formState.errors.effects && t("tagsAreShort")} />
      <p className="text-sm text-soft">{t("stateOnlyWithALetter")}</p>
    </Part>
  );
}
