import { useRouteLoaderData } from "react-router";
import type { loader } from "../root";

/** The nonce of this page, for styles that parts of the interface bring with them. */
export function useNonce(): string | undefined {
  return useRouteLoaderData<typeof loader>("root")?.nonce;
}
