import type { EntityManager } from "@mikro-orm/postgresql";
import type { CaseState } from "#core/words/case-states";
import { OURS } from "../cases/ours";
import { Customer, CustomerAddress, Organisation } from "../db/entities/customers";
import { prepared } from "../db/sql";
import { NotFound } from "../errors";
import { caseNumber } from "../house/house";
import { settingsOf } from "../house/settings";
import { t } from "../words";

/** A case of a customer. Times are ISO 8601 instants. */
interface CaseOfCustomer {
  number: number;
  label: string;
  subject: string;
  channel: string;
  topic: string | null;
  status: CaseState;
  openedAt: string;
  updatedAt: string;
  /** Whose it is; null for nobody's. */
  assignee: string | null;
  /** The customer's, for pages of an organisation. */
  customer: { id: number; name: string };
  messages: number;
}

/** Cases, the latest first, and how many there are in all. */
export interface CasesOfCustomer {
  cases: CaseOfCustomer[];
  total: number;
  /** How many of them wait for us. */
  waiting: number;
  more: boolean;
}

/** So many cases are shown at once. */
const PAGE = 50;

/** Of whom cases are. */
type Whose = { customer: number } | { organisation: number };

async function casesOf(em: EntityManager, whose: Whose, after: number | null): Promise<CasesOfCustomer> {
  const [of, id] =
    "customer" in whose
      ? ["c.customer_id = ?", whose.customer]
      : [
          "c.customer_id = any(array(select x.id from customers x where x.organisation_id = ?))",
          whose.organisation,
        ];
  const [rows, counted, { house }] = await Promise.all([
    prepared<Omit<CaseOfCustomer, "label" | "customer"> & { customer_id: number; name: string }>(
      em,
      `select c.number, c.subject, c.channel, c.topic, c.status, c.opened_at as "openedAt", c.updated_at as "updatedAt", p.name as assignee,
              cu.id as customer_id, cu.display_name as name, (select count(*)::int from messages m where m.case_id = c.id) as messages
         from cases c join customers cu on cu.id = c.customer_id left join people p on p.id = c.assignee_id
        where ${of} and (?::int is null or (c.opened_at, c.number) < (select a.opened_at, a.number from cases a where a.number = ?))
        order by c.opened_at desc, c.number desc limit ${PAGE + 1}`,
      [id, after, after],
    ),
    prepared<{ total: number; waiting: number }>(
      em,
      `select count(*)::int as total, count(*) filter (where c.status in (${OURS}))::int as waiting
         from cases c where ${of}`,
      [id],
    ),
    settingsOf(em),
  ]);
  return {
    cases: rows.slice(0, PAGE).map(({ customer_id: customer, name, ...row }) => ({
      ...row,
      label: caseNumber(house, row.number),
      openedAt: new Date(row.openedAt).toISOString(),
      updatedAt: new Date(row.updatedAt).toISOString(),
      customer: { id: customer, name },
    })),
    total: counted[0]?.total ?? 0,
    waiting: counted[0]?.waiting ?? 0,
    more: rows.length > PAGE,
  };
}

/** A customer with all their cases. */
export interface CustomerPage extends CasesOfCustomer {
  id: number;
  name: string;
  addresses: { channel: string; address: string }[];
  phone: string | null;
  language: string | null;
  timeZone: string | null;
  /** A calendar date; null where it is not known. */
  since: string | null;
  organisation: { id: number; name: string; kind: string | null } | null;
}

/** The page of a customer. @param after the case after which the next ones are wanted @throws NotFound */
export async function customerPage(
  em: EntityManager,
  id: number,
  after: number | null,
): Promise<CustomerPage> {
  const customer = await em.findOne(Customer, { id }, { populate: ["organisation"] });
  if (!customer) throw new NotFound(t("thereIsNoSuchCustomer"));
  const [addresses, cases] = await Promise.all([
    em.find(CustomerAddress, { customer: id }, { orderBy: { channel: "asc", id: "asc" }, limit: 100 }),
    casesOf(em, { customer: id }, after),
  ]);
  const { organisation } = customer;
  return {
    id,
    name: customer.displayName,
    addresses: addresses.map(({ channel, address }) => ({ channel, address })),
    phone: customer.phone ?? null,
    language: customer.language ?? null,
    timeZone: customer.timeZone ?? null,
    since: customer.since ?? null,
    organisation: organisation
      ? { id: organisation.id, name: organisation.name, kind: organisation.kind ?? null }
      : null,
    ...cases,
  };
}

/** An organisation with its people and all their cases. */
export interface OrganisationPage extends CasesOfCustomer {
  id: number;
  name: string;
  kind: string | null;
  account: string | null;
  /** A calendar date; null for none. */
  contractUntil: string | null;
  people: { id: number; name: string; cases: number }[];
  /** How many there are in all. */
  countPeople: number;
}

/** The page of an organisation. @throws NotFound */
export async function organisationPage(
  em: EntityManager,
  id: number,
  after: number | null,
): Promise<OrganisationPage> {
  const organisation = await em.findOne(Organisation, { id });
  if (!organisation) throw new NotFound(t("thereIsNoSuchOrganisation"));
  const [people, countPeople, cases] = await Promise.all([
    prepared<{ id: number; name: string; cases: number }>(
      em,
      `select cu.id, cu.display_name as name, (select count(*)::int from cases c where c.customer_id = cu.id) as cases
         from customers cu where cu.organisation_id = ? order by cu.display_name, cu.id limit ${PAGE}`,
      [id],
    ),
    em.count(Customer, { organisation: id }),
    casesOf(em, { organisation: id }, after),
  ]);
  return {
    id,
    name: organisation.name,
    kind: organisation.kind ?? null,
    account: organisation.account ?? null,
    contractUntil: organisation.contractUntil ?? null,
    people,
    countPeople,
    ...cases,
  };
}
