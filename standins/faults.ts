import { z } from "zod";

/** What the simulated outside does wrong, for trying how the program bears it. */
export const faultsSchema = z.strictObject({
  /**
   * The mail server takes everything; takes it after a while; asks to come back later (451); refuses (550); is down (421);
   * or takes it, and reports soon that it could not be delivered (RFC 3464).
   */
  mail: z.enum(["fine", "slow", "busy", "refuses", "down", "bounces"]),
  /** Milliseconds that the booking system thinks before it answers. */
  bookingDelay: z.number().int().min(0).max(60_000),
  /** Whether the booking system answers at all, or with what no booking is. */
  bookings: z.enum(["fine", "broken", "wrong"]),
  /** The gateway takes short messages and says soon that they arrived, says so late, says that they failed, refuses them, or is down. */
  sms: z.enum(["fine", "late", "fails", "refuses", "down"]).default("fine"),
  /** Whether the chat window that is held here keeps losing its connection. */
  chat: z.enum(["fine", "drops"]).default("fine"),
  /** Only for this address, this number or this booking; for all where it is left out. */
  only: z.string().max(320).optional(),
});
export type Faults = z.infer<typeof faultsSchema>;

export const noFaults: Faults = {
  mail: "fine",
  bookingDelay: 150,
  bookings: "fine",
  sms: "fine",
  chat: "fine",
};

/** The faults that are switched on: for everybody, and for some by themselves. */
export class FaultBoard {
  #all: Faults = noFaults;
  readonly #some = new Map<string, Faults>();

  /** What everybody meets. */
  read(): Faults {
    return this.#all;
  }

  /** What somebody meets who has to do with an address, a number or a booking. */
  for(whom: string): Faults {
    return this.#some.get(whom.toLowerCase()) ?? this.#all;
  }

  /** Switches faults, for everybody or for whom they name; what others meet stays. */
  write({ only, ...faults }: Faults): void {
    const isWell = [faults.mail, faults.bookings, faults.sms, faults.chat].every((one) => one === "fine");
    if (only === undefined) this.#all = faults;
    // Where all is well for somebody, they meet what everybody meets.
    else if (isWell && faults.bookingDelay <= noFaults.bookingDelay) this.#some.delete(only.toLowerCase());
    else this.#some.set(only.toLowerCase(), faults);
  }
}
