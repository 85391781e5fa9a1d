import { Bar, BarChart, LabelList, XAxis } from "recharts";
import type { WaitingRow } from "#server/cases/waiting";
import { useClock } from "../ui/time";
import { dueByHour } from "./due-by-hour";
import { t } from "../words/waiting";

/** How many cases come due in each of the next hours. */
export default function DayFigure({ rows }: { rows: readonly WaitingRow[] }) {
  const { now, timeZone } = useClock();
  const hours = dueByHour(rows, now, timeZone);
  const due = hours.reduce((sum, hour) => sum + hour.due, 0);
  if (due === 0) return null;
  const words = hours
    .filter((hour) => hour.due > 0)
    .map((hour) => t("dueUntilHour", { count: hour.due, hour: hour.hour }));
  return (
    <figure className="mx-6 mt-6 border-t border-line pt-3">
      <figcaption className="text-sm text-soft">
        {t("comeDueInTheNextHours", { count: due, hours: hours.length })}
        <span className="sr-only">: {words.join(", ")}</span>
      </figcaption>
      <div aria-hidden="true">
        <BarChart
          width={264}
          height={92}
          data={hours.map((hour) => ({ hour: hour.hour, due: hour.due === 0 ? null : hour.due }))}
          margin={{ top: 18, right: 0, bottom: 0, left: 0 }}
          barCategoryGap={2}
          accessibilityLayer={false}
        >
          <XAxis
            dataKey="hour"
            interval={1}
            tickLine={false}
            height={20}
            stroke="var(--color-line)"
            tick={{ fill: "var(--color-soft)", fontSize: 12 }}
          />
          <Bar dataKey="due" fill="var(--color-board)" isAnimationActive={false}>
            <LabelList dataKey="due" position="top" fill="var(--color-ink)" fontSize={12} />
          </Bar>
        </BarChart>
      </div>
    </figure>
  );
}
