import { mkdir, readdir, readFile, rename, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { randomBytes } from "node:crypto";
import { simpleParser, type ParsedMail } from "mailparser";
import { z } from "zod";
import { flowOf, unflowed } from "#core/mail/flowed";

const envelopeSchema = z.object({ to: z.array(z.string()), receivedAt: z.string() });

/** A message in a simulated mailbox, as lists show it. */
export interface StoredMail {
  id: string;
  to: string[];
  receivedAt: string;
  from: string;
  subject: string;
  messageId: string | null;
}

/** A message opened. */
export interface OpenedMail extends StoredMail {
  text: string;
  html: string | null;
  headers: { name: string; value: string }[];
  attachments: { name: string; contentType: string; size: number; contentId: string | null }[];
}

/** Keeps real messages as files: `ID.eml` with `ID.json` for the envelope beside it. */
export class Mailboxes {
  readonly #folder: string;
  readonly #mails = new Map<string, StoredMail>();

  constructor(folder: string) {
    this.#folder = folder;
  }

  /** Reads what was kept before. */
  async open(): Promise<void> {
    await mkdir(this.#folder, { recursive: true });
    const names = (await readdir(this.#folder)).filter((name) => name.endsWith(".json")).sort();
    for (const name of names) {
      const id = name.slice(0, -".json".length);
      const envelope = envelopeSchema.parse(JSON.parse(await readFile(join(this.#folder, name), "utf8")));
      this.#mails.set(id, summary(id, envelope, await simpleParser(await this.raw(id))));
    }
  }

  /** Keeps a message for its recipients; it is there whole once this returns. */
  async keep(raw: Buffer, to: string[], now: Date): Promise<StoredMail> {
    const id = `${now.getTime()}-${randomBytes(4).toString("hex")}`;
    const envelope = { to: to.map((address) => address.toLowerCase()), receivedAt: now.toISOString() };
    const mail = summary(id, envelope, await simpleParser(raw));
    await writeFile(join(this.#folder, `${id}.eml`), raw);
    await writeFile(join(this.#folder, `${id}.part`), JSON.stringify(envelope));
    await rename(join(this.#folder, `${id}.part`), join(this.#folder, `${id}.json`));
    this.#mails.set(id, mail);
    return mail;
  }

  /** Addresses that have mail, with how much. */
  addresses(): { address: string; messages: number; latest: string }[] {
    const found = new Map<string, { address: string; messages: number; latest: string }>();
    for (const mail of this.#mails.values()) {
      for (const address of mail.to) {
        const known = found.get(address) ?? { address, messages: 0, latest: mail.receivedAt };
        known.messages += 1;
        if (mail.receivedAt > known.latest) known.latest = mail.receivedAt;
        found.set(address, known);
      }
    }
    return [...found.values()].sort((a, b) => b.latest.localeCompare(a.latest));
  }

  /** The messages of a mailbox, latest first. */
  list(address: string): StoredMail[] {
    const wanted = address.toLowerCase();
    return [...this.#mails.values()]
      .filter((mail) => mail.to.includes(wanted))
      .sort((a, b) => b.id.localeCompare(a.id));
  }

  has(id: string): boolean {
    return this.#mails.has(id);
  }

  async raw(id: string): Promise<Buffer> {
    return readFile(join(this.#folder, `${id}.eml`));
  }

  /** Opens a message; undefined when there is none. */
  async read(id: string): Promise<OpenedMail | undefined> {
    const stored = this.#mails.get(id);
    if (!stored) return undefined;
    const raw = await this.raw(id);
    const mail = await simpleParser(raw, { skipTextToHtml: true, skipImageLinks: true });
    const flow = flowOf(raw.toString("latin1"));
    const text = (mail.text ?? "").replace(/\r\n/g, "\n");
    return {
      ...stored,
      // As a mail reader shows it: soft line breaks joined again.
      text: flow ? unflowed(text, flow.deleteSpace) : text,
      html: typeof mail.html === "string" ? mail.html : null,
      headers: mail.headerLines.map(({ key, line }) => ({
        name: key,
        value: line.slice(line.indexOf(":") + 1).trim(),
      })),
      attachments: mail.attachments.map((file, index) => ({
        name: file.filename ?? `part-${index + 1}`,
        contentType: file.contentType,
        size: file.size,
        contentId: file.cid ?? null,
      })),
    };
  }

  /** The bytes of an attachment by its place; undefined when there is none. */
  async attachment(
    id: string,
    index: number,
  ): Promise<{ name: string; contentType: string; content: Buffer } | undefined> {
    if (!this.#mails.has(id)) return undefined;
    const file = (await simpleParser(await this.raw(id))).attachments[index];
    return (
      file && {
        name: file.filename ?? `part-${index + 1}`,
        contentType: file.contentType,
        content: file.content,
      }
    );
  }
}

function summary(id: string, envelope: { to: string[]; receivedAt: string }, mail: ParsedMail): StoredMail {
  return {
    id,
    ...envelope,
    from: mail.from?.text ?? "",
    subject: mail.subject ?? "",
    messageId: mail.messageId ?? null,
  };
}
