import * as z from "zod/mini";

/** What makes an empty house a working desk, in the order in which each rests on the one before. */
export const steps = ["house", "team", "people", "shelf", "reply", "mail"] as const;
export type StepName = (typeof steps)[number];

/** A step that is skipped. */
export const stepSchema = z.strictObject({ step: z.enum(steps) });
