import type { StoppedBy, TimesOfTeam } from "#server/report/times";
import { channelName } from "#core/words/named";
import { t } from "../words/report";

const share = (part: number, whole: number) =>
  new Intl.NumberFormat("en-GB", { style: "percent", maximumFractionDigits: 1 }).format(
    whole === 0 ? 0 : part / whole,
  );

const HEAD = "text-left text-sm text-soft [&>th]:py-1.5 [&>th]:pr-6 [&>th]:font-normal";
const ROW = "border-t border-line [&>*]:py-1.5 [&>*]:pr-6 [&>th]:text-left [&>th]:font-normal";

/** How each team does by each channel, with what is late and will be, now. */
export function Teams({ teams }: { teams: TimesOfTeam[] }) {
  const sum = (of: "answered" | "late" | "over" | "soon") => teams.reduce((all, one) => all + one[of], 0);
  return (
    <section aria-label={t("byTeamAndChannel")} className="mt-5">
      <table className="tabular-nums">
        <thead>
          <tr className={HEAD}>
            <th scope="col">{t("team")}</th>
            <th scope="col">{t("channel")}</th>
            <th scope="col">{t("answered")}</th>
            <th scope="col">{t("tooLate")}</th>
            <th scope="col">{t("overNow")}</th>
            <th scope="col">{t("dueWithinTheHour")}</th>
          </tr>
        </thead>
        <tbody>
          {teams.map((one) => (
            <tr key={`${one.team} ${one.channel}`} className={ROW}>
              <th scope="row" className="[overflow-wrap:anywhere]">
                {one.team}
              </th>
              <td>{channelName(one.channel)}</td>
              <Figures {...one} />
            </tr>
          ))}
          <tr className={`${ROW} font-bold`}>
            <th scope="row" colSpan={2} className="!font-bold">
              {t("allTogether")}
            </th>
            <Figures answered={sum("answered")} late={sum("late")} over={sum("over")} soon={sum("soon")} />
          </tr>
        </tbody>
      </table>
    </section>
  );
}

function Figures({ answered, late, over, soon }: Pick<TimesOfTeam, "answered" | "late" | "over" | "soon">) {
  return (
    <>
      <td>{answered}</td>
      <td className={late > 0 ? "text-stop" : ""}>{t("lateOf", { late, share: share(late, answered) })}</td>
      <td className={over > 0 ? "text-stop" : ""}>{over}</td>
      <td className={soon > 0 ? "text-look" : ""}>{soon}</td>
    </>
  );
}

/** Who stopped the clock without an answer, how near to its time, and what came of it. */
export function Stopped({ stopped }: { stopped: StoppedBy[] }) {
  return (
    <section aria-label={t("stoppedTheClock")} className="mt-8">
      <h2 className="font-bold">{t("stoppedTheClock")}</h2>
      <p className="mt-1 max-w-3xl text-sm text-soft">{t("whyThisIsTold")}</p>
      {stopped.length === 0 ? (
        <p className="mt-2 text-soft">{t("nobodyStoppedIt")}</p>
      ) : (
        <table className="mt-2 tabular-nums">
          <thead>
            <tr className={HEAD}>
              <th scope="col">{t("who")}</th>
              <th scope="col">{t("setAside")}</th>
              <th scope="col">{t("settledIt")}</th>
              <th scope="col">{t("closeToItsTime")}</th>
              <th scope="col">{t("takenUpAgain")}</th>
            </tr>
          </thead>
          <tbody>
            {stopped.map((one) => (
              <tr key={one.name} className={ROW}>
                <th scope="row">{one.name}</th>
                <td>{one.aside}</td>
                <td>{one.settled}</td>
                <td className={one.close > 0 ? "text-look" : ""}>{one.close}</td>
                <td>{one.again}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
