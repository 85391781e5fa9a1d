import { useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import { Controller, useWatch } from "react-hook-form";
import * as zm from "zod/mini";
import { begunReplySchema } from "#core/forms/library";
import { z } from "zod";
import { wordsToKeep } from "#server/answering/keep";
import { findReply } from "#server/access/replies";
import { listShelves } from "#server/replies/shelves";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import type { TextNode } from "#core/document/types";
import { withTokens } from "#core/tokens/recognise";
import { partName, replyParts } from "#core/words/named";
import { Button } from "../ui/button";
import { Field } from "../ui/field";
import { FormProblem, taken, useFormOf } from "../ui/form";
import { LetterBlocks } from "../ui/letter-blocks";
import { useAct } from "../ui/act";
import type { Route } from "./+types/new";
import { starters } from "./starters";
import { KeptWords, refusedAtFirst } from "./tokens/kept-words";
import { idInPath } from "#server/edge";
import { JUST_BEGUN } from "./just-begun";
import { said, Select } from "../ui/select";
import { t } from "../words/writing";

const number = idInPath.nullable().catch(null);
const query = z.object({
  title: z.string().max(300).catch(""),
  shelf: z.string().max(200).catch(""),
  from: z.string().max(200).catch(""),
  case: number,
  message: number,
});

const MOST_OF_YOUNG = 10;

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  const asked = query.parse(Object.fromEntries(new URL(args.request.url).searchParams));
  return loaderResult(async () => {
    const source =
      asked.case !== null ? { case: asked.case } : asked.message !== null ? { message: asked.message } : null;
    const shelves = await listShelves(em, viewer);
    const copied = asked.from ? await findReply(em, viewer, asked.from) : null;
    return {
      asked,
      source,
      shelves,
      // A house that has few replies is given some to begin with.
      isYoung: shelves.reduce((sum, one) => sum + one.replies, 0) < MOST_OF_YOUNG,
      copied: copied && { key: copied.key, title: copied.title, shelf: copied.shelf.key },
      kept: source && (await wordsToKeep(em, viewer, source, now)),
    };
  });
}

/** Words that look like a value and stay as they are. */
const pointedAt = (text: string): TextNode => ({ type: "text", text, marks: [{ type: "highlight" }] });

const made = zm.object({ key: zm.string() });

