import { useEffect, useState } from "react";
import { Controller, useWatch, type UseFormRegisterReturn } from "react-hook-form";
import { Link } from "react-router";
import * as z from "zod/mini";
import type { FactUse, OpenFact } from "#server/house/facts";
import { dayField } from "#core/forms/fields";
import { isWorded, type FactType } from "#core/forms/house";
import { Button } from "../ui/button";
import { FieldProblem, FormProblem, taken, useFormOf } from "../ui/form";
import { Select } from "../ui/select";
import { ComparedWords } from "../ui/compared";
import { languageName } from "#core/language/tag";
import { saysWords } from "#core/language/written";
import { listed } from "#core/text/counted";
import { Checkbox } from "../ui/checkbox";
import { sayDay } from "../ui/say-day";
import { otherLanguages, spoken } from "./language-tabs";
import { useAct } from "../ui/act";
import { exactTime, useClock } from "../ui/time";
import { draftOf, FactValueField, factWords, valueOfDraft } from "./fact-value";
import { useSave } from "../ui/use-save";
import { DateField } from "../ui/date-field";
import { t } from "../words/setup";

const preview = z.object({
  uses: z.array(
    z.object({
      key: z.nullable(z.string()),
      title: z.string(),
      language: z.nullable(z.string()),
      words: z.array(z.object({ kind: z.enum(["same", "added", "removed"]), text: z.string() })),
    }),
  ),
});

interface Props extends OpenFact {
  /** Where it is used, as it reads now. */
  uses: FactUse[];
  /** The languages that the house writes in, the first one first. */
  languages: string[];
  mayDescribe: boolean;
}

/** Another value of a fact, and the day from which it is to hold; nothing for now. */
const factForm = (type: FactType) =>
  z.pipe(
    z.object({
      draft: z.object({ text: z.string(), currency: z.string() }),
      /** The value in other languages, by their tags. */
      texts: z.record(z.string(), z.string()),
      from: z.union([z.literal(""), dayField]),
    }),
    z.transform(({ draft, texts, from }) => ({
      value: valueOfDraft(type, draft),
      texts,
      from: from === "" ? null : from,
    })),
  );

