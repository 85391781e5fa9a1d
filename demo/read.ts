import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import { parse } from "yaml";
import type { z } from "zod";
import { readFolder, type TextFile } from "#core/formats/folder";
import type { Library } from "#core/formats/library";
import { bookingsFile, conversationsFile, customersFile, houseFile } from "./schema";

const FOLDER = new URL(".", import.meta.url).pathname;

async function readYaml<T>(path: string, schema: z.ZodType<T>): Promise<T> {
  const parsed = schema.safeParse(parse(await readFile(join(FOLDER, path), "utf8")));
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0];
  throw new Error(`demo/${path}: ${issue?.path.join(".")}: ${issue?.message}`);
}

/** Everything of the demo as its files say it. @throws Error that names file and place */
export async function readDemo() {
  const conversations = await Promise.all(
    ["waiting", "answered", "closed", "earlier"].map((name) =>
      readYaml(`conversations/${name}.yaml`, conversationsFile),
    ),
  );
  return {
    house: await readYaml("house.yaml", houseFile),
    customers: await readYaml("customers.yaml", customersFile),
    conversations: conversations.flat(),
    bookings: await readYaml("bookings.yaml", bookingsFile),
    library: await readLibrary(),
  };
}

async function readLibrary(): Promise<Library> {
  const names = await readdir(join(FOLDER, "library"), { recursive: true });
  const files = await Promise.all(
    names
      .filter((name) => name.endsWith(".md") || name === "library.yaml")
      .map(async (path): Promise<TextFile> => ({
        path,
        text: await readFile(join(FOLDER, "library", path), "utf8"),
      })),
  );
  const { library, problems } = readFolder(files);
  const [problem] = problems;
  if (problem) throw new Error(`demo/library/${problem.where}:${problem.line ?? 1}: ${problem.message}`);
  return library;
}

/** The bytes of a file that goes with a reply. */
export async function readLibraryAttachment(name: string): Promise<Buffer> {
  return readFile(join(FOLDER, "library", name));
}
