import { fieldOwners } from "#core/tokens/fields";
import { z } from "zod";
import { moneySchema } from "#core/tokens/context";

/** What the demo's files may hold. They are meant to be edited by hand: a slip is told with its place. */

const key = z.string().regex(/^[a-z0-9-]+$/);

export const houseFile = z.strictObject({
  house: z.strictObject({
    name: z.string(),
    case_prefix: z.string(),
    time_zone: z.string(),
    language: z.string(),
    languages: z.array(z.string()),
    region: z.string().length(2),
  }),
  teams: z.array(
    z.strictObject({
      key,
      name: z.string(),
      names: z.record(z.string(), z.string()),
      mailbox: z.email(),
      /** Where its short messages come to: ITU-T E.164. */
      number: z.string().optional(),
      answer_within_hours: z.number().positive(),
      usual_opening: key.optional(),
      usual_closing: key.optional(),
      signature: z.string(),
      stationery: z.strictObject({
        name: z.string(),
        accent: z.string(),
        header: z.string(),
        footer: z.string(),
        /** The same in other languages. */
        texts: z.record(z.string(), z.strictObject({ header: z.string(), footer: z.string() })),
      }),
    }),
  ),
  password: z.string().min(8),
  people: z.array(
    z.strictObject({
      name: z.string(),
      first: z.string(),
      email: z.email(),
      role: z.enum(["agent", "curator", "lead"]),
      team: key,
      title: z.string(),
      department: z.string(),
      phone: z.string().optional(),
    }),
  ),
  fields: z.array(
    z.strictObject({
      of: z.enum(fieldOwners),
      key,
      label: z.string(),
      type: z.enum(["text", "money", "date", "number", "choice", "yes_no"]),
      options: z.array(z.string()).default([]),
      topics: z.array(z.string()).default([]),
      required: z.boolean().default(false),
      example: z.union([z.string(), z.number(), z.boolean(), moneySchema]),
    }),
  ),
});

export const customersFile = z.strictObject({
  organisations: z.array(
    z.strictObject({
      key,
      name: z.string(),
      kind: z.string(),
      account: z.string().optional(),
      contract_until: z.iso.date().optional(),
    }),
  ),
  customers: z.array(
    z.strictObject({
      key,
      first: z.string().optional(),
      last: z.string().optional(),
      email: z.email(),
      language: z.string().optional(),
      organisation: key.optional(),
      since: z.iso.date().optional(),
      phone: z.string().optional(),
    }),
  ),
});

const said = z.union([
  z.strictObject({ them: z.string() }),
  z.strictObject({ us: z.string(), with: z.array(key).default([]) }),
]);

export const conversationsFile = z.array(
  z.strictObject({
    channel: z.enum(["email", "sms"]).default("email"),
    who: key,
    topic: z.string(),
    team: key,
    status: z.enum(["waiting", "answered", "closed"]),
    /** Of the first message. */
    hours_ago: z.number().nonnegative(),
    booking: z.string().optional(),
    subject: z.string(),
    messages: z.array(said).min(1),
  }),
);
export type Conversation = z.infer<typeof conversationsFile>[number];

const clock = z.string().regex(/^\d{2}:\d{2}$/);

export const bookingsFile = z.record(
  z.string(),
  z.strictObject({
    status: z.string(),
    cause: z.string().optional(),
    lead_name: z.string(),
    day: z.number().int(),
    departs: clock,
    arrives: clock,
    from: z.string(),
    to: z.string(),
    ship: z.string(),
    fare: z.number(),
    passengers: z.number().int(),
    vehicle: z.string().optional(),
    vehicle_height: z.number().optional(),
    animals: z.number().int().optional(),
    new_day: z.number().int().optional(),
    new_departs: clock.optional(),
    new_arrives: clock.optional(),
    new_ship: z.string().optional(),
  }),
);
export type DemoBooking = z.infer<typeof bookingsFile>[string];
