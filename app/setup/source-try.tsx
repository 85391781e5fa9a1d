import { useState } from "react";
import * as z from "zod/mini";
import { useAct } from "../ui/act";
import { t } from "../words/setup";

const trial = z.object({
  reference: z.nullable(z.string()),
  values: z.array(z.object({ label: z.string(), value: z.unknown() })),
  problem: z.nullable(z.string()),
  took: z.number(),
});

/** Tries a source on a case, by its number: what is found in its messages, and what the system says of it. */
export function SourceTry({ id }: { id: number }) {
  const act = useAct();
  const [number, setNumber] = useState("");
  const [result, setResult] = useState<z.infer<typeof trial> | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const go = async () => {
    setBusy(true);
    const done = await act(`/setup/sources/${id}/try`, { case: Number(number.replace(/^\D+/, "")) }, trial);
    setBusy(false);
    setResult(done.ok ? done.data : null);
    setProblem(done.ok ? done.data.problem : done.problem);
  };
  return (
    <div className="min-w-0 grow">
      <span className="flex flex-wrap items-baseline gap-3">
        <label className="flex items-baseline gap-2">
          {t("tryItOnCase")}
          <input
            value={number}
            placeholder="20417"
            maxLength={20}
            onChange={(event) => setNumber(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== "Enter") return;
              // Enter would save the form that it stands in.
              event.preventDefault();
              void go();
            }}
            className="lined-field w-28 text-base"
          />
        </label>
        <button
          type="button"
          className="quiet-link"
          disabled={busy || number.trim() === ""}
          onClick={() => void go()}
        >
          {t("tryIt")}
        </button>
      </span>
      <div role="status">
        {problem !== null && <p className="mt-1 text-stop [overflow-wrap:anywhere]">{problem}</p>}
        {result?.reference != null && (
          <>
            <p className="mt-1">{t("foundAndAsked", { reference: result.reference, took: result.took })}</p>
            {result.problem === null && (
              <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-4">
                {result.values.map(({ label, value }) => (
                  <div key={label} className="contents">
                    <dt className="text-soft">{label}</dt>
                    <dd className="[overflow-wrap:anywhere]">{words(value)}</dd>
                  </div>
                ))}
              </dl>
            )}
          </>
        )}
      </div>
    </div>
  );
}

function words(value: unknown): string {
  if (value === null) return t("nothingThere");
  return typeof value === "string" ? value : JSON.stringify(value);
}
