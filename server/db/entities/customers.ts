import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import type { Detail } from "#core/tokens/context";

export const Organisation = defineEntity({
  name: "Organisation",
  tableName: "organisations",
  indexes: [
    {
      name: "organisations_name_trgm",
      expression: `create index "organisations_name_trgm" on "organisations" using gin ("name" gin_trgm_ops)`,
    },
  ],
  properties: {
    id: p.integer().primary(),
    name: p.text(),
    /** Name for comparing, as `nameKey` makes it. */
    nameKey: p.text().index(),
    kind: p.text().nullable(),
    account: p.text().nullable().unique(),
    contractUntil: p.date().nullable(),
    /** Values of the house's own fields. */
    details: p.json<Record<string, Detail>>().defaultRaw("'{}'"),
  },
});
export type Organisation = InferEntity<typeof Organisation>;

export const Customer = defineEntity({
  name: "Customer",
  tableName: "customers",
  indexes: [
    {
      name: "customers_name_trgm",
      expression: `create index "customers_name_trgm" on "customers" using gin ("display_name" gin_trgm_ops)`,
    },
  ],
  properties: {
    id: p.integer().primary(),
    firstName: p.text().nullable(),
    lastName: p.text().nullable(),
    /** What the customer is called in lists: their name, or their address where no name is known. */
    displayName: p.text(),
    /** Full name for comparing, as `nameKey` makes it; null where no full name is known. */
    nameKey: p.text().nullable().index(),
    language: p.text().nullable(),
    /** IANA zone, where it is known. */
    timeZone: p.text().nullable(),
    phone: p.text().nullable(),
    since: p.date().nullable(),
    organisation: () => p.manyToOne(Organisation).nullable().index(),
    /** Values of the house's own fields. */
    details: p.json<Record<string, Detail>>().defaultRaw("'{}'"),
    createdAt: p.datetime().defaultRaw("now()"),
  },
});
export type Customer = InferEntity<typeof Customer>;

/** Where a customer can be reached, and by what they are recognised. */
export const CustomerAddress = defineEntity({
  name: "CustomerAddress",
  tableName: "customer_addresses",
  indexes: [
    {
      name: "customer_addresses_address_trgm",
      expression: `create index "customer_addresses_address_trgm" on "customer_addresses" using gin ("address" gin_trgm_ops)`,
    },
  ],
  uniques: [{ properties: ["channel", "address"] }],
  properties: {
    id: p.integer().primary(),
    channel: p.enum(["email", "chat", "sms"]),
    /** Lower case for email. */
    address: p.text(),
    customer: () => p.manyToOne(Customer).deleteRule("cascade").index(),
  },
});
export type CustomerAddress = InferEntity<typeof CustomerAddress>;
