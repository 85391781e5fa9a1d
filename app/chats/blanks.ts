import type { BlankValue } from "#core/tokens/blanks";

/** Whether a blank is still to be filled. */
export function isBlankEmpty(value: BlankValue | undefined): boolean {
  return value == null || value === "" || (Array.isArray(value) && value.length === 0);
}
