import { Link } from "react-router";
import type { WaitingRow } from "#server/cases/waiting";
import type { Best } from "#server/ranking/kept";
import { caseStateName } from "#core/words/case-states";
import { Button } from "../ui/button";
import { Kbd } from "../ui/kbd";
import { Time } from "../ui/time";
import { listed } from "#core/text/counted";
import { t } from "../words/waiting";
import { Sentence } from "../words/sentence";

/** What the chosen case says, so that one knows before opening. */
export function CasePreview({
  row,
  best,
  onAnswer,
}: {
  row: WaitingRow;
  best: Best | undefined;
  /** Opens the compact answer; null where this case is not that easy. */
  onAnswer: (() => void) | null;
}) {
  return (
    <div className="px-6 py-5">
      <p className="text-sm text-soft">{[row.label, row.channel, row.topic].filter(Boolean).join(", ")}</p>
      <h2 className="mt-3 text-lg leading-tight font-bold [overflow-wrap:anywhere]">{row.customer}</h2>
      {row.organisation && <p className="text-soft">{row.organisation}</p>}
      <p className="letter mt-3 font-semibold">{row.subject}</p>
      <p className="letter mt-2 line-clamp-[12]">{row.words || t("thereAreNoWordsInThis")}</p>
      <div className="mt-4 h-1.5 bg-board" />
      <p className="mt-3 text-sm text-soft">
        {row.waitingSince ? (
          <Sentence of={t} name="waitingSince" parts={[<Time key="0" at={row.waitingSince} />]} />
        ) : (
          <Sentence of={t} name="lastMoved" parts={[<Time key="0" at={row.updatedAt} />]} />
        )}
      </p>
      <p className="mt-1 text-sm text-soft">
        {[
          caseStateName(row.status),
          row.assignee === null ? t("nobodysCase") : t("namesCase", { name: row.assignee }),
        ].join(", ")}
      </p>
      {row.people.length > 0 && (
        <p className="mt-1 text-sm font-semibold text-look">
          {t(row.people.length === 1 ? "personIsOnIt" : "peopleAreOnIt", { people: listed(row.people) })}
        </p>
      )}
      {best?.reply && (
        <p className="mt-3 text-sm">
          <strong className="font-semibold">{best.reply.title}</strong>
          <span className="block text-soft">{best.reply.why}</span>
        </p>
      )}
      <p className="mt-4 flex flex-wrap items-center gap-2">
        {onAnswer && (
          <>
            <Button keys="Enter" onClick={onAnswer}>
              {t("answerFromHere")}
            </Button>
            <Link to={`/cases/${row.number}`} className="quiet-link ml-2">
              {t("open")}
            </Link>
          </>
        )}
        {!onAnswer && (
          <>
            <Link
              to={`/cases/${row.number}`}
              className="rounded-sm bg-accent px-3.5 py-2 font-semibold text-on-accent"
            >
              {t("open")}
            </Link>
            <Kbd keys="Enter" />
          </>
        )}
      </p>
    </div>
  );
}
