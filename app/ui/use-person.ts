import { useRouteLoaderData } from "react-router";
import type { DeskData } from "./desk";

/** The id of who is signed in; 0 where nobody is. */
export function usePerson(): number {
  return useRouteLoaderData<DeskData>("ui/desk")?.viewer.id ?? 0;
}

/** Whether who is signed in is a lead. */
export function useIsLead(): boolean {
  return useRouteLoaderData<DeskData>("ui/desk")?.viewer.role === "lead";
}
