import { usualReplies, type UsualRow } from "#server/house/usual";
import { useState } from "react";
import { Link } from "react-router";
import { listWriters } from "#server/house/writers";
import { requireRole } from "#server/people/viewer";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { channelName, partName, replyChannels } from "#core/words/named";
import { Button } from "../ui/button";
import { Select } from "../ui/select";
import type { Route } from "./+types/usual";
import { useSave } from "../ui/use-save";
import { WhoseLetters } from "./whose-letters";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "curator");
    const writers = await listWriters(em, viewer);
    return { rows: await usualReplies(em), writers, viewer: { id: viewer.id, role: viewer.role } };
  });
}

/** What first answers open and close with, by team and channel. */
export default function Usual({ loaderData }: Route.ComponentProps) {
  const { rows, writers, viewer } = loaderData;
  const { send, problem } = useSave("/setup");
  /** What was chosen and is not kept yet. */
  const [wanted, setWanted] = useState<{ row: UsualRow; reply: string } | null>(null);
  const teams = [...new Map(rows.map((row) => [row.team, row.teamName]))];
  const isWanted = (row: UsualRow) =>
    wanted?.row.team === row.team && wanted.row.channel === row.channel && wanted.row.part === row.part;
  const choice = (row: UsualRow | undefined) =>
    row && (
      <Select
        label={t("usualPartOfTeam", {
          team: row.teamName,
          channel: channelName(row.channel),
          part: partName(row.part),
        })}
        className="lined-field w-full"
        value={(wanted && isWanted(row) ? wanted.reply : row.chosen) ?? ""}
        options={[["", t("none")], ...row.offered.map((one) => [one.key, one.title] as const)]}
        onChange={(reply) => setWanted(reply === (row.chosen ?? "") ? null : { row, reply })}
      />
    );
  const keep = async () => {
    if (!wanted) return;
    const { team, channel, part } = wanted.row;
    if (await send("keep-usual", { team, channel, part, reply: wanted.reply || null })) setWanted(null);
  };
  return (
    <>
      <title>{t("openingsAndClosingsPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("openingsAndClosings")}</h1>
      <p className="mt-1 max-w-2xl text-soft">{t("theyComeWithTheFirstAnswer")}</p>
      {problem && (
        <p role="alert" className="mt-3 text-stop">
          {problem}
        </p>
      )}
      {teams.map(([team, name]) => (
        <section key={team} className="mt-6 max-w-3xl">
          <h2 className="font-bold">{name}</h2>
          <table className="mt-1 w-full table-fixed text-left">
            <thead className="text-sm text-soft">
              <tr>
                <th scope="col" className="w-16 py-1 font-normal sm:w-24">
                  {t("by")}
                </th>
                <th scope="col" className="py-1 pr-3 font-normal sm:pr-6">
                  {t("opensWith")}
                </th>
                <th scope="col" className="py-1 font-normal">
                  {t("closesWith")}
                </th>
              </tr>
            </thead>
            <tbody>
              {replyChannels.map((channel) => {
                const of = (part: string) =>
                  rows.find((row) => row.team === team && row.channel === channel && row.part === part);
                return (
                  <tr key={channel} className="border-b border-line">
                    <th scope="row" className="py-2 font-normal">
                      {channelName(channel)}
                    </th>
                    <td className="py-2 pr-3 sm:pr-6">{choice(of("opening"))}</td>
                    <td className="py-2">{choice(of("closing"))}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {wanted?.row.team === team && (
            <div className="mt-3 border-l-[3px] border-look pl-3">
              <p>{changeOf(wanted.row, wanted.reply)}</p>
              <WhoseLetters
                writers={writers.filter((writer) => writer.teams.includes(team))}
                prints={wanted.row.offered.find((one) => one.key === wanted.reply)?.prints ?? []}
                viewer={viewer}
              />
              {wanted.reply !== "" && (
                <p className="text-sm">
                  <Link to={`/replies/${wanted.reply}`} className="quiet-link">
                    {t("readIt")}
                  </Link>
                </p>
              )}
              <span className="mt-2 flex items-center gap-4">
                <Button onClick={() => void keep()}>{t("save")}</Button>
                <button type="button" className="quiet-link" onClick={() => setWanted(null)}>
                  {t("cancel")}
                </button>
              </span>
            </div>
          )}
        </section>
      ))}
    </>
  );
}

/** A change of what is usual, before it is kept. */
function changeOf({ channel, part, offered }: UsualRow, reply: string): string {
  const by = channelName(channel);
  const title = offered.find((one) => one.key === reply)?.title;
  const opens = part === "opening";
  if (title === undefined)
    return t(opens ? "firstAnswersHaveNoUsualOpening" : "firstAnswersHaveNoUsualClosing", { by });
  return t(opens ? "firstAnswersOpenWith" : "firstAnswersCloseWith", { by, title });
}
