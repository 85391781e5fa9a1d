import { usualReplies, type UsualRow } from "#server/house/usual";
import { requireRole } from "#server/people/viewer";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { Select } from "../ui/select";
import type { Route } from "./+types/usual";
import { useSave } from "../ui/use-save";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "curator");
    return { rows: await usualReplies(em) };
  });
}

/** What first answers open and close with, by team and channel. */
export default function Usual({ loaderData }: Route.ComponentProps) {
  const { rows } = loaderData;
  const { send, problem } = useSave("/setup");
  const teams = [...new Map(rows.map((row) => [row.team, row.teamName]))];
  const choice = (row: UsualRow | undefined) =>
    row && (
      <Select
        label={`${row.teamName}, ${row.channel}, ${row.part}`}
        className="lined-field w-full"
        value={row.chosen ?? ""}
        options={[["", "none"], ...row.offered.map((one) => [one.key, one.title] as const)]}
        onChange={(reply) =>
          void send("keep-usual", {
            team: row.team,
            channel: row.channel,
            part: row.part,
            reply: reply || null,
          })
        }
      />
    );
  return (
    <>
      <title>Openings and closings · Plain Shelf</title>
      <h1 className="text-xl font-bold">Openings and closings</h1>
      <p className="mt-1 max-w-2xl text-soft">
        They come with the first answer that is taken, and can be swapped there. However many answers a letter
        has, greeting and sign-off stand once.
      </p>
      {problem && (
        <p role="alert" className="mt-3 text-stop">
          {problem}
        </p>
      )}
      {teams.map(([team, name]) => (
        <section key={team} className="mt-6 max-w-3xl">
          <h2 className="font-bold">{name}</h2>
          <table className="mt-1 w-full text-left">
            <thead className="text-sm text-soft">
              <tr>
                <th scope="col" className="w-24 py-1 font-normal">
                  By
                </th>
                <th scope="col" className="py-1 pr-6 font-normal">
                  opens with
                </th>
                <th scope="col" className="py-1 font-normal">
                  closes with
                </th>
              </tr>
            </thead>
            <tbody>
              {(["email", "chat", "sms"] as const).map((channel) => {
                const of = (part: string) =>
                  rows.find((row) => row.team === team && row.channel === channel && row.part === part);
                return (
                  <tr key={channel} className="border-b border-line">
                    <th scope="row" className="py-2 font-normal">
                      {channel === "sms" ? "SMS" : channel}
                    </th>
                    <td className="py-2 pr-6">{choice(of("opening"))}</td>
                    <td className="py-2">{choice(of("closing"))}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </section>
      ))}
    </>
  );
}
