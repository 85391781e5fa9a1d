import { useState } from "react";
import { Controller } from "react-hook-form";
import type { Doc } from "#core/document/types";
import { hasOwnWords } from "#core/checks/languages";
import { signatureSchema } from "#core/forms/papers";
import type { Written } from "#core/language/written";
import type { Token } from "#core/tokens/catalogue";
import type { Context } from "#core/tokens/context";
import type { Writer } from "#server/house/writers";
import type { Viewer } from "#server/people/viewer";
import { Button } from "../ui/button";
import { FormProblem, taken, useFormOf } from "../ui/form";
import { LanguageTabs, otherLanguages, spoken } from "./language-tabs";
import { OwnWords } from "./own-words";
import { useSave } from "../ui/use-save";
import { printedBy, WhoseLetters } from "./whose-letters";
import { t } from "../words/setup";

interface Props {
  /** Null for one's own. */
  team: number | null;
  signature: Written<Doc> | null;
  /** The languages that the house writes in, the first one first. */
  languages: string[];
  /** Whose letters it stands under. */
  writers: Writer[];
  /** What is said where those are nobody’s. */
  nobody?: string;
  viewer: Pick<Viewer, "id" | "role">;
  tokens: ReadonlyMap<string, Token>;
  context: Context;
  label: string;
}

/** A signature, one's own or one that a team imposes, in each language of the house, and how it reads. */
export function SignatureForm({ signature, languages, label, ...props }: Props) {
  const first = signature?.language ?? languages[0] ?? "en";
  const all = signature ? [first, ...otherLanguages(first, languages, signature.others)] : [first];
  const textIn = (language: string) => (language === first ? signature?.text : signature?.others[language]);
  return (
    <LanguageTabs
      label={t("languagesOfLabel", { label })}
      languages={all}
      has={(one) => textIn(one) !== undefined}
      needed={signature !== null && hasOwnWords(signature.text)}
    >
      {(language) => (
        <SignatureIn
          {...props}
          label={language === first ? label : `${label}, ${spoken(language)}`}
          language={language}
          doc={textIn(language) ?? null}
          model={language === first ? null : { language: first, doc: signature?.text ?? null }}
        />
      )}
    </LanguageTabs>
  );
}

interface InProps extends Omit<Props, "signature" | "languages"> {
  language: string;
  /** Null where there is none in this language. */
  doc: Doc | null;
  /** What it is written after; null for the first. */
  model: { language: string; doc: Doc | null } | null;
}

function SignatureIn({
  team,
  doc,
  language,
  model,
  writers,
  nobody,
  viewer,
  tokens,
  context,
  label,
}: InProps) {
  const { act } = useSave("/setup");
  // What lacks begins as the first one reads, to be written over.
  const begun = doc ?? model?.doc ?? null;
  const form = useFormOf(signatureSchema, { document: begun });
  const { errors, isDirty, isSubmitting } = form.formState;
  const [written, setWritten] = useState(begun);
  const lacks = model !== null && doc === null;
  const keep = form.handleSubmit(async (signature) => {
    if (taken(form, await act("keep-signature", { team, language, ...signature })))
      form.reset(form.getValues());
  });
  return (
    <form noValidate className="mt-3 flex flex-col gap-3" onSubmit={(event) => void keep(event)}>
      <Controller
        control={form.control}
        name="document"
        render={({ field }) => (
          <OwnWords
            label={label}
            doc={begun}
            language={language}
            tokens={tokens}
            context={context}
            onChange={(next) => {
              setWritten(next);
              field.onChange(next);
            }}
          />
        )}
      />
      {lacks && (
        <p className="text-sm text-look">
          {model.doc && hasOwnWords(model.doc)
            ? t("thereIsNoneInLanguageLetters", {
                language: spoken(language),
                language2: spoken(model.language),
              })
            : t("itIsValuesAloneLettersIn", { language: spoken(language) })}
        </p>
      )}
      {isDirty && (
        <WhoseLetters
          writers={writers}
          prints={printedBy([written])}
          {...(nobody === undefined ? {} : { nobody })}
          imposed={team !== null && model === null && doc === null}
          viewer={viewer}
        />
      )}
      <FormProblem words={errors.document?.message ?? errors.root?.message} />
      <span className="flex items-center gap-4">
        <Button type="submit" disabled={!(isDirty || lacks) || isSubmitting}>
          {t("save")}
        </Button>
        {isDirty && <span className="text-sm text-look">{t("notSavedYetEmptyMeansNone")}</span>}
      </span>
    </form>
  );
}
