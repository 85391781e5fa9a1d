import { readFile } from "node:fs/promises";
import { WordVectors } from "#core/ranking/vectors";

/** The word vectors that ship with the program. */
export async function wordVectors(): Promise<WordVectors> {
  return new WordVectors(await readFile(new URL("../../core/ranking/english.vec", import.meta.url)));
}
