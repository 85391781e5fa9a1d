import { z } from "zod";
import {
  asideKinds,
  asideName,
  caseStateName,
  isOurs,
  setStates,
  type AsideKind,
  type SetState,
} from "#core/words/case-states";
import { CaseEvent, JunkSender, type Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { query } from "../db/sql";
import { idSchema } from "../edge";
import { NotFound, Unusable } from "../errors";
import { settingsOf } from "../house/settings";
import { locked, record, standing, type Changed, type Given } from "./recorded";
import { takeUp } from "./standing";
import { t } from "../words";

/** A state that somebody sets; what is set aside says as what, and why. */
export const stateSchema = z.strictObject({
  what: z.literal("state"),
  state: z.enum(setStates),
  asideAs: z.enum(asideKinds).nullable().default(null),
  reason: z.string().trim().max(300).default(""),
});

/** Whose a case is; null for nobody's. */
export const assignSchema = z.strictObject({ what: z.literal("assign"), to: idSchema.nullable() });

/**
 * Brings a case into a state. Set aside, settled and waiting on the customer stop its time; taken up again, it goes on. Junk
 * teaches which senders are set aside by themselves, and taken up again they are not.
 */
export async function bringInto(
  given: Given,
  { state, asideAs, reason }: Omit<z.output<typeof stateSchema>, "what">,
): Promise<Changed> {
  const { em, number, now } = given;
  const [subject] = await locked(em, [number]);
  const isAside = state === "set aside";
  if (isAside && asideAs === null) throw new Unusable(t("sayAsWhatItIsSetAside"), "asideAs");
  if (isAside && reason === "") throw new Unusable(t("sayWhyItIsSetAside"), "reason");
  if (subject.status === state && (!isAside || subject.asideAs === asideAs))
    throw new Unusable(t("theCaseIsThatAlready", { state: stateWords(state, asideAs) }), "state");
  const before = [standing(subject)];
  if (subject.asideAs === "junk or fraud") await forgetJunk(given, subject);
  if (!isOurs(state)) Object.assign(subject, { waitingSince: null, answerBy: null, updatedAt: now });
  else if (!isOurs(subject.status)) await takeUp(em, subject, now);
  Object.assign(subject, {
    status: state,
    asideAs: isAside ? asideAs : null,
    stateReason: reason === "" ? null : reason,
    updatedAt: now,
  });
  if (isAside && asideAs === "junk or fraud") await learnJunk(given, subject);
  return record(given, { kind: "state", from: subject, to: subject, messages: [], before }, ({ label }) => {
    const words = doneWords(state, asideAs, label);
    return reason === "" ? words : t("didItBecause", { words, reason });
  });
}

/** What was done to a case, in words. */
function doneWords(state: SetState, asideAs: AsideKind | null, label: string): string {
  switch (state) {
    case "open":
      return t("tookCaseUp", { label });
    case "waiting on the customer":
      return t("leftCaseWaitingOnCustomer", { label });
    case "waiting on a colleague":
      return t("leftCaseWaitingOnColleague", { label });
    case "settled":
      return t("settledCase", { label });
    case "set aside":
      return t("setCaseAside", { label, kind: asideName(asideAs ?? "nothing to answer") });
  }
}

function stateWords(state: SetState, asideAs: AsideKind | null): string {
  const name = caseStateName(state);
  return asideAs === null ? name : t("setAsideAs", { state: name, kind: asideName(asideAs) });
}

/** Gives a case to somebody, or to nobody. @throws NotFound; Unusable where it is theirs already */
export async function assign(given: Given, to: number | null): Promise<Changed> {
  const { em, number, now } = given;
  const [subject] = await locked(em, [number]);
  if ((subject.assignee?.id ?? null) === to) throw new Unusable(t("theCaseIsAssignedSoAlready"), "to");
  const person = to === null ? null : await em.findOne(Person, { id: to, leftAt: null });
  if (to !== null && person === null) throw new NotFound(t("thereIsNoSuchColleague"));
  const before = [standing(subject)];
  subject.assignee = person;
  if (subject.status === "new" && person !== null) subject.status = "open";
  subject.updatedAt = now;
  return record(given, { kind: "assigned", from: subject, to: subject, messages: [], before }, ({ label }) =>
    person === null ? t("gaveCaseToNobody", { label }) : t("gaveCaseTo", { label, name: person.name }),
  );
}

/** Addresses that wrote on a case become those of junk; our own never do, nor those of who forwards for many. */
export async function learnJunk(
  { em, viewer, now }: Pick<Given, "em" | "viewer" | "now">,
  subject: Case,
): Promise<void> {
  if (subject.forwarder != null) return;
  const { mailboxes } = await settingsOf(em);
  const found = await em.find(
    Message,
    { case: subject, direction: "in", channel: "email", kind: "message" },
    { fields: ["fromAddress"] },
  );
  const addresses = new Set(found.map((one) => one.fromAddress.toLowerCase()));
  for (const address of addresses) {
    if (address === "" || mailboxes.has(address)) continue;
    await query(
      em,
      "insert into junk_senders (address, person_id, case_id, at) values (?, ?, ?, ?) on conflict (address) do nothing",
      [address, viewer.id, subject.id, now],
    );
  }
}

/** What a case taught of senders is forgotten, and what its own senders were known for. */
export async function forgetJunk({ em }: Pick<Given, "em">, subject: Case): Promise<void> {
  await query(
    em,
    `delete from junk_senders where case_id = ? or address in (
       select lower(from_address) from messages where case_id = ? and direction = 'in')`,
    [subject.id, subject.id],
  );
}

/** Whether mail of a sender is set aside as junk when it comes. */
export async function isJunkSender(em: Given["em"], address: string): Promise<boolean> {
  return (await em.count(JunkSender, { address: address.toLowerCase() })) > 0;
}

/** A case that came from a sender of junk is set aside by itself. The caller writes what the unit of work holds. */
export function asideAsJunk(em: Given["em"], subject: Case, now: Date): void {
  const words = t("setAsideBecauseOfItsSender");
  Object.assign(subject, { status: "set aside", asideAs: "junk or fraud", stateReason: words });
  em.create(CaseEvent, { case: subject, person: null, kind: "state", data: { words }, at: now });
}
