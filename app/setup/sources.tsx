import { listSources } from "#server/details/sources";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { Disclosure } from "../ui/disclosure";
import type { Route } from "./+types/sources";
import { SourceForm } from "./source-form";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(() => listSources(em, viewer));
}

/** Outside systems that know more of a case, and what of their answers letters can read. */
export default function Sources({ loaderData: sources }: Route.ComponentProps) {
  return (
    <>
      <title>{t("detailSourcesPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("detailSources")}</h1>
      <p className="mt-1 max-w-3xl text-soft">{t("whatOutsideSystemsKnow")}</p>
      <ul className="mt-4 flex max-w-5xl flex-col border-t border-line">
        {sources.map((source) => (
          <li key={source.id} className="border-b border-line py-4">
            <SourceForm source={source} />
          </li>
        ))}
      </ul>
      <Disclosure words={t("anotherSource")} className="mt-3 max-w-5xl" open={sources.length === 0}>
        <div className="pt-2">
          <SourceForm key={sources.length} source={null} />
        </div>
      </Disclosure>
    </>
  );
}
