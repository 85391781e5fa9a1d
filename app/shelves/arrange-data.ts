import { z } from "zod";
import { orderShelves, removeShelf, saveShelf, shelfSchema } from "#server/replies/shelves";
import { answeringJson } from "#server/web/answers";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/arrange-data";

const body = z.discriminatedUnion("what", [
  z.strictObject({ what: z.literal("save"), key: z.string().nullable(), ...shelfSchema.shape }),
  z.strictObject({ what: z.literal("order"), keys: z.array(z.string()).max(1000) }),
  z.strictObject({ what: z.literal("remove"), key: z.string() }),
]);

/** Makes, changes, orders and takes away shared shelves. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return answeringJson(async () => {
    const asked = await readBody(args.request, body);
    if (asked.what === "order") await orderShelves(em, viewer, asked.keys);
    else if (asked.what === "remove") await removeShelf(em, viewer, asked.key);
    else {
      const { what: _what, key, ...input } = asked;
      return { key: await saveShelf(em, viewer, key, input) };
    }
    return {};
  });
}
