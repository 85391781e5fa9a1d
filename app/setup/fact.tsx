import { useEffect, useState } from "react";
import { Link } from "react-router";
import * as z from "zod/mini";
import { factUses, openFact, type FactUse } from "#server/house/facts";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { Button } from "../ui/button";
import { Select } from "../ui/select";
import { ComparedWords } from "../ui/compared";
import { languageName } from "#core/language/tag";
import { useAct } from "../ui/act";
import { exactTime, useClock } from "../ui/time";
import type { Route } from "./+types/fact";
import { draftOf, FactValueField, factWords, valueOfDraft } from "./fact-value";
import { useSave } from "./use-save";
import { DateField } from "../ui/date-field";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(async () => ({
    ...(await openFact(em, viewer, args.params.key, now)),
    uses: await factUses(em, viewer, args.params.key, undefined, now),
    mayDescribe: viewer.role !== "agent",
  }));
}

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

/** One house fact: its value, how the replies that use it would read with another, and what it was before. */
export default function Fact({ loaderData }: Route.ComponentProps) {
  const { fact, values, uses, mayDescribe } = loaderData;
  const { timeZone } = useClock();
  const { send, problem } = useSave(`/setup/facts/${fact.key}`);
  const act = useAct();
  const [draft, setDraft] = useState(draftOf(fact.value));
  const [from, setFrom] = useState("");
  const [shown, setShown] = useState<FactUse[] | null>(null);
  const [unfit, setUnfit] = useState<string | null>(null);
  const value = valueOfDraft(fact.type, draft);
  const changed = JSON.stringify(draft) !== JSON.stringify(draftOf(fact.value));
  const asked = JSON.stringify(value);

  useEffect(() => {
    if (!changed) return;
    let wanted = true;
    const timer = setTimeout(() => {
      void act(`/setup/facts/${fact.key}/preview`, { value: JSON.parse(asked) as unknown }, preview).then(
        (result) => {
          if (!wanted) return;
          setShown(result.ok ? result.data.uses : null);
          setUnfit(result.ok ? null : result.problem);
        },
      );
    }, 200);
    return () => {
      clearTimeout(timer);
      wanted = false;
    };
  }, [act, changed, asked, fact.key]);

  const list = changed ? (shown ?? uses) : uses;
  return (
    <>
      <title>{`${fact.label} · Plain Shelf`}</title>
      <p className="text-sm">
        <Link to="/setup/facts" className="quiet-link">
          To the house facts
        </Link>
      </p>
      <h1 className="mt-2 text-xl font-bold first-letter:uppercase">{fact.label}</h1>
      <p className="text-sm text-soft">
        <code>{`{$house.${fact.key}}`}</code>, {fact.type.replace("_", " ")}
      </p>
      <div className="mt-5 grid gap-x-12 gap-y-8 xl:grid-cols-[24rem_minmax(0,1fr)]">
        <section className="flex flex-col gap-6">
          {fact.mayChange ? (
            <form
              className="flex flex-col gap-4"
              onSubmit={(event) => {
                event.preventDefault();
                void send(
                  "set",
                  { value, from: from || null },
                  from ? `It holds from ${from}.` : "It holds from now.",
                ).then((ok) => {
                  if (ok && from) setDraft(draftOf(fact.value));
                  if (ok) setFrom("");
                });
              }}
            >
              <FactValueField type={fact.type} draft={draft} onChange={setDraft} />
              <span className="flex items-baseline gap-3">
                Holds from
                <DateField label="Holds from" value={from} onChange={setFrom} />
                <span className="text-sm text-soft">{from ? "that day’s beginning" : "now"}</span>
              </span>
              {(problem ?? unfit) && (
                <p role="alert" className="text-stop">
                  {problem ?? unfit}
                </p>
              )}
              <Button type="submit" disabled={!changed || unfit !== null}>
                {from ? "Plan it" : "Change it now"}
              </Button>
            </form>
          ) : (
            <p>
              <span className="font-serif text-lg">{factWords(fact.value)}</span>
              <span className="block text-sm text-soft">A {fact.changedBy} changes it.</span>
            </p>
          )}
          {mayDescribe && (
            <label className="flex items-baseline gap-3 text-sm">
              May be changed by
              <Select
                value={fact.changedBy}
                options={CHANGED_BY}
                onChange={(changedBy) => void send("describe", { label: fact.label, changedBy })}
              />
            </label>
          )}
          <div>
            <h2 className="font-bold">What it was</h2>
            <ol className="mt-1 text-sm">
              {values.map((one) => (
                <li key={one.id} className="border-b border-line py-1.5">
                  <span className={`font-serif ${one.state === "now" ? "font-semibold" : ""}`}>
                    {factWords(one.value)}
                  </span>
                  <span className="block text-soft">
                    {one.state === "planned"
                      ? "will hold from "
                      : one.state === "now"
                        ? "holds since "
                        : "held from "}
                    {exactTime(Date.parse(one.from), timeZone)}
                    {one.by && `, ${one.by}`}
                    {one.state === "planned" && fact.mayChange && (
                      <button
                        type="button"
                        className="quiet-link ml-3"
                        onClick={() => void send(`planned/${one.id}/drop`, {}, "It is not planned any more.")}
                      >
                        take it back
                      </button>
                    )}
                  </span>
                </li>
              ))}
            </ol>
          </div>
        </section>
        <section aria-label="Where it is used">
          <h2 className="font-bold">
            {uses.length === 0 ? "Nothing uses it" : changed ? "How it will read" : "Where it is used"}
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

const CHANGED_BY = [
  ["agent", "everyone"],
  ["curator", "curators"],
  ["lead", "leads"],
] as const;
