import { Link } from "react-router";
import { z } from "zod";
import { languageName } from "#core/language/tag";
import { idInPath } from "#server/edge";
import { customerPage } from "#server/record/customers";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { filledFields } from "#server/fields/values";
import { ValuesList } from "../fields/values-list";
import { t } from "../words/record";
import type { Route } from "./+types/customer";
import { Promises } from "../ui/promises";
import { promisesOf } from "#server/promises/of-case";
import { CaseRows, casesWords } from "./case-rows";

const query = z.object({ after: idInPath.nullable().catch(null) });

export async function loader(args: Route.LoaderArgs) {
  const { em } = await signedIn(args);
  return loaderResult(async () => {
    const { after } = readQuery(args.request, query);
    const id = idInPath.parse(args.params.id);
    const [customer, fields, promises] = await Promise.all([
      customerPage(em, id, after),
      filledFields(em, "customer", id),
      promisesOf(em, { customer: id }),
    ]);
    return { customer, fields, promises, isLater: after !== null };
  });
}

/** A customer: who they are, and all their cases. */
export default function CustomerRecord({ loaderData }: Route.ComponentProps) {
  const { customer, isLater } = loaderData;
  const { name, organisation, since, language, phone, addresses } = customer;
  const facts = [
    since === null ? null : t("withUsSince", { year: since.slice(0, 4) }),
    language === null ? null : t("writesLanguage", { language: languageName(language) }),
    phone,
    ...addresses.map((one) => one.address).filter((address) => digits(address) !== digits(phone ?? "-")),
  ].filter((fact) => fact !== null);
  const [address] = addresses;
  return (
    <main className="mx-5 mb-5 grow bg-sheet px-8 pt-5 pb-8">
      <title>{t("customerPlainShelf", { name })}</title>
      <h1 className="text-xl font-bold [overflow-wrap:anywhere]">{name}</h1>
      <p className="mt-1 text-soft [overflow-wrap:anywhere]">
        {organisation && (
          <>
            <Link to={`/organisations/${organisation.id}`} className="underline underline-offset-2">
              {organisation.name}
            </Link>
            {organisation.kind !== null && ` (${organisation.kind})`}
            {facts.length > 0 && ", "}
          </>
        )}
        {facts.join(", ")}
      </p>
      {address && (
        <p className="mt-2 text-sm">
          <Link to={`/record?customer=${encodeURIComponent(address.address)}`} className="quiet-link">
            {t("everythingSaidWithThem")}
          </Link>
        </p>
      )}
      <ValuesList fields={loaderData.fields} id={customer.id} title={customer.name} />
      <Promises promises={loaderData.promises} withCase />
      <section aria-label={t("cases")} className="mt-5">
        <h2 className="font-bold">
          {t("cases")} <span className="font-normal text-soft">{casesWords(customer)}</span>
        </h2>
        <CaseRows {...customer} withCustomer={false} isLater={isLater} />
      </section>
    </main>
  );
}

/** A number, however it is grouped; addresses are told apart as they are. */
const digits = (address: string) =>
  /^[+\d\s().-]+$/.test(address) ? address.replace(/[^+\d]/g, "") : address;
