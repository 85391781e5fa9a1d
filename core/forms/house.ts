import * as z from "zod/mini";
import { words } from "./fields";

/** Kinds of a value that the house keeps or adds to its cases. */
export const houseTypes = ["text", "long_text", "number", "money", "date", "yes_no", "link"] as const;

const label = words(200, "Say what it is called");

/** A field that the house adds to its cases. */
export const newFieldSchema = z.strictObject({ label, type: z.enum(houseTypes) });
export type NewField = z.infer<typeof newFieldSchema>;

const changedBy = z.enum(["agent", "curator", "lead"]);

/** Kinds of a house fact. */
export const factTypes = ["text", "long_text", "money", "date", "link", "number"] as const;
export type FactType = (typeof factTypes)[number];

/** A house fact that is added; its value is read by its kind. */
export const newFactSchema = z.strictObject({
  label,
  type: z.enum(factTypes),
  value: z.unknown(),
  changedBy,
});
export type NewFact = z.infer<typeof newFactSchema>;

/** Who may change a house fact, and what it is called. */
export const factDescriptionSchema = z.strictObject({ label, changedBy });
export type FactDescription = z.infer<typeof factDescriptionSchema>;
