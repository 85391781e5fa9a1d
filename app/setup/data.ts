import { z } from "zod";
import { addField, newFieldSchema, removeField } from "#server/house/fields";
import { addFact, describeFact, dropPlanned, factUses, newFactSchema, setFact } from "#server/house/facts";
import { savePersonDetails, saveSignature } from "#server/house/signatures";
import { saveStationery, stationerySchema } from "#server/house/stationery";
import { setUsual, usualSchema } from "#server/house/usual";
import { answeringJson } from "#server/web/answers";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/data";
import { idSchema } from "#server/edge";

const key = z.string().max(100);
const detail = z
  .string()
  .trim()
  .max(200)
  .transform((text) => (text === "" ? null : text));

const body = z.discriminatedUnion("what", [
  z.strictObject({ what: z.literal("signature"), team: idSchema.nullable(), document: z.unknown() }),
  z.strictObject({ what: z.literal("stationery"), ...stationerySchema.shape }),
  z.strictObject({ what: z.literal("usual"), ...usualSchema.shape }),
  z.strictObject({ what: z.literal("add field"), ...newFieldSchema.shape }),
  z.strictObject({ what: z.literal("remove field"), key }),
  z.strictObject({
    what: z.literal("person"),
    id: idSchema,
    title: detail,
    department: detail,
    phone: detail,
  }),
  z.strictObject({ what: z.literal("add fact"), ...newFactSchema.shape }),
  z.strictObject({
    what: z.literal("set fact"),
    key,
    value: z.unknown(),
    from: z.iso.date("A day, as in 2027-03-01").nullable(),
  }),
  z.strictObject({ what: z.literal("preview fact"), key, value: z.unknown() }),
  z.strictObject({ what: z.literal("drop planned"), key, id: idSchema }),
  z.strictObject({
    what: z.literal("describe fact"),
    key,
    label: z.string().trim().min(1, "Say what it is called").max(200),
    changedBy: z.enum(["agent", "curator", "lead"]),
  }),
]);

/** Every change of the setup; the role is asked for by each function. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return answeringJson(async () => {
    const asked = await readBody(args.request, body);
    switch (asked.what) {
      case "signature":
        await saveSignature(em, viewer, asked.team, asked.document);
        break;
      case "stationery": {
        const { what: _what, ...input } = asked;
        await saveStationery(em, viewer, input);
        break;
      }
      case "usual":
        await setUsual(em, viewer, asked);
        break;
      case "add field":
        return { key: await addField(em, viewer, asked) };
      case "remove field":
        await removeField(em, viewer, asked.key);
        break;
      case "person":
        await savePersonDetails(em, viewer, asked.id, {
          title: asked.title,
          department: asked.department,
          phone: asked.phone,
        });
        break;
      case "add fact":
        return { key: await addFact(em, viewer, asked, now) };
      case "set fact":
        await setFact(em, viewer, asked.key, asked.value, asked.from, now);
        break;
      case "preview fact":
        return { uses: await factUses(em, viewer, asked.key, asked.value, now) };
      case "drop planned":
        await dropPlanned(em, viewer, asked.key, asked.id, now);
        break;
      case "describe fact":
        await describeFact(em, viewer, asked.key, asked);
        break;
    }
    return {};
  });
}
