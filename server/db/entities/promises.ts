import { defineEntity, p } from "@mikro-orm/core";
import { Case } from "./cases";
import { Person } from "./people";

/** What a customer was promised on a case, and what came of it. */
export const Promised = defineEntity({
  name: "Promised",
  tableName: "promises",
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade").index(),
    /** Who promised it. */
    person: () => p.manyToOne(Person),
    words: p.text(),
    /** The last day for it, in the house's time zone. */
    by: p.date(),
    at: p.datetime(),
    /** Null as long as nothing came of it. */
    outcome: p.enum(["kept", "withdrawn"]).nullable(),
    settledBy: () => p.manyToOne(Person).nullable().deleteRule("set null"),
    settledAt: p.datetime().nullable(),
  },
});
