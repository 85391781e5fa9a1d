import type { EntityManager } from "@mikro-orm/postgresql";
import { RateLimiterMemory } from "rate-limiter-flexible";
import { fileTypeFromBuffer } from "file-type";
import { z } from "zod";
import { nameOfField, ownFields as names, type FormField } from "#core/forms/contact";
import { compose } from "#core/compose/compose";
import { re2Patterns } from "#core/conditions/re2";
import { readMarkdown } from "#core/formats/markdown";
import { guessLanguage } from "#core/language/guess";
import { fileName } from "#core/text/file-name";
import { wellFormed } from "#core/text/well-formed";
import { catalogue } from "#core/tokens/catalogue";
import { contextFrom } from "../answering/context";
import { freshMessageId } from "../answering/sender";
import type { ContactForm } from "../db/entities/mailboxes";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { digestOf } from "../digest";
import { Unusable } from "../errors";
import { caseNumber } from "../house/house";
import { ownTokensOf, settingsOf } from "../house/settings";
import { isSame, proofOf } from "../proof";
import { acceptMail } from "../receiving/accept";
import { beginningOf } from "../receiving/beginning";
import type { ReceivedMail } from "../reading/mail";
import { scheduleDelivery } from "../sending/schedule";
import { tooOften } from "../web/limits";
import { NOTHING_STANDS } from "../cases/stands";
import { t } from "../words";

/** Whoever fills a form in faster is a program. */
const FASTEST_MS = 2500;
/** A form that lay open longer is asked for anew. */
const LONGEST_MS = 24 * 60 * 60_000;
const MOST_LINKS = 4;
const MOST_FILES = 10;
const MOST_BYTES = 20 * 1024 * 1024;

/** What one network address sends within ten minutes. */
const sending = new RateLimiterMemory({ points: 8, duration: 600 });

/** When a form was opened, so that nobody else can say so. */
export function openedAt(now: Date): string {
  const at = now.getTime().toString(36);
  return `${at}.${signed(at)}`;
}

function signed(text: string): string {
  return proofOf(`contact form ${text}`, "base64url").slice(0, 24);
}

/** What is wrong with what was filled in, by field; under `form` what is about all of it. */
export type FormProblems = Partial<Record<string, string>>;

/** What came of a form. */
export type Submitted = { ok: true; caseNumber: string } | { ok: false; problems: FormProblems };

/**
 * Takes a form in as a message of whoever filled it in: a case of the form's team. Programs are kept out by what people
 * do not do: a field that nobody sees filled in, all of it in no time, again and again, links upon links.
 * @param address network address that it came from
 * @param fromElsewhere whether it was filled in on another site's page, which knows not when it was opened
 */
export async function submitForm(
  em: EntityManager,
  form: ContactForm,
  fields: FormData,
  { address, fromElsewhere, now }: { address: string; fromElsewhere: boolean; now: Date },
): Promise<Submitted> {
  const { problems, letter, files } = await read(form, fields);
  const robot = robotSigns(fields, letter.message, fromElsewhere, now);
  if (robot !== null) problems.form ??= robot;
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  if ((await tooOften(sending, address)) !== null)
    return { ok: false, problems: { form: t("thatWasTooOftenWait") } };
  const mail: ReceivedMail = {
    from: { name: letter.name === "" ? null : letter.name, address: letter.email },
    replyTo: null,
    to: [form.team.mailbox],
    cc: [],
    subject: letter.topic === "" ? beginningOf(letter.message) : letter.topic,
    text: letter.text,
    html: null,
    messageId: freshMessageId(form.team.mailbox),
    answers: [],
    language: guessLanguage(letter.message),
    attachments: files,
    doubts: [{ kind: "form", words: t("itCameByTheFormTitle", { title: form.title }) }],
    cut: false,
    kind: "message",
    parts: [],
    failure: null,
    envelope: { returnPath: letter.email, headers: {} },
  };
  return em.transactional(async (inner) => {
    const accepted = await acceptMail(inner, mail, null, [form.team.mailbox], now);
    const subject = await inner.findOneOrFail(
      Case,
      { id: accepted.caseId },
      { populate: ["customer.organisation", "team"] },
    );
    if (letter.topic !== "" && subject.topic == null) subject.topic = letter.topic;
    if (accepted.opened && form.firstMail != null)
      await sendFirstMail(inner, subject, letter.email, form.firstMail, now);
    const { house } = await settingsOf(inner);
    return { ok: true as const, caseNumber: caseNumber(house, subject.number) };
  });
}

