import { Link } from "react-router";
import type { TimelineEntry, TimelineMessage } from "#server/record/timeline";
import { channelName } from "#core/words/named";
import { NoteWords } from "../ui/note-words";
import { Time } from "../ui/time";
import { Sentence } from "../words/sentence";
import { t } from "../words/record";

/** The history of a case, the oldest first: what was said is opened by choosing it. */
export function Timeline({
  entries,
  forwarder,
  chosen,
}: {
  entries: TimelineEntry[];
  /** Who brings the customer’s words; null where they write by themselves. */
  forwarder: string | null;
  chosen: number | null;
}) {
  return (
    <ol aria-label={t("historyOfTheCase")} className="mt-4">
      {entries.map((entry) =>
        "message" in entry ? (
          <li key={`m${entry.message}`} className="border-t border-line">
            <Link
              id={`message-${entry.message}`}
              to={`?message=${entry.message}`}
              preventScrollReset
              aria-current={entry.message === chosen ? "true" : undefined}
              className="grid grid-cols-[6.25rem_1fr] gap-3 border-l-[3px] border-transparent py-2 pr-2 pl-2 hover:bg-wash aria-[current]:border-accent aria-[current]:bg-wash"
            >
              <Time at={entry.at} className="text-soft" />
              <Said entry={entry} forwarder={forwarder} />
            </Link>
          </li>
        ) : "note" in entry ? (
          <li
            key={`n${entry.id}`}
            className="grid grid-cols-[6.25rem_1fr] gap-3 border-t border-line py-2 pr-2 pl-[11px]"
          >
            <Time at={entry.at} className="text-soft" />
            <span className="border-l border-dashed border-board pl-2 [overflow-wrap:anywhere] whitespace-pre-wrap">
              <span className="text-soft">{t("noteBy", { by: entry.by })}</span> <NoteWords note={entry} />
            </span>
          </li>
        ) : (
          <li
            key={`e${entry.id}`}
            className="grid grid-cols-[6.25rem_1fr] gap-3 border-t border-line py-2 pr-2 pl-[11px] text-soft"
          >
            <Time at={entry.at} />
            <span className="[overflow-wrap:anywhere]">
              {entry.who && `${entry.who} `}
              {entry.what}
            </span>
          </li>
        ),
      )}
    </ol>
  );
}

function Said({ entry, forwarder }: { entry: TimelineMessage; forwarder: string | null }) {
  const { direction, kind, state, replies } = entry;
  const who = <strong key="0">{entry.who}</strong>;
  const ours = direction === "out";
  const name =
    kind === "pressed"
      ? "pressedAnswer"
      : kind === "forwarded"
        ? "forwardedIt"
        : kind === "notice"
          ? "noticeOnBehalf"
          : kind === "automatic" || kind === "failure"
            ? "aProgramAnswered"
            : !ours
              ? null
              : replies.length > 0
                ? "answered"
                : "answeredInOwnWords";
  const trouble =
    state === "called back"
      ? t("wasCalledBack")
      : state === "refused"
        ? t("wasRefused")
        : state === "due" || state === "sending"
          ? t("leavesInAMoment")
          : null;
  return (
    <span className="min-w-0 [overflow-wrap:anywhere]">
      <span className="block">
        {name === null ? (
          <Sentence
            of={t}
            name={forwarder === null ? "wroteByChannel" : "wroteThrough"}
            values={{ channel: channelName(entry.channel), forwarder: forwarder ?? "" }}
            parts={[<strong key="0">{entry.who}</strong>]}
          />
        ) : (
          <Sentence of={t} name={name} parts={[who]} />
        )}
      </span>
      {replies.map(({ title, version }) => (
        <span key={title} className="block">
          {version === null ? title : t("titleVersion", { title, version })}
        </span>
      ))}
      {!ours && <span className="line-clamp-2 font-serif text-soft">{entry.words}</span>}
      {trouble !== null && <span className="block font-semibold text-look">{trouble}</span>}
    </span>
  );
}
