import { useState } from "react";
import { Link } from "react-router";
import * as z from "zod/mini";
import type { ForwarderRow } from "#server/forwarders/forwarders";
import { useAct } from "../ui/act";
import { FormProblem } from "../ui/form";
import { Time } from "../ui/time";
import { useSave } from "../ui/use-save";
import { t } from "../words/setup";

const triedAnswer = z.object({
  tried: z.array(
    z.object({
      message: z.number(),
      case: z.number(),
      subject: z.string(),
      at: z.string(),
      problem: z.nullable(z.string()),
      read: z.nullable(
        z.object({
          name: z.nullable(z.string()),
          reference: z.nullable(z.string()),
          deadline: z.nullable(z.string()),
          text: z.string(),
        }),
      ),
    }),
  ),
});
type Tried = z.infer<typeof triedAnswer>["tried"];

/** Trying a forwarder on past mail, switching it on and off, taking it away. */
export function ForwarderTrial({ forwarder }: { forwarder: ForwarderRow }) {
  const { id, name, isOn, cases } = forwarder;
  const act = useAct();
  const { send, problem } = useSave("/setup");
  const [tried, setTried] = useState<Tried | null>(null);
  const [refused, setRefused] = useState<string | undefined>();
  const attempt = async () => {
    const done = await act(`/setup/forwarders/${id}/do`, { what: "try" }, triedAnswer);
    if (done.ok) setTried(done.data.tried);
    setRefused(done.ok ? undefined : done.problem);
    return done.ok ? done.data.tried : null;
  };
  const turn = async (on: boolean, allTheSame = false) => {
    // What is switched on was seen tried.
    const seen = on && !allTheSame ? await attempt() : [];
    if (seen === null) return;
    await send(`forwarders/${id}/do`, { what: "switch", on, allTheSame });
  };
  const misfits = tried?.filter((one) => one.problem !== null).length ?? 0;
  return (
    <div className="mt-3 flex flex-col gap-2 text-sm">
      <p className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <strong className={isOn ? "text-accent" : ""}>{isOn ? t("itIsOn") : t("itIsOff")}</strong>
        {cases > 0 && <span className="text-soft">{t("countCasesCame", { count: cases })}</span>}
        <button type="button" className="quiet-link" onClick={() => void attempt()}>
          {t("tryItOnPastMail")}
        </button>
        <button type="button" className="quiet-link" onClick={() => void turn(!isOn)}>
          {isOn ? t("switchItOff") : t("switchItOn")}
        </button>
        {!isOn && misfits > 0 && (
          <button type="button" className="quiet-link" onClick={() => void turn(true, true)}>
            {t("switchItOnAllTheSame")}
          </button>
        )}
        <button
          type="button"
          className="quiet-link"
          onClick={() =>
            void send(`forwarders/${id}/do`, { what: "remove" }, t("forwarderIsRemoved", { name }))
          }
        >
          {t("remove")}
        </button>
      </p>
      <FormProblem words={refused ?? (isOn ? undefined : (problem ?? undefined))} />
      {tried !== null && (
        <section aria-label={t("triedOnPastMail")}>
          {tried.length === 0 ? (
            <p className="text-soft">{t("noPastMailOfThisSender")}</p>
          ) : (
            <ul className="border-t border-line">
              {tried.map((one) => (
                <li key={one.message} className="flex flex-wrap gap-x-4 border-b border-line py-1.5">
                  <Time at={one.at} className="w-28 text-soft" />
                  <Link to={`/cases/${one.case}`} className="quiet-link [overflow-wrap:anywhere]">
                    {one.subject}
                  </Link>
                  {one.problem === null ? (
                    <span className="[overflow-wrap:anywhere]">
                      <span className="text-soft">{t("fits")}: </span>
                      {[one.read?.name, one.read?.reference, one.read?.deadline]
                        .filter((part) => part != null)
                        .join(" · ")}{" "}
                      <span className="font-serif">{one.read?.text.slice(0, 120)}</span>
                    </span>
                  ) : (
                    <span className="text-stop">{one.problem}</span>
                  )}
                </li>
              ))}
            </ul>
          )}
        </section>
      )}
    </div>
  );
}
