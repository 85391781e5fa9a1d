import { listForwarders, type ForwarderRow } from "#server/forwarders/forwarders";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { Disclosure } from "../ui/disclosure";
import type { Route } from "./+types/forwarders";
import { ForwarderForm } from "./forwarder-form";
import { ForwarderTrial } from "./forwarder-trial";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(() => listForwarders(em, viewer));
}

/** Whoever forwards buyers’ messages in a form of their own. */
export default function Forwarders({ loaderData }: Route.ComponentProps) {
  const { forwarders, mailboxes } = loaderData;
  return (
    <>
      <title>{t("forwardersPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("forwarders")}</h1>
      <p className="mt-1 max-w-3xl text-soft">{t("aMarketplaceForwards")}</p>
      <ul className="mt-4 flex max-w-4xl flex-col border-t border-line">
        {forwarders.map((forwarder) => (
          <li key={forwarder.id} className="border-b border-line py-4">
            <Forwarder forwarder={forwarder} mailboxes={mailboxes} />
          </li>
        ))}
      </ul>
      <Disclosure words={t("anotherForwarder")} className="mt-6 max-w-4xl" open={forwarders.length === 0}>
        <ForwarderForm key={forwarders.length} forwarder={null} mailboxes={mailboxes} />
      </Disclosure>
    </>
  );
}

interface Props {
  forwarder: ForwarderRow;
  mailboxes: { id: number; address: string }[];
}

function Forwarder({ forwarder, mailboxes }: Props) {
  return (
    <section aria-label={forwarder.name}>
      <ForwarderForm forwarder={forwarder} mailboxes={mailboxes} />
      <ForwarderTrial forwarder={forwarder} />
    </section>
  );
}
