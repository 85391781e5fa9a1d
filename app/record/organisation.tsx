import { Link } from "react-router";
import { z } from "zod";
import { idInPath } from "#server/edge";
import { organisationPage } from "#server/record/customers";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { sayDay } from "../ui/say-day";
import { filledFields } from "#server/fields/values";
import { ValuesList } from "../fields/values-list";
import { t } from "../words/record";
import type { Route } from "./+types/organisation";
import { Promises } from "../ui/promises";
import { promisesOf } from "#server/promises/of-case";
import { CaseRows, casesWords } from "./case-rows";

const query = z.object({ after: idInPath.nullable().catch(null) });

export async function loader(args: Route.LoaderArgs) {
  const { em, now } = await signedIn(args);
  return loaderResult(async () => {
    const { after } = readQuery(args.request, query);
    const id = idInPath.parse(args.params.id);
    return {
      organisation: await organisationPage(em, id, after),
      fields: await filledFields(em, "organisation", id),
      promises: await promisesOf(em, { organisation: id }),
      isLater: after !== null,
      today: now.toISOString().slice(0, 10),
    };
  });
}

/** An organisation: what we have with them, their people and all their cases. */
export default function OrganisationRecord({ loaderData }: Route.ComponentProps) {
  const { organisation, isLater, today } = loaderData;
  const { name, kind, account, contractUntil, people, countPeople } = organisation;
  const contract =
    contractUntil === null
      ? null
      : contractUntil < today
        ? t("contractEnded", { day: sayDay(contractUntil) })
        : t("contractUntil", { day: sayDay(contractUntil) });
  const facts = [kind, account === null ? null : t("account", { account }), contract].filter(
    (fact) => fact !== null,
  );
  return (
    <main className="mx-5 mb-5 grow bg-sheet px-8 pt-5 pb-8">
      <title>{t("customerPlainShelf", { name })}</title>
      <h1 className="text-xl font-bold [overflow-wrap:anywhere]">{name}</h1>
      <p className="mt-1 text-soft">{facts.join(", ")}</p>
      <p className="mt-2 text-sm">
        <Link to={`/record?organisation=${encodeURIComponent(name)}`} className="quiet-link">
          {t("everythingSaidWithThem")}
        </Link>
      </p>
      <ValuesList fields={loaderData.fields} id={organisation.id} title={organisation.name} />
      <Promises promises={loaderData.promises} withCase withCustomer />
      <section aria-label={t("people")} className="mt-5">
        <h2 className="font-bold">{t("people")}</h2>
        <ul className="mt-1 flex flex-wrap gap-x-6 gap-y-1">
          {people.map((person) => (
            <li key={person.id} className="[overflow-wrap:anywhere]">
              <Link to={`/customers/${person.id}`} className="underline underline-offset-2">
                {person.name}
              </Link>{" "}
              <span className="text-sm text-soft">{t("casesInAll", { count: person.cases })}</span>
            </li>
          ))}
          {countPeople > people.length && (
            <li className="text-soft">{t("andMorePeople", { count: countPeople - people.length })}</li>
          )}
        </ul>
      </section>
      <section aria-label={t("cases")} className="mt-5">
        <h2 className="font-bold">
          {t("cases")} <span className="font-normal text-soft">{casesWords(organisation)}</span>
        </h2>
        <CaseRows {...organisation} withCustomer isLater={isLater} />
      </section>
    </main>
  );
}