/** Begins a reply: from nothing, from another one, or from an answer that was written. */
export default function NewReply({ loaderData }: Route.ComponentProps) {
  const { asked, source, shelves, copied, kept, isYoung } = loaderData;
  const own = shelves.find((shelf) => shelf.mine);
  const form = useFormOf(begunReplySchema, {
    title: asked.title || (copied ? t("copiedAnother", { copied: copied.title }) : (kept?.subject ?? "")),
    // The first replies of a house are for all of it.
    shelf:
      asked.shelf ||
      copied?.shelf ||
      (isYoung && shelves.find((one) => !one.mine && one.mayPublish)?.key) ||
      own?.key ||
      (shelves[0]?.key ?? ""),
    part: "answer",
    words: "",
  });
  const { errors, isSubmitting } = form.formState;
  const shelf = useWatch({ control: form.control, name: "shelf" });
  const [refused, setRefused] = useState(() => refusedAtFirst(kept?.found ?? []));
  const navigate = useNavigate();
  const act = useAct();
  const chosen = shelves.find((one) => one.key === shelf);
  const shown = useMemo(
    () =>
      kept &&
      withTokens(
        kept.doc,
        kept.found.map((one, index) => (refused.has(index) ? { ...one, node: pointedAt(one.words) } : one)),
      ),
    [kept, refused],
  );

  const create = form.handleSubmit(async ({ words, ...reply }) => {
    const found = kept?.found.map(({ from, words }, index) => ({
      from,
      words,
      accepted: !refused.has(index),
    }));
    const body = source
      ? { source, reply, found }
      : copied
        ? { reply, from: copied.key }
        : { reply: { ...reply, words } };
    const done = await act("/replies/create", body, made);
    if (taken(form, done) && done.ok) await navigate(`/replies/${done.data.key}`, { state: JUST_BEGUN });
  });

  return (
    <main className="mx-5 mb-5 grow bg-sheet px-8 pt-4 pb-8">
      <title>{t("writeAReplyPlainShelf")}</title>
      <p className="text-sm">
        <Link to={kept ? `/cases/${kept.case}` : "/shelves"} className="quiet-link">
          {kept ? t("toCaseKept", { kept: kept.label }) : t("toTheShelves")}
        </Link>
      </p>
      <h1 className="mt-2 text-xl font-bold">
        {kept
          ? t("keepThisAnswerOnAShelf")
          : copied
            ? t("beginFromCopied", { copied: copied.title })
            : t("writeAReply")}
      </h1>
      <div className="mt-5 grid gap-x-12 gap-y-6 lg:grid-cols-[22rem_minmax(0,1fr)]">
        <form
          className="flex flex-col gap-5 lg:col-start-1"
          noValidate
          onSubmit={(event) => void create(event)}
        >
          <Field label={t("title")} hint={t("whatAColleagueWouldLookFor")} problem={errors.title?.message}>
            {(attributes) => <input {...attributes} autoFocus {...form.register("title")} />}
          </Field>
          <Field
            label={t("shelf")}
            hint={
              chosen?.mine
                ? t("onlyYouSeeItYouPublish")
                : chosen?.mayPublish
                  ? t("youPublishOnIt")
                  : t("youProposeACuratorPublishes")
            }
          >
            {(attributes) => (
              <Controller
                control={form.control}
                name="shelf"
                render={({ field }) => (
                  <Select
                    {...attributes}
                    value={field.value}
                    options={shelves.map((one) => [one.key, one.name] as const)}
                    onChange={field.onChange}
                  />
                )}
              />
            )}
          </Field>
          {!kept && !copied && (
            <Field label={t("part")}>
              {(attributes) => (
                <Controller
                  control={form.control}
                  name="part"
                  render={({ field }) => (
                    <Select
                      {...attributes}
                      value={field.value ?? "answer"}
                      options={said(replyParts, partName)}
                      onChange={field.onChange}
                    />
                  )}
                />
              )}
            </Field>
          )}
          <FormProblem words={errors.root?.message} />
          <Button type="submit" keys="Enter" disabled={isSubmitting}>
            {t("goOnToItsWords")}
          </Button>
        </form>
        {!kept && !copied && (
          <div className="flex max-w-2xl flex-col gap-5 lg:col-start-2 lg:row-start-1">
            <Field
              label={t("wordsThatYouHaveAlready")}
              hint={t("plainTextOrMarkdownHtmlAnd")}
              problem={errors.words?.message}
            >
              {(attributes) => (
                <textarea
                  {...attributes}
                  rows={9}
                  className={`${attributes.className} font-serif`}
                  {...form.register("words")}
                />
              )}
            </Field>
            {isYoung && (
              <section aria-label={t("startFromOneOfOurs")}>
                <h2 className="font-semibold">{t("orStartFromOneOfOurs")}</h2>
                <ul className="mt-1.5">
                  {starters.map((starter) => (
                    <li key={starter.title} className="border-t border-line py-2">
                      <button
                        type="button"
                        className="quiet-link"
                        onClick={() => {
                          form.setValue("part", starter.part);
                          form.setValue("words", starter.words);
                          form.setValue("title", starter.title, { shouldValidate: true });
                        }}
                      >
                        {starter.title}
                      </button>{" "}
                      <span className="text-sm text-soft">{partName(starter.part)}</span>
                    </li>
                  ))}
                </ul>
              </section>
            )}
          </div>
        )}
        {kept && shown && (
          <div className="grid gap-8 xl:grid-cols-2">
            <KeptWords found={kept.found} refused={refused} onRefuse={setRefused} />
            <section aria-label={t("asItWillBeKept")}>
              <h2 className="mb-2 font-bold">{t("asItWillBeKept")}</h2>
              <div className="letter">
                <LetterBlocks blocks={shown.content} />
              </div>
              {kept.files.length > 0 && (
                <p className="mt-2 text-sm text-soft">
                  {t("withFiles", { files: kept.files.map((file) => file.name).join(", ") })}
                </p>
              )}
            </section>
          </div>
        )}
      </div>
    </main>
  );
}
