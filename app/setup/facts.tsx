import { useState } from "react";
import { Link } from "react-router";
import { factTypes, listFacts, type FactType } from "#server/house/facts";
import { signedIn } from "#server/web/context";
import { Button } from "../ui/button";
import { Select } from "../ui/select";
import { relativeTime, useClock } from "../ui/time";
import type { Route } from "./+types/facts";
import { draftOf, FactValueField, factWords, valueOfDraft } from "./fact-value";
import { useSend } from "./use-send";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return { facts: await listFacts(em, viewer, now), types: [...factTypes], mayAdd: viewer.role !== "agent" };
}

/** The values that the house keeps once and every reply uses. */
export default function Facts({ loaderData }: Route.ComponentProps) {
  const { facts, types, mayAdd } = loaderData;
  const { now, timeZone } = useClock();
  return (
    <>
      <title>House facts · Plain Shelf</title>
      <h1 className="text-xl font-bold">House facts</h1>
      <p className="mt-1 text-soft">Kept once; every reply that uses one reads as it says now.</p>
      <table className="mt-4 w-full max-w-4xl border-collapse text-left">
        <thead className="text-sm text-soft">
          <tr className="border-b border-ink">
            <th scope="col" className="py-1.5 pr-6 font-normal">
              Fact
            </th>
            <th scope="col" className="py-1.5 pr-6 font-normal">
              Value
            </th>
            <th scope="col" className="py-1.5 pr-6 font-normal whitespace-nowrap">
              Used by
            </th>
            <th scope="col" className="py-1.5 font-normal whitespace-nowrap">
              Changed by
            </th>
          </tr>
        </thead>
        <tbody>
          {facts.map((fact) => (
            <tr key={fact.key} className="border-b border-line align-top">
              <td className="py-2 pr-6">
                <Link to={`/setup/facts/${fact.key}`} className="font-semibold underline underline-offset-2">
                  {fact.label}
                </Link>
                <code className="block text-sm text-soft">{`{$house.${fact.key}}`}</code>
              </td>
              <td className="max-w-md py-2 pr-6 font-serif">
                {factWords(fact.value)}
                {fact.next && (
                  <span className="block text-sm text-look">
                    {factWords(fact.next.value)} from{" "}
                    {relativeTime(Date.parse(fact.next.from), now, timeZone)}
                  </span>
                )}
              </td>
              <td className="py-2 pr-6 text-sm whitespace-nowrap tabular-nums">{usedBy(fact)}</td>
              <td className="py-2 text-sm">
                {fact.changedBy === "agent" ? "everyone" : `${fact.changedBy}s`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {facts.length === 0 && (
        <p className="mt-6 font-serif text-lg text-soft">There are no house facts yet.</p>
      )}
      {mayAdd && <NewFact types={types} />}
    </>
  );
}

function usedBy({ uses, papers }: { uses: number; papers: number }): string {
  const replies = uses === 1 ? "1 reply" : `${uses} replies`;
  if (papers === 0) return uses === 0 ? "nothing" : replies;
  return uses === 0 ? "every letter" : `${replies} and every letter`;
}

function NewFact({ types }: { types: FactType[] }) {
  const { send, problem } = useSend("/setup");
  const [label, setLabel] = useState("");
  const [type, setType] = useState<FactType>("text");
  const [draft, setDraft] = useState(draftOf(null));
  return (
    <form
      className="mt-8 flex max-w-2xl flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void send(
          "new-fact",
          { label, type, value: valueOfDraft(type, draft), changedBy: "curator" },
          "There is a new house fact.",
        ).then((ok) => {
          if (!ok) return;
          setLabel("");
          setDraft(draftOf(null));
        });
      }}
    >
      <h2 className="font-bold">A new fact</h2>
      <label className="grid grid-cols-[7rem_1fr] items-baseline gap-3">
        What it is
        <input
          className="lined-field"
          value={label}
          required
          maxLength={200}
          placeholder="fare for a dog"
          onChange={(event) => setLabel(event.target.value)}
        />
      </label>
      <label className="grid grid-cols-[7rem_1fr] items-baseline gap-3">
        Kind
        <Select
          value={type}
          options={types.map((one) => [one, one.replace("_", " ")] as const)}
          onChange={setType}
        />
      </label>
      <div className="grid grid-cols-[7rem_1fr] items-baseline gap-3">
        Value
        <FactValueField type={type} draft={draft} onChange={setDraft} />
      </div>
      {problem && (
        <p role="alert" className="text-stop">
          {problem}
        </p>
      )}
      <Button type="submit">Add it</Button>
    </form>
  );
}
