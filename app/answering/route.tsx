import { useMemo, useState } from "react";
import { redirect, useLoaderData } from "react-router";
import { z } from "zod";
import { readOpenCase } from "#server/answering/open";
import { joinedInto } from "#server/cases/changes";
import { MOST_PAGES } from "#server/cases/conversation";
import { neighbours } from "#server/cases/waiting";
import { refreshOld } from "#server/details/look-up";
import { idInPath } from "#server/edge";
import { loaderResult } from "#server/web/results";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { steadily } from "../ui/stale";
import { useLive } from "../ui/use-live";
import { letterFontLink } from "../ui/fonts";
import type { Route } from "./+types/route";
import { fetchWriter } from "./our-answer";
import { Spread } from "./spread";
import { t } from "../words/answering";

/** Pages of earlier messages that are shown. */
const query = z.object({ earlier: z.coerce.number().int().min(0).max(MOST_PAGES).catch(0) });

export const links = () => [letterFontLink];

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(async () => {
    const number = idInPath.parse(args.params.number);
    const { earlier } = readQuery(args.request, query);
    const into = await joinedInto(em, number);
    if (into !== null) throw redirect(`/cases/${into}`);
    const [open, around] = await Promise.all([
      readOpenCase(em, viewer, number, earlier, now),
      neighbours(em, viewer, number),
    ]);
    // Whoever opens it does not wait for what is asked anew.
    if (open.sources.some((source) => source.old && source.asked)) await refreshOld(em, open.id);
    return { open, around };
  });
}

const load = steadily<Awaited<ReturnType<typeof loader>>>();

/** A reload in the background that fails leaves the answer under way where it is. */
export function clientLoader({ params, serverLoader }: Route.ClientLoaderArgs) {
  // It is fetched beside the case, not after it; what fails is fetched again when it is drawn, and told then.
  fetchWriter().catch(() => undefined);
  return load(params.number, () => serverLoader());
}

clientLoader.hydrate = true as const;

export default function Answering() {
  const { open, around, stale = null } = useLoaderData<typeof loader & typeof clientLoader>();
  // Words that were put back are shown once the draft that has them is here.
  const [back, setBack] = useState(0);
  const [shown, setShown] = useState(0);
  if (back !== shown && (open.draft?.version ?? 0) >= back) setShown(back);
  // The letter that is begun after one that was sent with “stay”, by how many went before it.
  const [stayed, setStayed] = useState<string | null>(null);
  const letter = (letters: number) => `${open.number} ${letters}`;
  useLive(useMemo(() => ({ case: open.number }), [open.number]));
  return (
    <>
      <title>{t("openCustomerPlainShelf", { open: open.label, customer: open.customer.name })}</title>
      {/* Each letter has an editor of its own: after one is sent, or called back, another is begun. */}
      <Spread
        key={`${open.number} ${open.letters} ${shown}`}
        open={open}
        around={around}
        stale={stale}
        onBack={setBack}
        hasStayed={stayed === letter(open.letters)}
        onStay={() => setStayed(letter(open.letters + 1))}
      />
    </>
  );
}
