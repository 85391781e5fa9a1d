import { data, Form, NavLink, Outlet, useSubmit } from "react-router";
import { z } from "zod";
import { faultsSchema, MOST_PEOPLE, outsidePeople, readFaults, writeFaults } from "#server/outside/mailboxes";
import { settingsOf } from "#server/house/settings";
import { loaderResult } from "#server/web/results";
import { readForm } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { Time } from "../ui/time";
import type { Route } from "./+types/route";
import { FaultSwitches } from "./faults";
import { Invent } from "./invent";
import { t } from "../words/outside";

const faultsForm = faultsSchema.extend({
  bookingDelay: z.coerce.number().int().min(0, t.error("noLessThan0")).max(60_000, t.error("atMost60000")),
});

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const text = new URL(args.request.url).searchParams.get("who")?.slice(0, 200) ?? "";
  return loaderResult(async () => ({
    text,
    people: await outsidePeople(em, viewer, text),
    faults: await readFaults(),
    most: MOST_PEOPLE,
    hasBookings: (await settingsOf(em)).details.length > 0,
  }));
}

export async function action(args: Route.ActionArgs) {
  const { viewer } = await signedIn(args);
  const parsed = faultsForm.safeParse(Object.fromEntries(await loaderResult(() => readForm(args.request))));
  if (!parsed.success)
    return data({ problem: parsed.error.issues[0]?.message ?? t("notUsable") }, { status: 400 });
  await loaderResult(() => writeFaults(viewer, parsed.data));
  return { problem: null };
}

export default function Outside({ loaderData, actionData }: Route.ComponentProps) {
  const { people, text, faults, most, hasBookings } = loaderData;
  const submit = useSubmit();
  return (
    <div className="grid grow grid-cols-[minmax(0,1fr)] gap-5 px-5 max-sm:px-3 md:grid-cols-[19rem_minmax(0,1fr)]">
      <title>{t("outsidePlainShelf")}</title>
      <aside className="flex flex-col bg-sheet pt-5">
        <h1 className="px-5 text-lg font-bold">{t("outside")}</h1>
        <p className="mt-1 px-5 text-sm text-soft">{t("standInACustomersShoesRead")}</p>
        <Form
          className="px-5 pt-3 pb-2"
          onChange={(event) => void submit(event.currentTarget, { replace: true })}
        >
          <input
            type="search"
            name="who"
            aria-label={t("findAMailbox")}
            placeholder={t("findAMailbox")}
            defaultValue={text}
            className="lined-field w-full"
          />
        </Form>
        <ul className="max-h-[30dvh] overflow-y-auto md:max-h-[45dvh]">
          {people.map((person) => (
            <li key={person.address} className="border-t border-line">
              <NavLink
                to={`/outside/${encodeURIComponent(person.address)}`}
                className={({ isActive }) =>
                  `block px-5 py-2 focus-visible:outline-offset-[-2px] ${isActive ? "bg-wash" : "hover:bg-wash"}`
                }
              >
                <span className="flex items-baseline gap-2">
                  <strong className="truncate">{person.name}</strong>
                  {person.messages > 0 && (
                    <span className="ml-auto text-sm text-soft tabular-nums">{person.messages}</span>
                  )}
                </span>
                <span className="flex gap-2 text-sm text-soft">
                  <span className="truncate">{person.address}</span>
                  {person.latest && <Time at={person.latest} className="ml-auto whitespace-nowrap" />}
                </span>
              </NavLink>
            </li>
          ))}
          {people.length === 0 && (
            <li className="px-5 py-6 text-soft">
              {text === "" ? t("thereIsNoCustomerYetInvent") : t("noMailboxIsLikeThat")}
            </li>
          )}
          {people.length >= most && (
            <li className="px-5 py-3 text-sm text-soft">{t("theFirstMostAreListedFind", { most })}</li>
          )}
        </ul>
        <Invent />
        <FaultSwitches hasBookings={hasBookings} faults={faults} problem={actionData?.problem ?? null} />
      </aside>
      <main className="min-w-0 bg-sheet">
        <Outlet />
      </main>
    </div>
  );
}
