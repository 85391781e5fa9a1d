import { factUses, openFact } from "#server/house/facts";
import { settingsOf } from "#server/house/settings";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/fact";
import { FactPage } from "./fact-page";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(async () => ({
    ...(await openFact(em, viewer, args.params.key, now)),
    uses: await factUses(em, viewer, args.params.key, undefined, now),
    languages: (await settingsOf(em)).languages,
    mayDescribe: viewer.role !== "agent",
  }));
}

/** One house fact. */
export default function Fact({ loaderData }: Route.ComponentProps) {
  return <FactPage {...loaderData} />;
}