/** One house fact: its value, how the replies that use it would read with another, and what it was before. */
export function FactPage({ fact, values, uses, languages, mayDescribe }: Props) {
  const { timeZone } = useClock();
  const { act: actHere, send, problem } = useSave(`/setup/facts/${fact.key}`);
  const act = useAct();
  const others =
    isWorded(fact.type) && fact.language !== null ? otherLanguages(fact.language, languages, fact.texts) : [];
  const kept = Object.fromEntries(others.map((language) => [language, fact.texts[language] ?? ""]));
  const form = useFormOf(factForm(fact.type), { draft: draftOf(fact.value), texts: kept, from: "" });
  const { errors, isSubmitting } = form.formState;
  const [draft, texts, from] = useWatch({ control: form.control, name: ["draft", "texts", "from"] });
  const [shown, setShown] = useState<FactUse[] | null>(null);
  const [unfit, setUnfit] = useState<string | null>(null);
  const changed =
    JSON.stringify(draft) !== JSON.stringify(draftOf(fact.value)) ||
    others.some((language) => (texts[language] ?? "").trim() !== kept[language]);
  const asked = JSON.stringify({ value: valueOfDraft(fact.type, draft), texts });
  const keep = form.handleSubmit(async (sent) => {
    const words =
      sent.from === null ? t("itHoldsFromNow") : t("itHoldsFromFrom", { from: sayDay(sent.from) });
    if (!taken(form, await actHere("set", sent, words))) return;
    form.reset(
      sent.from === null ? { draft, texts, from: "" } : { draft: draftOf(fact.value), texts: kept, from: "" },
    );
  });

  useEffect(() => {
    if (!changed) return;
    let wanted = true;
    const timer = setTimeout(() => {
      void act(`/setup/facts/${fact.key}/preview`, JSON.parse(asked) as object, preview).then((result) => {
        if (!wanted) return;
        setShown(result.ok ? result.data.uses : null);
        setUnfit(result.ok ? null : result.problem);
      });
    }, 200);
    return () => {
      clearTimeout(timer);
      wanted = false;
    };
  }, [act, changed, asked, fact.key]);

  const lacking = saysWords(draft.text) ? others.filter((language) => !texts[language]?.trim()) : [];
  const list = changed ? (shown ?? uses) : uses;
  return (
    <>
      <title>{t("factPlainShelf", { fact: fact.label })}</title>
      <p className="text-sm">
        <Link to="/setup/facts" className="quiet-link">
          {t("toTheHouseFacts")}
        </Link>
      </p>
      <h1 className="mt-2 text-xl font-bold first-letter:uppercase">{fact.label}</h1>
      <p className="text-sm text-soft">
        <code>{`{$house.${fact.key}}`}</code>, {fact.type.replace("_", " ")}
      </p>
      <div className="mt-5 grid gap-x-12 gap-y-8 xl:grid-cols-[30rem_minmax(0,1fr)]">
        <section className="flex flex-col gap-6">
          {fact.mayChange ? (
            <form noValidate className="flex flex-col gap-4" onSubmit={(event) => void keep(event)}>
              <Controller
                control={form.control}
                name="draft"
                render={({ field }) => (
                  <div className="flex flex-col gap-0.5">
                    {others.length > 0 && <span className="text-sm">{spoken(fact.language ?? "en")}</span>}
                    <FactValueField type={fact.type} draft={field.value} onChange={field.onChange} />
                  </div>
                )}
              />
              {others.map((language) => (
                <label key={language} className="flex flex-col gap-0.5 text-sm">
                  {spoken(language)}
                  <TextIn
                    type={fact.type}
                    language={language}
                    field={form.register(`texts.${language}`)}
                    placeholder={draft.text}
                  />
                </label>
              ))}
              {lacking.length > 0 && (
                <p className="text-sm text-look">
                  {t("lettersInLackingPrintItAs", {
                    lacking: listed(lacking.map(spoken)),
                    language: spoken(fact.language ?? "en"),
                  })}
                </p>
              )}
              <span className="flex flex-wrap items-baseline gap-x-3">
                {t("holdsFrom")}
                <Controller
                  control={form.control}
                  name="from"
                  render={({ field }) => (
                    <DateField label={t("holdsFrom")} value={field.value} onChange={field.onChange} />
                  )}
                />
                <span className="text-sm text-soft">{from ? t("thatDaysBeginning") : t("now")}</span>
                <FieldProblem words={errors.from?.message} />
              </span>
              <FormProblem words={(changed ? unfit : null) ?? errors.root?.message} />
              <Button type="submit" disabled={!changed || unfit !== null || isSubmitting}>
                {from ? t("planIt") : t("changeItNow")}
              </Button>
            </form>
          ) : (
            <p>
              <span className="font-serif text-lg">{factWords(fact.value, fact.type)}</span>
              <span className="block text-sm text-soft">
                {fact.changedBy === "lead" ? t("aLeadChangesIt") : t("aCuratorChangesIt")}
              </span>
            </p>
          )}
          <FormProblem words={problem ?? undefined} />
          {mayDescribe && isWorded(fact.type) && languages.length > 1 && (
            <label className="flex items-center gap-2 text-sm">
              <Checkbox
                checked={fact.language === null}
                onChange={(same) =>
                  void send("describe", {
                    label: fact.label,
                    changedBy: fact.changedBy,
                    language: same ? null : (languages[0] ?? "en"),
                  })
                }
              />
              {t("readsTheSameInEveryLanguage")}
            </label>
          )}
          {mayDescribe && (
            <label className="flex items-baseline gap-3 text-sm">
              {t("mayBeChangedBy")}
              <Select
                value={fact.changedBy}
                options={CHANGED_BY()}
                onChange={(changedBy) => void send("describe", { label: fact.label, changedBy })}
              />
            </label>
          )}
          <div>
            <h2 className="font-bold">{t("itsValues")}</h2>
            <ol className="mt-1 text-sm">
              {values.map((one) => (
                <li key={one.id} className="border-b border-line py-1.5">
                  <span className={`font-serif ${one.state === "now" ? "font-semibold" : ""}`}>
                    {factWords(one.value, fact.type)}
                  </span>
                  {Object.entries(one.texts).map(([language, text]) => (
                    <span key={language} className="block">
                      <span className="text-soft">{`${spoken(language)}: `}</span>
                      <span lang={language} className="font-serif">
                        {text}
                      </span>
                    </span>
                  ))}
                  <span className="block text-soft">
                    {heldWords(one, exactTime(Date.parse(one.from), timeZone))}
                    {one.state === "planned" && fact.mayChange && (
                      <button
                        type="button"
                        className="quiet-link ml-3"
                        onClick={() => void send(`planned/${one.id}/drop`, {}, t("itIsNotPlannedAnyMore"))}
                      >
                        {t("takeItBack")}
                      </button>
                    )}
                  </span>
                </li>
              ))}
            </ol>
          </div>
        </section>
        <section aria-label={t("whereItIsUsed")}>
          <h2 className="font-bold">
            {uses.length === 0 ? t("nothingUsesIt") : changed ? t("howItWillRead") : t("whereItIsUsed")}
          </h2>
          <ul className="mt-2 flex max-w-2xl flex-col gap-4">
            {list.map((use) => (
              <li key={`${use.title} ${use.key} ${use.language}`} className="border-b border-line pb-3">
                <p className="text-sm">
                  {use.key === null ? (
                    <strong>{use.title}</strong>
                  ) : (
                    <Link to={`/replies/${use.key}`} className="font-semibold underline underline-offset-2">
                      {use.title}
                    </Link>
                  )}{" "}
                  {use.language && <span className="text-soft">{languageName(use.language)}</span>}
                </p>
                <p className="mt-1 font-serif whitespace-pre-wrap">
                  <ComparedWords pieces={use.words} />
                </p>
              </li>
            ))}
          </ul>
        </section>
      </div>
    </>
  );
}

const CHANGED_BY = () =>
  [
    ["agent", t("everyone")],
    ["curator", t("curators")],
    ["lead", t("leads")],
  ] as const;

/** When a value holds, and by whom. */
function heldWords({ state, by }: OpenFact["values"][number], from: string): string {
  if (by === null)
    return state === "planned"
      ? t("willHoldFrom", { from })
      : state === "now"
        ? t("holdsSince", { from })
        : t("heldFrom", { from });
  return state === "planned"
    ? t("willHoldFromBy", { from, by })
    : state === "now"
      ? t("holdsSinceBy", { from, by })
      : t("heldFromBy", { from, by });
}

function TextIn({
  type,
  language,
  field,
  placeholder,
}: {
  type: FactType;
  language: string;
  field: UseFormRegisterReturn;
  placeholder: string;
}) {
  const shared = { ...field, lang: language, placeholder };
  if (type === "long_text")
    return <textarea {...shared} className="boxed-field text-base" rows={3} maxLength={5000} />;
  return (
    <input
      {...shared}
      type={type === "link" ? "url" : "text"}
      className="lined-field text-base"
      maxLength={5000}
    />
  );
}