interface Letter {
  email: string;
  name: string;
  topic: string;
  message: string;
  /** The message, and what else was asked, a line each. */
  text: string;
}

async function read(
  form: ContactForm,
  fields: FormData,
): Promise<{ problems: FormProblems; letter: Letter; files: ReceivedMail["attachments"] }> {
  const problems: FormProblems = {};
  const said = (name: string) => {
    const value = fields.get(name);
    return typeof value === "string"
      ? wellFormed(value.replaceAll("\u0000", "").replace(/\r\n?/g, "\n")).trim()
      : "";
  };
  const email = said(names.email).toLowerCase();
  if (!z.email().max(254).safeParse(email).success) problems[names.email] = t("writeYourAddressAsIn");
  const name = said(names.name).replace(/\s+/g, " ").slice(0, 200);
  const message = said(names.message);
  if (message === "") problems[names.message] = t("writeWhatItIsAbout");
  if (message.length > 20_000) problems[names.message] = t("thatIsTooLongAtMost", { most: "20,000" });
  const topic = said(names.topic);
  if (form.topics.length > 0 && !form.topics.includes(topic)) problems[names.topic] = t("chooseOneOfTheList");
  const lines: string[] = [];
  const booking = form.asksBooking ? said(names.booking).slice(0, 60) : "";
  if (booking !== "") lines.push(t("bookingReferenceIs", { reference: booking.toUpperCase() }));
  for (const [at, field] of form.fields.entries()) {
    const value = said(nameOfField(at));
    const problem = problemOf(field, value);
    if (problem !== null) problems[nameOfField(at)] = problem;
    else if (value !== "") lines.push(`${field.label}: ${value}`);
  }
  const files = form.takesFiles ? await filesOf(fields, problems) : [];
  const text = [message, lines.join("\n")].filter((part) => part !== "").join("\n\n");
  return { problems, letter: { email, name, topic, message, text }, files };
}

function problemOf(field: FormField, value: string): string | null {
  if (value === "") return field.required ? t("fillThisIn") : null;
  if (value.length > 5000) return t("thatIsTooLongAtMost", { most: "5,000" });
  switch (field.kind) {
    case "number":
      return Number.isFinite(Number(value)) ? null : t("writeANumber");
    case "date":
      return z.iso.date().safeParse(value).success ? null : t("aDate");
    case "choice":
      return field.options.includes(value) ? null : t("chooseOneOfTheList");
    case "yes_no":
      return value === "yes" || value === "no" ? null : t("chooseOneOfTheList");
    case "text":
    case "long_text":
      return null;
  }
}

async function filesOf(fields: FormData, problems: FormProblems): Promise<ReceivedMail["attachments"]> {
  const given = fields.getAll(names.files).filter((one) => typeof one !== "string" && one.size > 0);
  if (given.length > MOST_FILES) problems[names.files] = t("atMostMostFiles", { most: MOST_FILES });
  let bytes = 0;
  const files: ReceivedMail["attachments"] = [];
  for (const file of given) {
    if (typeof file === "string") continue;
    bytes += file.size;
    if (bytes > MOST_BYTES) {
      problems[names.files] = t("filesOf20MbAtMost");
      return [];
    }
    const content = new Uint8Array(await file.arrayBuffer());
    const kind = await fileTypeFromBuffer(content);
    files.push({
      name: fileName(file.name),
      contentType: kind?.mime ?? (file.type.startsWith("text/") ? "text/plain" : "application/octet-stream"),
      content,
      sha256: digestOf(content),
      contentId: null,
    });
  }
  return files;
}

