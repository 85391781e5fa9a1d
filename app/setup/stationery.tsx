import { useMemo, useState } from "react";
import { allStationery } from "#server/house/stationery";
import { settingsOf } from "#server/house/settings";
import { listWriters } from "#server/house/writers";
import { ownContext } from "#server/house/own-context";
import { requireRole } from "#server/people/viewer";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { catalogue } from "#core/tokens/catalogue";
import type { Route } from "./+types/stationery";
import { asOf } from "./as-of";
import { ownTokensOnly } from "./own-words";
import { TabList, TabPanel, Tabs } from "../ui/tabs";
import { PaperForm } from "./paper-form";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "curator");
    const { context, own } = await ownContext(em, viewer, now);
    const { languages } = await settingsOf(em);
    const papers = await allStationery(em);
    const writers = await listWriters(em, viewer);
    return { papers, writers, languages, context, words: own, viewer: { id: viewer.id, role: viewer.role } };
  });
}

/** What surrounds the emails of each team. */
export default function Stationery({ loaderData }: Route.ComponentProps) {
  const { papers, writers, languages, context, words, viewer } = loaderData;
  const tokens = useMemo(() => ownTokensOnly(catalogue(words)), [words]);
  const [team, setTeam] = useState(papers[0]?.team ?? 0);
  const chosen = papers.find((one) => one.team === team);
  return (
    <>
      <title>{t("stationeryPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("stationery")}</h1>
      <p className="mt-1 text-soft">{t("onlyEmailsCarryItAChat")}</p>
      <Tabs value={String(team)} onChange={(next) => setTeam(Number(next))}>
        <TabList
          label={t("teams")}
          tabs={papers.map((one) => ({ value: String(one.team), words: one.teamName }))}
          className="mt-3 gap-x-5"
        />
        {chosen && (
          <TabPanel key={chosen.team} value={String(chosen.team)}>
            <PaperForm
              stationery={chosen}
              languages={languages}
              writers={writers.filter((writer) => writer.teams.includes(chosen.team))}
              viewer={viewer}
              tokens={tokens}
              context={asOf(context, chosen.names)}
            />
          </TabPanel>
        )}
      </Tabs>
    </>
  );
}
