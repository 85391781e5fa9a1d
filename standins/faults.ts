import { z } from "zod";

/** What the simulated outside does wrong, for trying how the program bears it. */
export const faultsSchema = z.strictObject({
  /** The mail server takes everything, asks to come back later (451), or refuses (550). */
  mail: z.enum(["fine", "busy", "refuses"]),
  /** Milliseconds that the booking system thinks before it answers. */
  bookingDelay: z.number().int().min(0).max(60_000),
  /** Whether the booking system answers at all. */
  bookings: z.enum(["fine", "broken"]),
  /** The gateway takes short messages and says soon that they arrived, says so late, says that they failed, refuses them, or is down. */
  sms: z.enum(["fine", "late", "fails", "refuses", "down"]).default("fine"),
  /** Only for this address, this number or this booking; for all where it is left out. */
  only: z.string().max(320).optional(),
});
export type Faults = z.infer<typeof faultsSchema>;

export const noFaults: Faults = { mail: "fine", bookingDelay: 150, bookings: "fine", sms: "fine" };

/** The faults that somebody meets who has to do with an address or a booking. */
export function faultsFor(faults: Faults, whom: string): Faults {
  return faults.only === undefined || faults.only.toLowerCase() === whom.toLowerCase() ? faults : noFaults;
}
