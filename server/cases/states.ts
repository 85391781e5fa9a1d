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
import { Person, Team } from "../db/entities/people";
import { query } from "../db/sql";
import { idSchema } from "../edge";
import { NotFound, Unusable } from "../errors";
import { settingsOf } from "../house/settings";
import { addNote } from "../notes/notes";
import { locked, record, standing, type Changed, type Given } from "./recorded";
import { dueAnew } from "./due";
import { setStill, takeUp } from "./standing";
import { t } from "../words";

/** A state that somebody sets; what is set aside says as what, and why. */
export const stateSchema = z.strictObject({
  what: z.literal("state"),
  state: z.enum(setStates),
  asideAs: z.enum(asideKinds).nullable().default(null),
  reason: z.string().trim().max(300).default(""),
});

/** Whose a case is, or which team's, nobody's in it; null for nobody's where it is. Told with a note where there is one. */
export const assignSchema = z.strictObject({
  what: z.literal("assign"),
  to: idSchema.nullable(),
  team: idSchema.nullable().default(null),
  note: z.string().trim().max(5000).default(""),
});

/** What a case is about; null for nothing that is known. */
export const topicSchema = z.strictObject({
  what: z.literal("topic"),
  topic: z.string().trim().min(1).max(100).nullable(),
});

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
  if (!isOurs(state)) setStill(subject, state, now);
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

/**
 * Gives a case to somebody, to a team, or to nobody; a note goes along, to them.
 * @throws NotFound; Unusable where it is theirs already
 */
export async function assign(
  given: Given,
  { to, team: teamId, note }: Omit<z.output<typeof assignSchema>, "what">,
): Promise<Changed> {
  const { em, viewer, number, now } = given;
  const [subject] = await locked(em, [number]);
  const isTheirs = (subject.assignee?.id ?? null) === to;
  if (isTheirs && (teamId === null || teamId === subject.team.id))
    throw new Unusable(t("theCaseIsAssignedSoAlready"), "to");
  const person = to === null ? null : await em.findOne(Person, { id: to, leftAt: null });
  if (to !== null && person === null) throw new NotFound(t("thereIsNoSuchColleague"));
  const team = teamId === null ? null : await em.findOne(Team, { id: teamId });
  if (teamId !== null && team === null) throw new NotFound(t("thereIsNoSuchTeam"));
  const before = [standing(subject)];
  subject.assignee = person;
  if (subject.status === "new" && person !== null) subject.status = "open";
  if (team && team !== subject.team) {
    subject.team = team;
    subject.answerBy = await dueAnew(em, subject, now);
  }
  subject.updatedAt = now;
  if (note !== "") await addNote(em, viewer, subject, { text: note, mentions: to === null ? [] : [to] }, now);
  return record(given, { kind: "assigned", from: subject, to: subject, messages: [], before }, ({ label }) =>
    team
      ? t("gaveCaseToTeam", { label, team: team.name })
      : person === null
        ? t("gaveCaseToNobody", { label })
        : t("gaveCaseTo", { label, name: person.name }),
  );
}

/** Says what a case is about; its time is reckoned anew. @throws Unusable where it is about that already */
export async function setTopic(given: Given, topic: string | null): Promise<Changed> {
  const { em, number, now } = given;
  const [subject] = await locked(em, [number]);
  if ((subject.topic ?? null) === topic) throw new Unusable(t("theCaseIsAboutThatAlready"), "topic");
  const before = [standing(subject)];
  subject.topic = topic;
  subject.answerBy = await dueAnew(em, subject, now);
  subject.updatedAt = now;
  return record(given, { kind: "topic", from: subject, to: subject, messages: [], before }, ({ label }) =>
    topic === null ? t("tookTopicAway", { label }) : t("setTopicTo", { label, topic }),
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
