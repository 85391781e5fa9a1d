import { Bar, BarChart, XAxis, YAxis } from "recharts";
import type { TimesOfDay } from "#server/report/times";
import { sayDay } from "../ui/say-day";
import { t } from "../words/report";

/** A day's answers, in time and too late. */
export default function DaysFigure({ days }: { days: TimesOfDay[] }) {
  if (days.length < 2) return null;
  return (
    <figure className="mt-8">
      <figcaption className="text-sm text-soft">{t("answersADay")}</figcaption>
      <ul className="sr-only">
        {days.map(({ day, inTime, late }) => (
          <li key={day}>{t("dayInWords", { day: sayDay(day), inTime, late })}</li>
        ))}
      </ul>
      <div aria-hidden="true">
        <BarChart
          width={820}
          height={150}
          data={days.map(({ day, inTime, late }) => ({
            day: sayDay(day).replace(/ \d{4}$/, ""),
            inTime,
            late,
          }))}
          margin={{ top: 8, right: 0, bottom: 0, left: 0 }}
          barCategoryGap={2}
          accessibilityLayer={false}
        >
          <XAxis
            dataKey="day"
            tickLine={false}
            height={20}
            minTickGap={24}
            stroke="var(--color-line)"
            tick={{ fill: "var(--color-soft)", fontSize: 12 }}
          />
          <YAxis
            width={32}
            allowDecimals={false}
            tickLine={false}
            stroke="var(--color-line)"
            tick={{ fill: "var(--color-soft)", fontSize: 12 }}
          />
          <Bar dataKey="inTime" stackId="answers" fill="var(--color-board)" isAnimationActive={false} />
          <Bar dataKey="late" stackId="answers" fill="var(--color-stop)" isAnimationActive={false} />
        </BarChart>
      </div>
    </figure>
  );
}
