import { data, Link, redirect, useSearchParams } from "react-router";
import { z } from "zod";
import { Unusable } from "#server/errors";
import { shownNumber } from "#core/sms/number";
import { firstForm } from "#server/contact/forms";
import { correspondents, mailbox, readFaults, writeIn } from "#server/outside/mailboxes";
import { numberOf, numbersToWriteTo, phone } from "#server/outside/phones";
import { loaderResult } from "#server/web/results";
import { readForm } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { Time } from "../ui/time";
import { Phone } from "./phone";
import type { Route } from "./+types/mailbox";
import { Window } from "./window";
import { WriteToUs } from "./write-to-us";
import { t } from "../words/outside";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const address = args.params.address;
  return loaderResult(async () => {
    const isPhone = address.startsWith("+");
    const number = isPhone ? address : await numberOf(em, address);
    const [who, mails, onPhone, numbers, form, faults] = await Promise.all([
      isPhone ? null : correspondents(em, address),
      isPhone ? [] : mailbox(em, viewer, address),
      number === null ? null : phone(number),
      numbersToWriteTo(em),
      firstForm(em),
      readFaults(),
    ]);
    return {
      ...(who ?? { address, name: "", teams: [] }),
      isPhone,
      mails,
      phone: onPhone,
      shownNumber: number === null ? null : shownNumber(number),
      numbers,
      form,
      drops: faults.chat === "drops",
    };
  });
}

const form = z.object({
  fromName: z.string().max(200),
  to: z.email(t.error("chooseWhomToWriteTo")),
  subject: z.string().max(500, t.error("thatIsTooLongForA")),
  text: z.string().trim().min(1, t.error("writeSomething")).max(100_000, t.error("thatIsTooLong")),
  inReplyTo: z.string().max(500).nullable().default(null),
  references: z.string().max(5000).nullable().default(null),
});

export async function action(args: Route.ActionArgs) {
  await signedIn(args);
  const fields = Object.fromEntries(await loaderResult(() => readForm(args.request)));
  const parsed = form.safeParse(fields);
  if (!parsed.success)
    return data({ fields: z.flattenError(parsed.error).fieldErrors, problem: null }, { status: 400 });
  try {
    await writeIn(args.params.address, parsed.data);
  } catch (error) {
    if (!(error instanceof Unusable)) throw error;
    return data({ fields: {}, problem: error.message }, { status: 502 });
  }
  return redirect(`/outside/${encodeURIComponent(args.params.address)}?sent=1`);
}

export default function Mailbox({ loaderData, actionData }: Route.ComponentProps) {
  const { address, mails, teams, isPhone, phone: onPhone, numbers, form, drops } = loaderData;
  const [params] = useSearchParams();
  // Whoever was just invented has written nothing that would say their name.
  const name = loaderData.name || (params.get("name") ?? "").slice(0, 200);
  const back = `/outside/${encodeURIComponent(address)}`;
  const shown = loaderData.shownNumber;
  const pocket = <Phone key={address} phone={onPhone} shown={shown} numbers={numbers} back={back} />;
  if (isPhone)
    return (
      <div className="px-8 py-6">
        <h2 className="mb-4 text-lg font-bold">{shown}</h2>
        {pocket}
      </div>
    );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-6 px-6 py-6 lg:grid-cols-[minmax(0,1fr)_16.5rem] xl:grid-cols-[minmax(0,1fr)_16.5rem_17.5rem]">
      <div className="min-w-0">
        <h2 className="text-lg font-bold [overflow-wrap:anywhere]">{name || address}</h2>
        <p className="text-soft">{address}</p>
        {mails.length === 0 ? (
          <p className="py-8 font-serif text-letter text-soft">{t("nothingHasArrivedHereYet")}</p>
        ) : (
          <ul aria-label={t("messages")} className="mt-4">
            {mails.map((mail) => (
              <li key={mail.id} className="border-t border-line">
                <Link
                  to={`/outside/${encodeURIComponent(address)}/${mail.id}`}
                  className="grid grid-cols-[1fr_auto] gap-x-4 py-2.5 hover:bg-wash"
                >
                  <span className="truncate font-serif text-letter font-semibold">{mail.subject}</span>
                  <Time at={mail.receivedAt} className="text-sm text-soft" />
                  <span className="truncate text-sm text-soft">{mail.from}</span>
                </Link>
              </li>
            ))}
          </ul>
        )}
        <WriteToUs
          key={mails.length}
          name={name}
          teams={teams}
          fields={actionData?.fields ?? {}}
          problem={actionData?.problem ?? null}
        />
      </div>
      {pocket}
      <Window key={`chat ${address}`} address={address} name={name} form={form} drops={drops} />
    </div>
  );
}
