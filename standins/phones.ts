import { randomBytes } from "node:crypto";
import { mkdir, readdir, readFile, rename, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { z } from "zod";

const kept = z.object({
  id: z.string(),
  /** Whose phone it is on: a number in the form of ITU-T E.164. */
  phone: z.string(),
  /** The other number. */
  other: z.string(),
  /** Whether the phone's owner wrote it. */
  written: z.boolean(),
  text: z.string(),
  at: z.string(),
  /** The id that the program gave it; null for what the phone's owner wrote. */
  theirs: z.string().nullable(),
  state: z.enum(["under way", "delivered", "failed"]),
});
/** A short message on a simulated phone. */
export type PhoneMessage = z.infer<typeof kept>;

/** Keeps the messages of simulated phones as files. */
export class Phones {
  readonly #folder: string;
  readonly #messages = new Map<string, PhoneMessage>();

  constructor(folder: string) {
    this.#folder = folder;
  }

  /** Reads what was kept before. */
  async open(): Promise<void> {
    await mkdir(this.#folder, { recursive: true });
    for (const name of (await readdir(this.#folder)).filter((one) => one.endsWith(".json")).sort()) {
      const message = kept.parse(JSON.parse(await readFile(join(this.#folder, name), "utf8")));
      this.#messages.set(message.id, message);
    }
  }

  /** The message that the program handed over under an id of its own. */
  byTheirs(theirs: string): PhoneMessage | undefined {
    return [...this.#messages.values()].find((one) => one.theirs === theirs);
  }

  /** Keeps a message, new or changed; it is there whole once this returns. */
  async keep(message: Omit<PhoneMessage, "id"> & { id?: string }): Promise<PhoneMessage> {
    const id = message.id ?? `${Date.parse(message.at)}-${randomBytes(4).toString("hex")}`;
    const whole = { ...message, id };
    await writeFile(join(this.#folder, `${id}.part`), JSON.stringify(whole));
    await rename(join(this.#folder, `${id}.part`), join(this.#folder, `${id}.json`));
    this.#messages.set(id, whole);
    return whole;
  }

  /** Numbers that have messages, with how many, the latest first. */
  numbers(): { number: string; messages: number; latest: string }[] {
    const found = new Map<string, { number: string; messages: number; latest: string }>();
    for (const { phone, at } of this.#messages.values()) {
      const known = found.get(phone) ?? { number: phone, messages: 0, latest: at };
      known.messages += 1;
      if (at > known.latest) known.latest = at;
      found.set(phone, known);
    }
    return [...found.values()].sort((a, b) => b.latest.localeCompare(a.latest));
  }

  /** What a phone shows, oldest first; what has not arrived is not on it. */
  list(number: string): PhoneMessage[] {
    return [...this.#messages.values()]
      .filter((one) => one.phone === number && (one.written || one.state === "delivered"))
      .sort((a, b) => a.at.localeCompare(b.at) || a.id.localeCompare(b.id));
  }
}
