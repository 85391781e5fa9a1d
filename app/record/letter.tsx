import { Link } from "react-router";
import type { ProofRun } from "#core/compose/proof";
import type { RecordedMessage } from "#server/record/letter";
import { fileSize, listed } from "#core/text/counted";
import { ExactTime, Time } from "../ui/time";
import { Sentence } from "../words/sentence";
import { t } from "../words/record";

/** A message on paper; of ours each word leads to where it came from. */
export function RecordedLetter({ message, chosen }: { message: RecordedMessage; chosen: number | null }) {
  const { proof, direction } = message;
  const ours = direction === "out";
  const runs = proof?.runs ?? null;
  const name = message.by ?? t("ofThem");
  return (
    <article aria-label={ours ? t("theLetter") : t("theMessage")} className="mx-auto max-w-[38rem] px-6 py-5">
      <header className="text-sm text-soft [overflow-wrap:anywhere]">
        <p className="flex flex-wrap justify-between gap-x-4">
          <span>
            <Head message={message} />
          </span>
          <span className="flex gap-3">
            {message.hasRaw && (
              <a href={`/messages/${message.id}/raw`} className="underline underline-offset-2">
                {t("source")}
              </a>
            )}
            {message.hasHtml && (
              <a
                href={`/messages/${message.id}/html`}
                target="_blank"
                rel="noreferrer"
                className="underline underline-offset-2"
              >
                {t("asItWasShown")}
              </a>
            )}
          </span>
        </p>
        <Besides message={message} />
        {message.subject !== "" && <h2 className="mt-2 font-semibold text-ink">{message.subject}</h2>}
      </header>
      <div className="letter mt-5 whitespace-pre-wrap">
        {runs
          ? runs.map((run, index) => (
              <Run
                key={index}
                run={run}
                to={`?message=${message.id}&run=${index}`}
                isChosen={index === chosen}
                leads={proof?.guessed === false}
              />
            ))
          : message.text || t("noWords")}
      </div>
      {message.files.length > 0 && (
        <ul aria-label={t("files")} className="mt-4 flex flex-wrap gap-x-5 gap-y-1 text-sm">
          {message.files.map((file) => (
            <li key={file.id}>
              <a href={`/files/${file.id}`} target="_blank" rel="noreferrer" className="quiet-link">
                {file.name}
              </a>{" "}
              <span className="text-soft">{fileSize(file.size)}</span>
            </li>
          ))}
        </ul>
      )}
      {proof && (
        <p className="mt-6 border-t border-line pt-3 text-sm text-soft">
          {proof.guessed ? t("howToReadGuessed", { name }) : t("howToRead", { name })}
        </p>
      )}
    </article>
  );
}

const looks: Record<ProofRun["from"], string> = {
  reply: "",
  hand: "proof-hand",
  token: "proof-value",
  blank: "proof-value",
  around: "",
};

function Run({
  run,
  to,
  isChosen,
  leads,
}: {
  run: ProofRun;
  to: string;
  isChosen: boolean;
  /** Whether anything is known of where it came from. */
  leads: boolean;
}) {
  // Breaks and signs of the layout came from nowhere.
  if (!leads || run.slip === null || run.text.trim() === "")
    return <span className={looks[run.from]}>{run.text}</span>;
  return (
    <Link
      to={to}
      preventScrollReset
      aria-current={isChosen ? "true" : undefined}
      className={`proof ${looks[run.from]}`}
    >
      {run.text}
    </Link>
  );
}

/** When it was written, and what became of it. */
function Head({ message }: { message: RecordedMessage }) {
  const { direction, state, toAddress: to, at, sentAt } = message;
  const when = <ExactTime key="0" at={Date.parse(sentAt ?? at)} />;
  if (direction === "in")
    return (
      <Sentence
        of={t}
        name="receivedFrom"
        values={{ from: [message.fromName, message.fromAddress].filter(Boolean).join(", ") }}
        parts={[when]}
      />
    );
  if (state === "refused")
    return (
      <Sentence of={t} name="refusedTo" values={{ to, refusal: message.refusal ?? "" }} parts={[when]} />
    );
  if (state === "called back") return <Sentence of={t} name="calledBackTo" values={{ to }} parts={[when]} />;
  return sentAt === null || sentAt === at ? (
    <Sentence of={t} name="sentTo" values={{ to }} parts={[when]} />
  ) : (
    <Sentence
      of={t}
      name="deliveredTo"
      values={{ to }}
      parts={[<ExactTime key="0" at={Date.parse(at)} />, <Time key="1" at={sentAt} />]}
    />
  );
}

/** Whom it went to besides, and that it was seen to arrive. */
function Besides({ message }: { message: RecordedMessage }) {
  const { copies, deliveredAt, readAt } = message;
  const others = [...(copies?.to ?? []), ...(copies?.cc ?? [])];
  return (
    <>
      {message.kind === "notice" && message.by !== null && <p>{t("wentByItself", { name: message.by })}</p>}
      {others.length > 0 && <p>{t("copiesTo", { to: listed(others) })}</p>}
      {copies && copies.bcc.length > 0 && <p>{t("unseenCopiesTo", { to: listed(copies.bcc) })}</p>}
      {deliveredAt !== null && (
        <p>
          <Sentence of={t} name="arrivedAt" parts={[<Time key="0" at={deliveredAt} />]} />
        </p>
      )}
      {readAt !== null && (
        <p>
          <Sentence of={t} name="readAt" parts={[<Time key="0" at={readAt} />]} />
        </p>
      )}
    </>
  );
}
