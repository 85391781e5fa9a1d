import { useState, type ReactNode } from "react";
import { Link } from "react-router";
import * as z from "zod/mini";
import type { RuleDid } from "#server/standing/rules";
import { useAct } from "../ui/act";
import { readFrom } from "../ui/read";
import { Time } from "../ui/time";
import { useToast } from "../ui/toast";
import { t } from "../words/standing";

const doneWords: Record<RuleDid["does"], () => string> = {
  send: () => t("didSend"),
  prepare: () => t("didPrepare"),
  instead: () => t("didInstead"),
  held: () => t("didHeld"),
};

/** What a rule did with each message that it is for, the latest first; what has not left can be called back. */
export function Did({ rule, did, isAsked }: { rule: number; did: RuleDid[]; isAsked: boolean }) {
  const act = useAct();
  const toast = useToast();
  const callBack = async (letter: number) => {
    const done = await act(`/messages/${letter}/call-back`, {});
    if (!done.ok) toast({ words: done.problem, tone: "stop" });
  };
  const didWith = ({ does, letter }: RuleDid) => (
    <>
      {doneWords[does]()}
      {letter !== null && (
        <button type="button" className="quiet-link block" onClick={() => void callBack(letter)}>
          {t("callItBack")}
        </button>
      )}
    </>
  );
  return (
    <section aria-label={t("whatItDid")} className="mt-6 border-t border-line pt-4">
      <h2 className="font-bold">{t("whatItDid")}</h2>
      {did.length === 0 ? (
        <p className="mt-1 text-soft">{t("nothingYet")}</p>
      ) : (
        <Messages all={did} did={didWith} />
      )}
      {isAsked && <Passed key={rule} rule={rule} />}
    </section>
  );
}

const passedAnswer = z.object({
  passed: z.array(
    z.object({
      ...{ message: z.int(), case: z.int(), label: z.string(), customer: z.string() },
      ...{ words: z.string(), why: z.string(), at: z.string() },
    }),
  ),
});

/** What came and it did nothing with, and why: read when somebody asks for it. */
function Passed({ rule }: { rule: number }) {
  const [passed, setPassed] = useState<Told[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const look = async () => {
    setProblem(null);
    try {
      const answer = await readFrom(`/standing/${rule}/let-pass`, new AbortController().signal);
      setPassed(passedAnswer.parse(answer).passed.map((one) => ({ ...one, id: one.message })));
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <div className="mt-4">
      {passed === null ? (
        <button type="button" className="quiet-link text-sm" onClick={() => void look()}>
          {t("showWhatItLetPass")}
        </button>
      ) : (
        <h3 className="text-sm font-bold">{t("whatItLetPass")}</h3>
      )}
      {problem !== null && (
        <p role="alert" className="text-sm text-stop">
          {problem}
        </p>
      )}
      {passed?.length === 0 && <p className="mt-1 text-sm text-soft">{t("nothingItLetPass")}</p>}
      {passed !== null && passed.length > 0 && <Messages all={passed} />}
    </div>
  );
}

/** A message in a list of those that a rule was asked about. */
type Told = Pick<RuleDid, "id" | "case" | "label" | "customer" | "words" | "why" | "at">;

/** Messages, one beneath the other, with what became of each and why. */
function Messages<One extends Told>({ all, did }: { all: One[]; did?: (one: One) => ReactNode }) {
  const columns = [
    [t("case"), "w-[34%]"],
    ...(did ? [[t("did"), "w-[16%]"]] : []),
    [t("why"), ""],
    [t("when"), "w-[16%]"],
  ];
  return (
    <table className="mt-2 w-full table-fixed text-left text-sm">
      <thead className="text-soft">
        <tr>
          {columns.map(([words, width]) => (
            <th key={words} scope="col" className={`py-1 pr-3 font-normal ${width}`}>
              {words}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {all.map((one) => (
          <tr key={one.id} className="border-t border-line align-top">
            <td className="py-1.5 pr-3 [overflow-wrap:anywhere]">
              <Link to={`/cases/${one.case}`} className="quiet-link">
                {one.label}
              </Link>{" "}
              {one.customer}
              <span className="line-clamp-2 text-soft">{one.words}</span>
            </td>
            {did && <td className="py-1.5 pr-3">{did(one)}</td>}
            <td className="py-1.5 pr-3 text-soft [overflow-wrap:anywhere]">{one.why}</td>
            <td className="py-1.5">
              <Time at={one.at} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
