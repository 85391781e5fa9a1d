import { openReply } from "#server/writing/open";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { letterFontLink } from "../ui/fonts";
import type { Route } from "./+types/route";
import { WritingDesk } from "./writing-desk";
import { t } from "../words/writing";

export const links = () => [letterFontLink];

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(() => openReply(em, viewer, args.params.key, now));
}

/** One reply, being written. Another revision of it in the database is another desk. */
export default function Writing({ loaderData: open }: Route.ComponentProps) {
  const published = open.published?.id ?? 0;
  return (
    <>
      <title>{t("contentPlainShelf", { content: open.content.title || t("untitled") })}</title>
      <WritingDesk
        key={`${open.key} ${published} ${open.baseId} ${open.revision === 0 ? `fresh ${open.changed}` : "working"}`}
        open={open}
      />
    </>
  );
}
