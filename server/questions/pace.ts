import { RateLimiterMemory } from "rate-limiter-flexible";
import { Unusable } from "../errors";
import { tooOften } from "../web/limits";
import { t } from "../words";

/** Answers that one network address presses within a minute. */
const pressing = new RateLimiterMemory({ points: 30, duration: 60 });

/** Lets pass only an address that presses no more often than people do. @throws Unusable for one that does */
export async function slowPressing(address: string): Promise<void> {
  if ((await tooOften(pressing, address)) !== null) throw new Unusable(t("thatWasTooOftenWait"));
}
