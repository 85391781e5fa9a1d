import type { EntityManager } from "@mikro-orm/postgresql";
import { BOOKINGS } from "#core/tokens/catalogue";
import { DetailSource } from "#server/db/entities/cases";

/** Three and three capitals or digits, at least one of each kind. */
export const BOOKING_REFERENCE = String.raw`\b([A-Z][0-9][A-Z0-9]-[A-Z0-9]{3}|[A-Z]{2}[0-9]-[A-Z0-9]{3}|[A-Z]{3}-[0-9][A-Z0-9]{2}|[A-Z]{3}-[A-Z][0-9][A-Z0-9]|[A-Z]{3}-[A-Z]{2}[0-9]|[0-9][A-Z][A-Z0-9]-[A-Z0-9]{3}|[0-9]{2}[A-Z]-[A-Z0-9]{3}|[0-9]{3}-[A-Z][A-Z0-9]{2}|[0-9]{3}-[0-9][A-Z][A-Z0-9]|[0-9]{3}-[0-9]{2}[A-Z])\b`;

/** Where the simulated outside is, unless something says otherwise. */
const USUAL = "http://127.0.0.1:4320";

/** The ferry line's booking system, as its house set it. Where the simulated one is, is found at the start (`findBookings`). */
export function ferryBookings() {
  return {
    ...{ key: BOOKINGS, name: "The booking system", address: addressAt(USUAL), headers: [] },
    ...{ pattern: BOOKING_REFERENCE, timeoutSeconds: 4, cacheMinutes: 60, position: 0 },
  };
}

function addressAt(outside: string): string {
  return `${outside}/bookings/{reference}`;
}

/** The simulated booking system may be elsewhere than when it was set last. @param outside its address, as in http://127.0.0.1:4320 */
export async function findBookings(em: EntityManager, outside: string): Promise<void> {
  const address = { $re: String.raw`^http://127\.0\.0\.1:\d+/bookings/\{reference\}$` };
  await em.nativeUpdate(DetailSource, { key: BOOKINGS, address }, { address: addressAt(outside) });
}
