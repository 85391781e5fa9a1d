import { Link, useNavigate } from "react-router";
import { z } from "zod";
import { caseStateName } from "#core/words/case-states";
import { catalogue } from "#core/tokens/catalogue";
import { idInPath } from "#server/edge";
import { ownTokens } from "#server/house/settings";
import { factProof, recordedMessage } from "#server/record/letter";
import { caseRecord } from "#server/record/timeline";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { letterFontLink } from "../ui/fonts";
import { Kbd } from "../ui/kbd";
import { Time } from "../ui/time";
import { useShortcut } from "../ui/use-shortcut";
import { Sentence } from "../words/sentence";
import { t } from "../words/record";
import type { Route } from "./+types/route";
import { Beside } from "./beside";
import { RecordedLetter } from "./letter";
import { Timeline } from "./timeline";

const query = z.object({
  message: idInPath.nullable().catch(null),
  run: z.coerce.number().int().min(0).max(100_000).nullable().catch(null),
});

export const links = () => [letterFontLink];

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(async () => {
    const number = idInPath.parse(args.params.number);
    const asked = readQuery(args.request, query);
    const [record, own] = await Promise.all([caseRecord(em, viewer, number), ownTokens(em, now)]);
    const said = record.entries.flatMap((entry) => ("message" in entry ? [entry] : []));
    const id =
      asked.message ?? (said.findLast((one) => one.direction === "out") ?? said.at(-1))?.message ?? null;
    const message = id === null ? null : await recordedMessage(em, viewer, number, id);
    const run = asked.run === null ? null : (message?.proof?.runs?.[asked.run] ?? null);
    const name = run?.name ?? null;
    const isFact = run?.from === "token" && name?.startsWith("house.") === true;
    return {
      record,
      message,
      run: run && { at: asked.run ?? 0, ...run },
      fact:
        isFact && id !== null && name !== null ? await factProof(em, id, { name, value: run.text }) : null,
      label: name === null ? null : (catalogue(own).get(name)?.label ?? null),
    };
  });
}

/** What happened on a case and what was said, and where each word of it came from. */
export default function CaseRecord({ loaderData }: Route.ComponentProps) {
  const { record, message, run } = loaderData;
  const navigate = useNavigate();
  const said = record.entries.flatMap((entry) => ("message" in entry ? [entry.message] : []));
  const move = (step: number) => () => {
    const next = said[said.indexOf(message?.id ?? 0) + step];
    if (next === undefined) return;
    void navigate(`?message=${next}`, { preventScrollReset: true });
    document.getElementById(`message-${next}`)?.focus();
  };
  useShortcut("messageDown", move(1));
  useShortcut("messageUp", move(-1));
  return (
    <div className="grid grow gap-x-4 px-5 md:min-h-0 md:grid-cols-[18rem_1fr] xl:grid-cols-[20.5rem_1fr_20.5rem]">
      <title>{t("recordOfLabelPlainShelf", { label: record.label })}</title>
      <section
        aria-label={t("historyOfTheCase")}
        className="py-3 text-[13px] md:max-xl:row-span-2 md:min-h-0 md:overflow-y-auto"
      >
        <h1 className="text-lg leading-tight font-bold [overflow-wrap:anywhere]">
          {record.label}, {record.subject || t("noSubject")}
        </h1>
        <p className="mt-1 text-soft [overflow-wrap:anywhere]">
          <Link to={`/customers/${record.customer.id}`} className="underline underline-offset-2">
            {record.customer.name}
          </Link>
          {record.organisation && (
            <>
              {", "}
              <Link to={`/organisations/${record.organisation.id}`} className="underline underline-offset-2">
                {record.organisation.name}
              </Link>
            </>
          )}
          {`, ${caseStateName(record.status)}, `}
          <Sentence of={t} name="openedAt" parts={[<Time key="0" at={record.openedAt} />]} />
        </p>
        <p className="mt-2 flex flex-wrap gap-x-4">
          <Link to={`/cases/${record.number}`} className="quiet-link">
            {t("answerIt")}
          </Link>
          <Link to="/record" className="quiet-link">
            {t("findInEverythingSaid")}
          </Link>
          <Kbd keys="↑ ↓" />
        </p>
        {record.more && <p className="mt-2 text-look">{t("onlyTheLatestMessagesAreHere")}</p>}
        <Timeline entries={record.entries} forwarder={record.forwarder} chosen={message?.id ?? null} />
      </section>
      <main className="min-w-0 bg-sheet md:min-h-0 md:overflow-y-auto">
        {message ? (
          <RecordedLetter message={message} chosen={run?.at ?? null} />
        ) : (
          <p className="px-6 py-14 text-center text-soft">{t("thisCaseHasNoMessageYet")}</p>
        )}
      </main>
      {message && <Beside message={message} run={run} fact={loaderData.fact} label={loaderData.label} />}
    </div>
  );
}
