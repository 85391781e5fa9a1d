import { Link } from "react-router";
import type { VersionRow } from "#server/replies/history";
import { relativeTime, useClock } from "../../ui/time";

/** What a version's state says to a person. */
export function versionWords({ state, decision, decidedBy, mine }: VersionRow): string {
  switch (state) {
    case "draft":
      return mine ? "your working copy" : "a working copy";
    case "proposed":
      return "waiting to be checked";
    case "published":
      return "on the shelf";
    case "superseded":
      return "replaced";
    case "sent back":
      return `${decision?.startsWith("dropped") ? "dropped" : `sent back by ${decidedBy ?? "a curator"}`}`;
  }
}

/** Every version with who, when and why; any of them can be compared. */
export function VersionsPanel({ replyKey, versions }: { replyKey: string; versions: VersionRow[] }) {
  const { now, timeZone } = useClock();
  return (
    <ol className="flex flex-col text-sm">
      {versions.map((version) => (
        <li key={version.id} className="border-b border-line py-2">
          <p className="flex items-baseline gap-2">
            <Link
              to={`/replies/${replyKey}/history?after=${version.id}`}
              className="font-semibold underline underline-offset-2"
            >
              {version.number === null ? "Not sent off" : `Version ${version.number}`}
            </Link>
            <span className="text-soft">{versionWords(version)}</span>
            <span className="ml-auto whitespace-nowrap text-soft">
              {relativeTime(Date.parse(version.at), now, timeZone)}
            </span>
          </p>
          <p className="text-soft">
            {version.author ?? "from the library’s files"}
            {version.remark && `: “${version.remark}”`}
          </p>
          {version.decision && version.state === "sent back" && (
            <p className="text-look">“{version.decision}”</p>
          )}
        </li>
      ))}
    </ol>
  );
}
