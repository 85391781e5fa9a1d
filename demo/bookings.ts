import type { EntityManager } from "@mikro-orm/postgresql";
import { DetailSource } from "#server/db/entities/cases";
import { environment } from "#server/environment";

/** Three and three capitals or digits, at least one of each kind. */
export const BOOKING_REFERENCE = String.raw`\b([A-Z][0-9][A-Z0-9]-[A-Z0-9]{3}|[A-Z]{2}[0-9]-[A-Z0-9]{3}|[A-Z]{3}-[0-9][A-Z0-9]{2}|[A-Z]{3}-[A-Z][0-9][A-Z0-9]|[A-Z]{3}-[A-Z]{2}[0-9]|[0-9][A-Z][A-Z0-9]-[A-Z0-9]{3}|[0-9]{2}[A-Z]-[A-Z0-9]{3}|[0-9]{3}-[A-Z][A-Z0-9]{2}|[0-9]{3}-[0-9][A-Z][A-Z0-9]|[0-9]{3}-[0-9]{2}[A-Z])\b`;

/** The ferry line's booking system, as its house set it. */
export function ferryBookings() {
  return {
    ...{ key: "bookings", name: "The booking system", address: addressNow(), headers: [] },
    ...{ pattern: BOOKING_REFERENCE, timeoutSeconds: 4, cacheMinutes: 60, position: 0 },
  };
}

/** Where the simulated booking system is as the program was started now. */
function addressNow(): string {
  return `${environment().standins.url}/bookings/{reference}`;
}

/** The simulated booking system may have another port than when it was set last. */
export async function findBookings(em: EntityManager): Promise<void> {
  const address = { $re: String.raw`^http://127\.0\.0\.1:\d+/bookings/\{reference\}$` };
  await em.nativeUpdate(DetailSource, { key: "bookings", address }, { address: addressNow() });
}
