import { reasonOf } from "#core/text/reason";
import { createReadStream } from "node:fs";
import { readdir, readFile, stat } from "node:fs/promises";
import { join, relative, sep } from "node:path";
import { z } from "zod";
import type { AttachmentRef } from "#core/compose/slip";
import { readFolder, type TextFile } from "#core/formats/folder";
import { readLibraryFile, zodProblems, type Library, type LibraryProblem } from "#core/formats/library";
import { Failure } from "./failure";

const MAX_FILE_BYTES = 20 * 1024 * 1024;
/** A long history, a line an inquiry. */
const MAX_LINES_BYTES = 500 * 1024 * 1024;
const MAX_FILES = 20_000;

/** A library as read from disk, with where its attachments lie. */
export interface ReadLibrary {
  library: Library;
  problems: LibraryProblem[];
  /** Attachments of the library by their path in it. */
  attachments: Map<string, AttachmentRef>;
}

/**
 * Reads a library: a folder of Markdown or a `library.json`.
 * @throws Failure when the path cannot be read or is neither
 */
export async function readLibrary(path: string): Promise<ReadLibrary> {
  const info = await stat(path).catch(() => null);
  if (!info) throw new Failure(`${path}: there is no such file or folder`);
  if (!info.isDirectory() && !path.endsWith(".json")) {
    throw new Failure(`${path}: a library is a folder of Markdown files or a .json file`);
  }
  const base = info.isDirectory() ? path : join(path, "..");
  const { library, problems } = info.isDirectory()
    ? readFolder(await markdownFiles(path))
    : readLibraryFile(await readJson(path));
  const names = new Set(library.replies.flatMap((reply) => reply.attachments));
  const attachments = new Map<string, AttachmentRef>();
  for (const name of names) {
    const inside = !relative(base, join(base, name)).startsWith("..");
    const file = inside ? await stat(join(base, name)).catch(() => null) : null;
    if (!file?.isFile()) {
      problems.push({
        where: name,
        line: null,
        column: null,
        message: `The attachment “${name}” is not in the library`,
      });
    } else {
      attachments.set(name, {
        id: name,
        name: name.split("/").at(-1) ?? name,
        contentType: "application/octet-stream",
        size: file.size,
      });
    }
  }
  return { library, problems, attachments };
}

/** Reads JSON from a file and checks it. @throws Failure with path and reason */
export async function readChecked<T>(path: string, schema: z.core.$ZodType<T>): Promise<T> {
  return checked(schema, await readJson(path), path);
}

/** Reads JSON Lines from a file and checks each. Empty lines are left out. @throws Failure with path, line and reason */
export async function readLines<T>(path: string, schema: z.core.$ZodType<T>): Promise<T[]> {
  const read: T[] = [];
  for await (const one of eachLine(path, schema)) read.push(one);
  return read;
}

/** The same one after the other: what is long need not be held at once. @throws Failure with path, line and reason */
export async function* eachLine<T>(path: string, schema: z.core.$ZodType<T>): AsyncGenerator<T, void> {
  await sizeOf(path, MAX_LINES_BYTES);
  let number = 0;
  for await (const line of linesIn(path)) {
    number += 1;
    const text = number === 1 ? line.replace(/^\uFEFF/, "") : line;
    if (text.trim() === "") continue;
    const where = `${path}:${number}`;
    yield checked(schema, parseJson(text, where), where);
  }
}

/** Lines end at a line feed alone: JSON texts may hold the other separators of Unicode as they are (RFC 8259, 7). */
async function* linesIn(path: string): AsyncGenerator<string, void> {
  let rest = "";
  for await (const chunk of createReadStream(path, "utf8")) {
    const lines = (rest + String(chunk)).split("\n");
    rest = lines.pop() ?? "";
    yield* lines;
  }
  yield rest;
}

function checked<T>(schema: z.core.$ZodType<T>, value: unknown, where: string): T {
  const parsed = z.safeParse(schema, value);
  if (parsed.success) return parsed.data;
  const [problem] = zodProblems(parsed.error);
  throw new Failure(
    `${where}: ${problem?.path ? `${problem.path}: ` : ""}${problem?.message ?? "not usable"}`,
  );
}

async function readJson(path: string): Promise<unknown> {
  return parseJson((await readText(path)).replace(/^\uFEFF/, ""), path);
}

function parseJson(text: string, where: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw new Failure(`${where}: not JSON: ${reasonOf(error)}`);
  }
}

async function readText(path: string): Promise<string> {
  await sizeOf(path, MAX_FILE_BYTES);
  return readFile(path, "utf8");
}

/** Looks at a file before it is read. @throws Failure where it is none, or is larger than it may be */
async function sizeOf(path: string, most: number): Promise<void> {
  const info = await stat(path).catch(() => null);
  if (!info?.isFile()) throw new Failure(`${path}: there is no such file`);
  if (info.size > most) throw new Failure(`${path}: larger than ${most / 1024 / 1024} MB`);
}

async function markdownFiles(folder: string): Promise<TextFile[]> {
  const names = (await readdir(folder, { recursive: true })).filter(
    (name) => name.endsWith(".md") || name === "library.yaml",
  );
  if (names.length > MAX_FILES) throw new Failure(`${folder}: more than ${MAX_FILES} files`);
  return Promise.all(
    names.map(async (name) => ({
      path: name.split(sep).join("/"),
      text: await readText(join(folder, name)),
    })),
  );
}
