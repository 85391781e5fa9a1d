import { readFile } from "node:fs/promises";
import { WordVectors } from "#core/ranking/vectors/word-vectors";

/** The word vectors that ship with the program. */
export async function wordVectors(): Promise<WordVectors> {
  return new WordVectors(await readFile(new URL("../../core/ranking/vectors/english.vec", import.meta.url)));
}
