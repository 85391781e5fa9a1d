import { useLoaderData } from "react-router";
import { z } from "zod";
import { openCase } from "#server/answering/open";
import { neighbours } from "#server/cases/waiting";
import { answering } from "#server/web/answers";
import { signedIn } from "#server/web/context";
import { useLive } from "../ui/use-live";
import type { Route } from "./+types/route";
import { Spread } from "./spread";

const params = z.object({ number: z.coerce.number().int().positive("There is no such case") });

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  const all = new URL(args.request.url).searchParams.get("all") === "1";
  return answering(async () => {
    const { number } = params.parse(args.params);
    return {
      open: await openCase(em, viewer, number, all, now),
      around: await neighbours(em, viewer, number),
    };
  });
}

export default function Answering() {
  const { open, around } = useLoaderData<typeof loader>();
  useLive(open.number);
  return (
    <>
      <title>{`${open.label} ${open.customer.name} · Plain Shelf`}</title>
      <Spread key={open.number} open={open} around={around} />
    </>
  );
}
