import { useMemo, useState } from "react";
import { Controller, useWatch } from "react-hook-form";
import type { TeamStationery } from "#server/house/stationery";
import type { Context } from "#core/tokens/context";
import { compose } from "#core/compose/compose";
import type { Stationery as Paper } from "#core/compose/stationery";
import { readMarkdown } from "#core/formats/markdown";
import { paperSchema } from "#core/forms/papers";
import type { AttachmentRef } from "#core/compose/slip";
import { Button } from "../ui/button";
import { FieldProblem, FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { PaperFrame } from "../ui/paper-frame";
import { useUpload } from "../ui/use-upload";
import { OwnWords } from "./own-words";
import { useSave } from "../ui/use-save";
import { Checkbox } from "../ui/checkbox";
import type { Token } from "#core/tokens/catalogue";

const sample = readMarkdown(
  "Thank you for your message.\n\nWe have looked into it, and all is well again.",
).doc;

/** What surrounds a team’s emails, and a letter on it. */
export function PaperForm({
  stationery,
  tokens,
  context,
}: {
  stationery: TeamStationery;
  tokens: ReadonlyMap<string, Token>;
  context: Context;
}) {
  const { act } = useSave("/setup");
  const { upload, problem: uploadProblem } = useUpload();
  const known = stationery.paper;
  const form = useFormOf(paperSchema, {
    name: known?.name ?? stationery.teamName,
    header: known?.header ?? null,
    footer: known?.footer ?? null,
    accent: known?.accent ?? "#0d5a45",
    textColour: known?.textColour ?? "#17211d",
    background: known?.background ?? "#ffffff",
    logo: known?.logo?.id ?? null,
    logoAlt: known?.logo?.alt ?? "",
  });
  const { errors, isSubmitting } = form.formState;
  // What the preview needs to know of the picture beside its id.
  const [picture, setPicture] = useState<AttachmentRef | null>(known?.logo ?? null);
  const written = useWatch({ control: form.control });
  const [asText, setAsText] = useState(false);
  const paper = useMemo((): Paper => {
    const { logoAlt = "", logo: _logo, ...rest } = written;
    return { ...(rest as Omit<Paper, "logo">), logo: picture && { ...picture, alt: logoAlt } };
  }, [written, picture]);
  const setLogo = (logo: AttachmentRef | null) => {
    setPicture(logo);
    form.setValue("logo", logo?.id ?? null, { shouldDirty: true });
  };
  const keep = form.handleSubmit(async (kept) => {
    if (taken(form, await act("keep-stationery", { team: stationery.team, ...kept })))
      form.reset(form.getValues());
  });
  const letter = useMemo(
    () =>
      compose({
        slips: [
          {
            id: "sample",
            reply: null,
            title: "",
            part: "answer",
            document: sample,
            blanks: {},
            passages: {},
            values: {},
            subject: null,
            attachments: [],
          },
        ],
        context,
        channel: "email",
        language: "en",
        tokens,
        patterns: () => null,
        signature: null,
        stationery: paper,
        subject: { from: "own", text: "Your message" },
        threadSubject: null,
        caseNumber: "SF-20417",
        attachments: [],
        contentId: (id) => id,
      }),
    [paper, context, tokens],
  );
  // The preview shows pictures from here; letters carry them.
  const html = letter.html.replaceAll(/"cid:(\d+)"/g, '"/library-files/$1"');
  const colour = (label: string, key: "accent" | "textColour" | "background") => (
    <label className="flex items-center gap-2">
      {label}
      <input type="color" {...form.register(key)} />
      <FieldProblem words={errors[key]?.message} />
    </label>
  );
  const ownWords = (label: string, key: "header" | "footer") => (
    <section>
      <h2 className="mb-1.5 font-bold">{label}</h2>
      <Controller
        control={form.control}
        name={key}
        render={({ field }) => (
          <OwnWords
            label={label}
            doc={known?.[key] ?? null}
            tokens={tokens}
            context={context}
            onChange={field.onChange}
          />
        )}
      />
      <FieldProblem words={errors[key]?.message} />
    </section>
  );
  return (
    <form noValidate className="mt-4 flex flex-col gap-5" onSubmit={(event) => void keep(event)}>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-3">
        {colour("Rule under the header", "accent")}
        {colour("Words", "textColour")}
        {colour("Page", "background")}
        <span className="flex items-center gap-3">
          <label className="quiet-link">
            {picture ? "another logo" : "a logo"}
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
                aria-label="What the logo shows"
                placeholder="what the logo shows"
              />
              <button type="button" className="quiet-link" onClick={() => setLogo(null)}>
                no logo
              </button>
            </>
          )}
        </span>
      </div>
      {ownWords("Header", "header")}
      {ownWords("Footer", "footer")}
      <FormProblem words={uploadProblem ?? errors.logo?.message ?? errors.root?.message} />
      <Button type="submit" disabled={isSubmitting}>
        Save
      </Button>
      <section aria-label="A letter on it">
        <p className="mb-2 flex gap-5">
          <strong>A letter on it</strong>
          <label className="flex items-center gap-1.5 text-sm">
            <Checkbox checked={asText} onChange={setAsText} />
            as plain text
          </label>
        </p>
        {asText ? (
          <pre className="border border-line p-4 font-mono text-sm whitespace-pre-wrap">{letter.text}</pre>
        ) : (
          <PaperFrame
            title="A letter on this stationery"
            html={html}
            className="h-80 w-full max-w-3xl border border-line bg-white"
          />
        )}
      </section>
    </form>
  );
}
