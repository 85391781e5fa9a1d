import { redirect } from "react-router";
import { nextStep } from "#server/house/steps";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/home";

/** Leads come to what is left to set up; everybody else, and who is done with it, to their signature. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const isOpen = viewer.role === "lead" && (await nextStep(em)) !== null;
  return redirect(isOpen ? "/setup/start" : "/setup/signatures");
}
