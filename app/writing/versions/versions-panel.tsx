import { Link } from "react-router";
import type { ReplyEventRow } from "#server/replies/events";
import type { VersionRow } from "#server/replies/history";
import { relativeTime, useClock } from "../../ui/time";
import { t } from "../../words/writing";

/** What a version's state says to a person. */
export function versionWords({ state, decision, decidedBy, mine, author }: VersionRow): string {
  const by = decidedBy !== null && decidedBy !== author ? decidedBy : null;
  switch (state) {
    case "draft":
      return mine ? t("yourWorkingCopy") : t("aWorkingCopy");
    case "proposed":
      return t("waitingToBeChecked");
    case "published":
      return by === null ? t("onTheShelf") : t("onTheShelfBy", { by });
    case "superseded":
      return by === null ? t("replaced") : t("replacedBy", { by });
    case "sent back":
      return decision?.startsWith("dropped")
        ? t("discarded")
        : t("sentBackByDecidedby", { decidedBy: decidedBy ?? t("aCurator") });
  }
}

/** Every version with who, when and why, any of which can be compared; between them what became of the reply beside its words. */
export function VersionsPanel({
  replyKey,
  versions,
  events,
}: {
  replyKey: string;
  versions: VersionRow[];
  events: ReplyEventRow[];
}) {
  const { now, timeZone } = useClock();
  const rows = [
    ...versions.map((version) => ({
      id: `version ${version.id}`,
      // What is still written comes first.
      at: version.number === null ? "9999" : (version.decidedAt ?? version.at),
      shown: <Version replyKey={replyKey} version={version} />,
    })),
    ...events.map(({ id, words, person, at }) => ({
      id: `event ${id}`,
      at,
      shown: (
        <p className="flex items-baseline gap-2">
          <span>
            {person ?? t("somebodyWhoHasLeft")}: {words}
          </span>
          <span className="ml-auto whitespace-nowrap text-soft">
            {relativeTime(Date.parse(at), now, timeZone)}
          </span>
        </p>
      ),
    })),
  ].sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : 0));
  return (
    <ol className="flex flex-col text-sm">
      {rows.map(({ id, shown }) => (
        <li key={id} className="border-b border-line py-2">
          {shown}
        </li>
      ))}
    </ol>
  );
}

/** A version; where letters were made of it, they are found from here. */
function Version({ replyKey, version }: { replyKey: string; version: VersionRow }) {
  const { now, timeZone } = useClock();
  return (
    <>
      <p className="flex items-baseline gap-2">
        <Link
          to={`/replies/${replyKey}/history?after=${version.id}`}
          className="font-semibold whitespace-nowrap underline underline-offset-2"
        >
          {version.number === null ? t("notPublishedYet") : t("versionNumber", { number: version.number })}
        </Link>
        <span className="text-soft">{versionWords(version)}</span>
        <span className="ml-auto whitespace-nowrap text-soft">
          {relativeTime(Date.parse(version.at), now, timeZone)}
        </span>
      </p>
      <p className="text-soft">
        {version.author ?? t("fromTheLibrarysFiles")}
        {version.remark && `: “${version.remark}”`}
      </p>
      {version.letters > 0 && (
        <p>
          <Link
            to={`/record?reply=${encodeURIComponent(replyKey)}&version=${version.id}`}
            className="text-soft underline underline-offset-2"
          >
            {t("lettersUsedIt", { count: version.letters })}
          </Link>
        </p>
      )}
      {version.decision && version.state === "sent back" && <p className="text-look">“{version.decision}”</p>}
    </>
  );
}
