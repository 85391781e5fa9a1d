import { useState } from "react";
import { Link } from "react-router";
import { correspondents, outsideMail } from "#server/outside/mailboxes";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { Time } from "../ui/time";
import { fileSize } from "#core/text/counted";
import type { Route } from "./+types/message";
import { WriteToUs } from "./write-to-us";
import { t } from "../words/outside";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const { address, id } = args.params;
  return loaderResult(async () => ({
    ...(await correspondents(em, address)),
    mail: await outsideMail(em, viewer, id),
  }));
}

const views = ["formatted", "text", "source"] as const;
type View = (typeof views)[number];

export default function Message({ loaderData }: Route.ComponentProps) {
  const { address, mail, name, teams } = loaderData;
  const [view, setView] = useState<View>(mail.html ? "formatted" : "text");
  const header = (key: string) => mail.headers.find((one) => one.name === key)?.value ?? null;
  const references = [header("references"), mail.messageId].filter(Boolean).join(" ");
  const from = /<([^<>]+)>/.exec(mail.from)?.[1] ?? mail.from;
  return (
    <article className="px-8 py-6">
      <p className="text-sm">
        <Link to={`/outside/${encodeURIComponent(address)}`} className="underline underline-offset-2">
          {name || address}
        </Link>
      </p>
      <h2 className="mt-2 font-serif text-xl font-semibold [overflow-wrap:anywhere]">{mail.subject}</h2>
      <dl className="mt-3 grid grid-cols-[4rem_1fr] gap-y-0.5 text-sm">
        <dt className="text-soft">{t("from")}</dt>
        <dd>{mail.from}</dd>
        <dt className="text-soft">{t("to")}</dt>
        <dd>{mail.to.join(", ")}</dd>
        <dt className="text-soft">{t("arrived")}</dt>
        <dd>
          <Time at={mail.receivedAt} />
        </dd>
      </dl>
      <div role="group" aria-label={t("howToReadIt")} className="mt-4 flex gap-5 border-b border-line">
        {views
          .filter((one) => one !== "formatted" || mail.html)
          .map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={view === one}
              onClick={() => setView(one)}
              className={`-mb-px border-b-2 pb-1 ${view === one ? "border-ink font-bold" : "border-transparent text-soft"}`}
            >
              {one}
            </button>
          ))}
      </div>
      {view === "formatted" && (
        <iframe
          title={t("theMessageAsAMailReader")}
          src={`/outside/messages/${mail.id}/html`}
          sandbox=""
          className="h-[34rem] w-full border-b border-line bg-white"
        />
      )}
      {view === "text" && (
        <pre className="py-4 font-serif text-letter whitespace-pre-wrap [overflow-wrap:anywhere]">
          {mail.text}
        </pre>
      )}
      {view === "source" && (
        <pre className="max-h-[32rem] overflow-auto py-4 text-xs whitespace-pre-wrap [overflow-wrap:anywhere]">
          {mail.raw}
        </pre>
      )}
      {mail.attachments.length > 0 && (
        <ul aria-label={t("attachments")} className="mt-4 flex flex-wrap gap-x-6 gap-y-2">
          {mail.attachments.map((file, index) => (
            <li key={`${file.name}-${index}`}>
              <a href={`/outside/messages/${mail.id}/attachments/${index}`} className="quiet-link">
                {file.name}
              </a>{" "}
              <span className="text-sm text-soft">
                {fileSize(file.size)}
                {file.contentId && `, ${t("inTheText")}`}
              </span>
            </li>
          ))}
        </ul>
      )}
      <WriteToUs
        name={name}
        teams={teams}
        fields={{}}
        problem={null}
        action={`/outside/${encodeURIComponent(address)}`}
        answer={{
          to: from,
          subject: /^re:/i.test(mail.subject) ? mail.subject : `Re: ${mail.subject}`,
          inReplyTo: mail.messageId,
          references: references || null,
        }}
      />
    </article>
  );
}
