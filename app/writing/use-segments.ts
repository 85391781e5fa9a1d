import { fetched } from "../ui/fetched";

/** How many messages a text takes as an SMS; null until what counts them is here, which few replies want. */
export const useSegments = fetched(async () => (await import("#core/sms/segments")).smsSegments, {
  ahead: false,
});
