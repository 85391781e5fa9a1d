import { z } from "zod";
import { outsideAttachment } from "#server/outside/mailboxes";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/attachment";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const index = z.coerce.number().int().min(0).catch(-1).parse(args.params.index);
  const file = await loaderResult(() => outsideAttachment(em, viewer, args.params.id, index));
  const headers = new Headers({
    "X-Content-Type-Options": "nosniff",
    "Content-Security-Policy": "default-src 'none'; sandbox",
  });
  for (const name of ["content-type", "content-disposition"]) {
    const value = file.headers.get(name);
    if (value) headers.set(name, value);
  }
  return new Response(file.body, { headers });
}
