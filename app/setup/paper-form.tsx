import { useMemo, useState } from "react";
import { Controller, useWatch } from "react-hook-form";
import type { TeamStationery } from "#server/house/stationery";
import type { Writer } from "#server/house/writers";
import type { Viewer } from "#server/people/viewer";
import type { Context } from "#core/tokens/context";
import type { PaperTexts, Stationery as Paper } from "#core/compose/stationery";
import type { Doc } from "#core/document/types";
import type { Written } from "#core/language/written";
import { hasOwnWords } from "#core/checks/languages";
import { paperSchema } from "#core/forms/papers";
import type { AttachmentRef } from "#core/compose/slip";
import { Button } from "../ui/button";
import { FieldProblem, FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { useUpload } from "../ui/use-upload";
import { Contrasts } from "./contrasts";
import { LanguageTabs, otherLanguages, spoken } from "./language-tabs";
import { OwnWords } from "./own-words";
import { PaperPreview } from "./paper-preview";
import { useSave } from "../ui/use-save";
import { printedBy, WhoseLetters } from "./whose-letters";
import type { Token } from "#core/tokens/catalogue";
import { t } from "../words/setup";

const PARTS = () =>
  [
    ["header", t("header")],
    ["footer", t("footer")],
  ] as const;

interface Props {
  stationery: TeamStationery;
  /** The languages that the house writes in, the first one first. */
  languages: string[];
  /** Those whose letters it stands around. */
  writers: Writer[];
  viewer: Pick<Viewer, "id" | "role">;
  tokens: ReadonlyMap<string, Token>;
  context: Context;
}

/** What surrounds a team’s emails, in each language of the house, and a letter on it. */
export function PaperForm({ stationery, languages, writers, viewer, tokens, context }: Props) {
  const { act } = useSave("/setup");
  const { upload, problem: uploadProblem } = useUpload();
  const known = stationery.paper;
  const first = known?.header?.language ?? known?.footer?.language ?? languages[0] ?? "en";
  const form = useFormOf(paperSchema, {
    name: known?.name ?? stationery.teamName,
    header: known?.header?.text ?? null,
    footer: known?.footer?.text ?? null,
    texts: textsOf(known),
    accent: known?.accent ?? "#0d5a45",
    textColour: known?.textColour ?? "#17211d",
    background: known?.background ?? "#ffffff",
    logo: known?.logo?.id ?? null,
    logoAlt: known?.logo?.alt ?? "",
  });
  const { errors, isDirty, isSubmitting } = form.formState;
  // What the preview needs to know of the picture beside its id.
  const [picture, setPicture] = useState<AttachmentRef | null>(known?.logo ?? null);
  const [language, setLanguage] = useState(first);
  const watched = useWatch({ control: form.control });
  const { accent = "", textColour = "", background = "", name = "", logoAlt = "" } = watched;
  // The library that watches forms does not follow a document into its depth.
  const texts = watched as unknown as PaperTexts & { texts: Record<string, PaperTexts> };
  const paper = useMemo(
    (): Paper => ({
      ...{ name, accent, textColour, background },
      header: writtenPart(texts, first, "header"),
      footer: writtenPart(texts, first, "footer"),
      logo: picture && { ...picture, alt: logoAlt },
    }),
    [name, accent, textColour, background, texts, first, picture, logoAlt],
  );
  const setLogo = (logo: AttachmentRef | null) => {
    setPicture(logo);
    form.setValue("logo", logo?.id ?? null, { shouldDirty: true });
  };
  const keep = form.handleSubmit(async (kept) => {
    if (taken(form, await act("keep-stationery", { team: stationery.team, ...kept })))
      form.reset(form.getValues());
  });
  const colour = (label: string, key: "accent" | "textColour" | "background") => (
    <label className="flex items-center gap-2">
      {label}
      <input type="color" {...form.register(key)} />
      <FieldProblem words={errors[key]?.message} />
    </label>
  );
  const has = (one: string) => one === first || texts.texts[one] !== undefined;
  const begin = (one: string) => {
    const { header, footer } = texts;
    form.setValue(`texts.${one}`, { header, footer }, { shouldDirty: true });
  };
  const documents = [texts, ...Object.values(texts.texts)].flatMap(({ header, footer }) => [header, footer]);
  return (
    <form noValidate className="mt-4 flex flex-col gap-5" onSubmit={(event) => void keep(event)}>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-3">
        {colour(t("ruleUnderTheHeader"), "accent")}
        {colour(t("words"), "textColour")}
        {colour(t("page"), "background")}
        <span className="flex items-center gap-3">
          <label className="quiet-link">
            {picture ? t("anotherLogo") : t("aLogo")}
            <input
              type="file"
              accept="image/png,image/jpeg,image/gif,image/webp"
              className="sr-only"
              onChange={(event) => {
                const file = event.target.files?.[0];
                event.target.value = "";
                if (file) void upload(file, true).then((stored) => stored && setLogo(stored));
              }}
            />
          </label>
          {picture && (
            <>
              <LineInput
                field={form.register("logoAlt")}
                problem={errors.logoAlt?.message}
                aria-label={t("whatTheLogoShows")}
                placeholder={t("whatTheLogoShows2")}
              />
              <button type="button" className="quiet-link" onClick={() => setLogo(null)}>
                {t("noLogo")}
              </button>
            </>
          )}
        </span>
      </div>
      <Contrasts paper={paper} />
      <LanguageTabs
        label={t("languagesOfHeaderAndFooter")}
        languages={[first, ...otherLanguages(first, languages, textsOf(known))]}
        has={has}
        needed={[texts.header, texts.footer].some((part) => part !== null && hasOwnWords(part))}
        onChoose={setLanguage}
      >
        {(one) =>
          has(one) ? (
            <div className="mt-2 flex flex-col gap-5">
              {PARTS().map(([part, label]) => (
                <section key={part}>
                  <h2 className="mb-1.5 font-bold">{label}</h2>
                  <Controller
                    control={form.control}
                    name={one === first ? part : `texts.${one}.${part}`}
                    render={({ field }) => (
                      <OwnWords
                        label={one === first ? label : `${label}, ${spoken(one)}`}
                        doc={(field.value ?? null) as Doc | null}
                        language={one}
                        tokens={tokens}
                        context={context}
                        onChange={field.onChange}
                      />
                    )}
                  />
                  <FieldProblem words={errors[part]?.message} />
                </section>
              ))}
            </div>
          ) : (
            <p className="mt-2">
              <span className="text-look">
                {t("lettersInOneCarryTheseIn", { one: spoken(one), first: spoken(first) })}
              </span>{" "}
              <button type="button" className="quiet-link" onClick={() => begin(one)}>
                {t("writeThemInOne", { one: spoken(one) })}
              </button>
            </p>
          )
        }
      </LanguageTabs>
      {isDirty && <WhoseLetters writers={writers} prints={printedBy(documents)} viewer={viewer} />}
      <FormProblem words={uploadProblem ?? errors.logo?.message ?? errors.root?.message} />
      <Button type="submit" disabled={isSubmitting}>
        {t("save")}
      </Button>
      <PaperPreview paper={paper} language={language} tokens={tokens} context={context} />
    </form>
  );
}

/** Header and footer in other languages, as the form has them. */
function textsOf(paper: Paper | null): Record<string, PaperTexts> {
  const languages = [paper?.header, paper?.footer].flatMap((part) => Object.keys(part?.others ?? {}));
  return Object.fromEntries(
    languages.map((language) => [
      language,
      { header: paper?.header?.others[language] ?? null, footer: paper?.footer?.others[language] ?? null },
    ]),
  );
}

/** A part as letters read it. */
function writtenPart(
  { texts, ...own }: PaperTexts & { texts: Record<string, PaperTexts> },
  language: string,
  part: keyof PaperTexts,
): Written<Doc> | null {
  const others = Object.entries(texts).flatMap(([tag, one]) =>
    one[part] ? [[tag, one[part]] as const] : [],
  );
  return own[part] ? { language, text: own[part], others: Object.fromEntries(others) } : null;
}
