import * as z from "zod/mini";
import type { ChangedRow } from "#server/cases/waiting";

/** What the server tells of a case that changed. */
export const changedShape: z.ZodMiniType<ChangedRow> = z.custom<ChangedRow>(
  (value) => typeof value === "object" && value !== null && "row" in value && "list" in value,
);
