import { Link } from "react-router";
import { proposals, type ProposalRow } from "#server/replies/history";
import { signedIn } from "#server/web/context";
import { Mark } from "../ui/mark";
import { relativeTime, useClock } from "../ui/time";
import { useLive } from "../ui/use-live";
import type { Route } from "./+types/proposals";
import { t } from "../words/shelves";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return { rows: await proposals(em, viewer), role: viewer.role };
}

/** What waits to be checked, the oldest first; to its author, also what was sent back. */
export default function Proposals({ loaderData }: Route.ComponentProps) {
  const { rows, role } = loaderData;
  useLive("shelves");
  const waiting = rows.filter((row) => row.state === "proposed");
  const back = rows.filter((row) => row.state === "sent back");
  return (
    <main className="mx-5 mb-5 grow bg-sheet px-8 pt-4 pb-8">
      <title>{t("proposalsPlainShelf")}</title>
      <p className="text-sm">
        <Link to="/shelves" className="quiet-link">
          {t("toTheShelves")}
        </Link>
      </p>
      <h1 className="mt-2 text-xl font-bold">
        {role === "agent" ? t("yourProposals") : t("waitingToBeChecked")}
      </h1>
      {waiting.length === 0 ? (
        <p className="mt-8 font-serif text-lg text-soft">
          {role === "agent" ? t("nothingOfYoursWaits") : t("nothingWaitsTheShelfIsAs")}
        </p>
      ) : (
        <Rows rows={waiting} />
      )}
      {back.length > 0 && (
        <>
          <h2 className="mt-8 text-lg font-bold">{t("sentBackToYou")}</h2>
          <Rows rows={back} />
        </>
      )}
    </main>
  );
}

function Rows({ rows }: { rows: ProposalRow[] }) {
  const { now, timeZone } = useClock();
  return (
    <ul className="mt-3 max-w-3xl">
      {rows.map((row) => (
        <li key={row.version} className="border-b border-line py-3">
          <p className="flex items-baseline gap-3">
            <Mark letters={row.mark} name={row.shelf} />
            <Link
              to={`/replies/${row.key}/history?after=${row.version}`}
              className="font-semibold underline underline-offset-2"
            >
              {row.title || t("untitled")}
            </Link>
            <span className="text-sm text-soft">{row.fresh ? t("aNewReply") : t("aChange")}</span>
            {row.overtaken && !row.fresh && (
              <span className="text-sm text-look">{t("anotherVersionWasPublishedSince")}</span>
            )}
            <span className="ml-auto text-sm whitespace-nowrap text-soft">
              {row.author}, {relativeTime(Date.parse(row.at), now, timeZone)}
            </span>
          </p>
          {row.remark && <p className="mt-1 font-serif">“{row.remark}”</p>}
          {row.decision && (
            <p className="mt-1 font-serif text-look">
              “{row.decision}” <span className="text-sm">{row.decidedBy}</span>
            </p>
          )}
        </li>
      ))}
    </ul>
  );
}
