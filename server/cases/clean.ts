import { readApart, TooMuch } from "../reading/pool";
import type { InlinePictures } from "../reading/sanitise";

/** Cleaning one message may take so long. */
const CLEAN_MS = 4000;

/** A message's HTML made safe to show in a thread of its own; null where that takes too long or too much. */
export async function cleanMessage(
  html: string,
  pictures: InlinePictures,
  remote: boolean,
): Promise<{ html: string; blocked: number } | null> {
  try {
    return await readApart("html", { html, pictures, remote }, CLEAN_MS);
  } catch (error) {
    if (error instanceof TooMuch) return null;
    throw error;
  }
}
