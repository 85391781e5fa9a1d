import { lazy, Suspense } from "react";
import { useNavigate, useRevalidator, useSearchParams } from "react-router";
import { z } from "zod";
import { timesReport } from "#server/report/times";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { withParams } from "../ui/params";
import { Select } from "../ui/select";
import { useLive } from "../ui/use-live";
import { t } from "../words/report";
import type { Route } from "./+types/route";
import { Stopped, Teams } from "./times";

const PERIODS = ["7", "30", "90"] as const;
const query = z.object({ days: z.enum(PERIODS).catch("30") });

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  const { days } = readQuery(args.request, query);
  const { teams, days: byDay, stopped } = await timesReport(em, viewer, Number(days), now);
  return { days, teams, byDay, stopped };
}

const DaysFigure = lazy(() => import("./days-figure"));

/** How we keep our times: what was answered too late and by whom the clock was stopped. */
export default function Report({ loaderData }: Route.ComponentProps) {
  const { days, teams, stopped } = loaderData;
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const { revalidate } = useRevalidator();
  useLive({ list: () => void revalidate() });
  return (
    <main className="mx-5 mb-5 grow bg-sheet px-8 pt-5 pb-8">
      <title>{t("reportPlainShelf")}</title>
      <div className="flex flex-wrap items-baseline gap-x-8 gap-y-2">
        <h1 className="text-xl font-bold">{t("answersAndTheirTimes")}</h1>
        <label className="ml-auto flex items-baseline gap-2 text-sm text-soft">
          {t("overTheLast")}
          <Select
            className="lined-field text-ink"
            value={days}
            options={PERIODS.map((one) => [one, t("countDays", { count: Number(one) })] as const)}
            onChange={(next) =>
              void navigate(withParams("/report", params, { days: next }), { replace: true })
            }
          />
        </label>
      </div>
      <p className="mt-1 max-w-3xl text-soft">{t("whatCounts")}</p>
      {teams.length === 0 ? (
        <p className="mt-8 font-serif text-lg text-soft">{t("nothingWasAnsweredYet")}</p>
      ) : (
        <>
          <Teams teams={teams} />
          <Suspense>
            <DaysFigure days={loaderData.byDay} />
          </Suspense>
        </>
      )}
      {stopped && <Stopped stopped={stopped} />}
    </main>
  );
}