/** What speaks for a program having filled the form in, in words for a person who did; null for nothing. */
function robotSigns(fields: FormData, message: string, fromElsewhere: boolean, now: Date): string | null {
  const trap = fields.get(names.trap);
  if (typeof trap === "string" && trap !== "") return t("leaveTheHiddenFieldEmpty");
  if ((message.match(/https?:\/\/|www\./gi)?.length ?? 0) > MOST_LINKS)
    return t("takeLinksOutMost", { most: MOST_LINKS });
  if (fromElsewhere) return null;
  const age = ageOf(fields, now);
  if (age === null) return t("theFormLayOpenTooLong");
  return age < FASTEST_MS ? t("thatWasFastLookAgain") : null;
}

/** When a form that comes back was opened: as it said, where that can be believed; else now. */
export function openedAgain(fields: FormData, now: Date): string {
  return ageOf(fields, now) === null ? openedAt(now) : openedOf(fields);
}

/** For how long a form lay open, in milliseconds; null where that cannot be believed, or is too long. */
function ageOf(fields: FormData, now: Date): number | null {
  const [at = "", proof = ""] = openedOf(fields).split(".");
  const age = now.getTime() - parseInt(at, 36);
  return isSame(proof, signed(at)) && age <= LONGEST_MS ? age : null;
}

function openedOf(fields: FormData): string {
  const opened = fields.get(names.opened);
  return typeof opened === "string" ? opened : "";
}

/** Sends the form's first mail to whoever wrote: composed as all letters are, told to be automatic. */
async function sendFirstMail(
  em: EntityManager,
  subject: Case,
  to: string,
  words: string,
  now: Date,
): Promise<void> {
  const settings = await settingsOf(em);
  const own = ownTokensOf(settings, now);
  const { house } = settings;
  const language = subject.language ?? house.language;
  const { mailbox, name } = subject.team;
  const inbound = await em.findOne(Message, { case: subject }, { orderBy: { id: "desc" } });
  const context = contextFrom({
    settings,
    own,
    person: {
      name,
      firstName: name,
      title: null,
      department: null,
      email: mailbox,
      phone: null,
      details: {},
    },
    subject,
    stands: NOTHING_STANDS,
    booking: null,
    latest: inbound,
    recipient: to,
    language,
    attached: false,
    answers: {},
    now,
  });
  const letter = compose({
    slips: [
      {
        ...{ id: "first", reply: null, title: "", part: "answer", language: house.language },
        ...{ document: readMarkdown(words).doc, blanks: {}, passages: {}, values: {} },
        ...{ subject: null, attachments: [] },
      },
    ],
    context,
    channel: "email",
    language,
    tokens: catalogue(own),
    patterns: re2Patterns,
    signature: null,
    stationery: settings.stationery.get(subject.team.id) ?? null,
    subject: { from: "thread" },
    threadSubject: subject.subject,
    caseNumber: caseNumber(house, subject.number),
    attachments: [],
  });
  const message = em.create(Message, {
    case: subject,
    direction: "out",
    channel: "email",
    kind: "automatic",
    state: "due",
    fromName: `${name}, ${house.name}`,
    fromAddress: mailbox,
    toAddress: to,
    subject: letter.subject,
    text: letter.text,
    html: letter.html,
    language,
    messageId: freshMessageId(mailbox),
    references: inbound?.messageId ? [inbound.messageId] : [],
    person: null,
    at: now,
    dueAt: now,
  });
  await em.flush();
  await scheduleDelivery(em, message.id, now);
}

/** The body of a form, within what is taken. @throws Unusable where it cannot be read */
export async function readFormData(request: Request): Promise<FormData> {
  try {
    return await request.formData();
  } catch {
    throw new Unusable(t("theRequestIsNoForm"));
  }
}
