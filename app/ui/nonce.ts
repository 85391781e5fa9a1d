import { useRouteLoaderData } from "react-router";

/** What every page has of its root. */
export interface RootData {
  nonce: string;
}

/** The nonce of this page, for styles that parts of the interface bring with them. */
export function useNonce(): string | undefined {
  return useRouteLoaderData<() => RootData>("root")?.nonce;
}
