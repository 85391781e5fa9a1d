import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { z } from "zod";
import { compareVersions } from "#server/replies/history";
import { ownTokens } from "#server/house/settings";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { catalogue } from "#core/tokens/catalogue";
import { relativeTime, useClock } from "../ui/time";
import type { Route } from "./+types/history";
import { ComparedReply } from "./versions/compared-reply";
import { Decide } from "./versions/decide";
import { versionWords } from "./versions/versions-panel";
import { idInPath } from "#server/edge";
import { Checkbox } from "../ui/checkbox";
import { Select } from "../ui/select";
import { t } from "../words/writing";

const query = z.object({
  after: idInPath.nullable().catch(null),
  before: idInPath.nullable().catch(null),
});

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  const asked = query.parse(Object.fromEntries(new URL(args.request.url).searchParams));
  return loaderResult(async () => ({
    compared: await compareVersions(em, viewer, args.params.key, asked.after, asked.before),
    own: await ownTokens(em, now),
  }));
}

/** Two versions of a reply, word by word; a proposal is decided on here. */
export default function History({ loaderData }: Route.ComponentProps) {
  const { compared, own } = loaderData;
  const { reply, versions, before, after, published } = compared;
  const { now, timeZone } = useClock();
  const navigate = useNavigate();
  const [mode, setMode] = useState<"compared" | "whole">("compared");
  const said = (row: (typeof versions)[number]) =>
    `${row.number === null ? t("workingCopy") : t("versionNumberSmall", { number: row.number })}, ${row.author ?? t("fromTheLibrarysFiles")}, ${relativeTime(Date.parse(row.at), now, timeZone)} (${versionWords(row)})`;
  const go = (changes: { after?: number; before?: number }) => {
    const next = new URLSearchParams({ after: String(changes.after ?? after.row.id) });
    const older = changes.before ?? (changes.after === undefined ? before?.row.id : undefined);
    if (older !== undefined) next.set("before", String(older));
    void navigate(`/replies/${reply.key}/history?${next.toString()}`);
  };
  return (
    <main className="mx-5 mb-5 grow bg-sheet px-8 pt-4 pb-8">
      <title>{t("historyOfReplyPlainShelf", { reply: reply.title })}</title>
      <p className="text-sm">
        <Link to={`/replies/${reply.key}`} className="quiet-link">
          {t("toTheReply")}
        </Link>
      </p>
      <h1 className="mt-2 text-xl font-bold">{after.content.title}</h1>
      <div className="mt-2 flex flex-wrap items-baseline gap-x-6 gap-y-2 border-b border-line pb-3 text-sm">
        <label className="flex items-baseline gap-2">
          {t("from")}
          <Select
            className="lined-field max-w-md"
            value={before === null ? "" : String(before.row.id)}
            placeholder={t("nothingItIsNew")}
            options={versions
              .filter((row) => row.id !== after.row.id)
              .map((row) => [String(row.id), said(row)] as const)}
            onChange={(id) => go({ before: Number(id) })}
          />
        </label>
        <label className="flex items-baseline gap-2">
          {t("to")}
          <Select
            className="lined-field max-w-md"
            value={String(after.row.id)}
            options={versions.map((row) => [String(row.id), said(row)] as const)}
            onChange={(id) => go({ after: Number(id) })}
          />
        </label>
        <label className="ml-auto flex items-center gap-1.5">
          <Checkbox checked={mode === "whole"} onChange={(whole) => setMode(whole ? "whole" : "compared")} />
          {t("onlyTheNewerOne")}
        </label>
      </div>
      {after.row.remark && (
        <p className="mt-3 font-serif">
          “{after.row.remark}” <span className="text-sm text-soft">{after.row.author}</span>
        </p>
      )}
      {after.row.decision && (
        <p className="mt-1 font-serif text-look">
          “{after.row.decision}” <span className="text-sm">{after.row.decidedBy}</span>
        </p>
      )}
      <Decide compared={compared} published={published} />
      <ComparedReply
        before={mode === "whole" ? null : (before?.content ?? null)}
        after={after.content}
        tokens={catalogue(own)}
      />
    </main>
  );
}
