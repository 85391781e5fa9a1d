import { Link } from "react-router";
import type { RuleDid } from "#server/standing/rules";
import { useAct } from "../ui/act";
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
export function Did({ did }: { did: RuleDid[] }) {
  const act = useAct();
  const toast = useToast();
  const callBack = async (letter: number) => {
    const done = await act(`/messages/${letter}/call-back`, {});
    if (!done.ok) toast({ words: done.problem, tone: "stop" });
  };
  return (
    <section aria-label={t("whatItDid")} className="mt-6 border-t border-line pt-4">
      <h2 className="font-bold">{t("whatItDid")}</h2>
      {did.length === 0 ? (
        <p className="mt-1 text-soft">{t("nothingYet")}</p>
      ) : (
        <table className="mt-2 w-full table-fixed text-left text-sm">
          <thead className="text-soft">
            <tr>
              {[
                [t("case"), "w-[34%]"],
                [t("did"), "w-[16%]"],
                [t("why"), ""],
                [t("when"), "w-[16%]"],
              ].map(([words, width]) => (
                <th key={words} scope="col" className={`py-1 pr-3 font-normal ${width}`}>
                  {words}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {did.map((one) => (
              <tr key={one.id} className="border-t border-line align-top">
                <td className="py-1.5 pr-3 [overflow-wrap:anywhere]">
                  <Link to={`/cases/${one.case}`} className="quiet-link">
                    {one.label}
                  </Link>{" "}
                  {one.customer}
                  <span className="line-clamp-2 text-soft">{one.words}</span>
                </td>
                <td className="py-1.5 pr-3">
                  {doneWords[one.does]()}
                  {one.letter !== null && (
                    <button
                      type="button"
                      className="quiet-link block"
                      onClick={() => void callBack(one.letter ?? 0)}
                    >
                      {t("callItBack")}
                    </button>
                  )}
                </td>
                <td className="py-1.5 pr-3 text-soft [overflow-wrap:anywhere]">{one.why}</td>
                <td className="py-1.5">
                  <Time at={one.at} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
