import type { EntityManager } from "@mikro-orm/postgresql";
import { randomBytes } from "node:crypto";
import { PasswordLink, Person } from "../db/entities/people";
import { NotFound } from "../errors";
import { isSame, proofOf as ownProof } from "../proof";
import { queue } from "../queue/boss";
import { checkPassword, hashPassword } from "./password";
import { endSessionsOf, startSession, type Where } from "./sessions";

/** How long a link is good, in days: until then somebody who was invited comes back from their holidays. */
const LINK_DAYS = { invited: 7, reset: 1 } as const;
const DAY = 24 * 60 * 60_000;

/** A link by which a person chooses a password, for the one who is to hand it on. */
export interface MadeLink {
  /** The address, with its token. */
  url: string;
  /** ISO 8601 instant. */
  expires: string;
}

/**
 * Makes a link by which a person chooses a password, in place of all that they had, and has it sent to them by mail.
 * To be called in a transaction.
 * @param base where people reach the program, as in https://shelf.example.com
 */
export async function makeLink(
  em: EntityManager,
  person: Person,
  purpose: PasswordLink["purpose"],
  made: { by: number | null; base: string; now: Date },
): Promise<MadeLink> {
  await withdrawLinks(em, person.id);
  const link = em.create(PasswordLink, {
    person,
    purpose,
    nonce: randomBytes(16).toString("hex"),
    madeBy: made.by === null ? null : em.getReference(Person, made.by),
    createdAt: made.now,
    expiresAt: new Date(made.now.getTime() + LINK_DAYS[purpose] * DAY),
    usedAt: null,
  });
  await em.flush();
  await queue(em, "notice", { link: link.id, base: made.base });
  return { url: urlOf(link, made.base), expires: link.expiresAt.toISOString() };
}

/** Makes the links of a person worthless. */
export async function withdrawLinks(em: EntityManager, personId: number): Promise<void> {
  await em.nativeDelete(PasswordLink, { person: personId });
}

/** The address of a link. @param base where people reach the program */
export function urlOf(link: Pick<PasswordLink, "id" | "nonce">, base: string): string {
  return new URL(`/welcome/${link.id}.${proofOf(link)}`, base).href;
}

function proofOf({ id, nonce }: Pick<PasswordLink, "id" | "nonce">): string {
  return ownProof(`password link ${id} ${nonce}`, "base64url");
}

const GONE = "This link is not good any more: it was used, replaced or is too old. Ask a lead for another.";

/**
 * Finds the link of a token.
 * @throws NotFound for one that was used, replaced, is too old or never was
 */
async function findLink(em: EntityManager, token: string, now: Date) {
  const [, id = "", proof = ""] = /^(\d{1,9})\.([\w-]{43})$/.exec(token) ?? [];
  const link =
    id === "" ? null : await em.findOne(PasswordLink, { id: Number(id) }, { populate: ["person"] });
  const isIts = isSame(proof, link ? proofOf(link) : "");
  if (!link || !isIts || link.usedAt != null || link.expiresAt <= now || !link.person.active)
    throw new NotFound(GONE);
  return link;
}

/** For whom a link is and what for. @throws NotFound where it is good no more */
export async function openLink(
  em: EntityManager,
  token: string,
  now: Date,
): Promise<{ name: string; email: string; purpose: PasswordLink["purpose"] }> {
  const { person, purpose } = await findLink(em, token, now);
  return { name: person.name, email: person.email, purpose };
}

/**
 * Chooses a password by a link, and signs its person in. The link is worthless then, and whoever was signed in as them is
 * no longer.
 * @returns the token of the session
 * @throws NotFound; Unusable for a password that is none
 */
export async function choosePassword(
  em: EntityManager,
  token: string,
  password: string,
  where: Where,
  now: Date,
): Promise<string> {
  await findLink(em, token, now);
  // It takes its time: not while anything is held.
  const hash = await hashPassword(password);
  return em.transactional(async (inner) => {
    const link = await findLink(inner, token, now);
    checkPassword(password, link.person);
    const used = await inner.nativeUpdate(PasswordLink, { id: link.id, usedAt: null }, { usedAt: now });
    if (used === 0) throw new NotFound(GONE);
    link.person.passwordHash = hash;
    link.person.mustChangePassword = false;
    await inner.flush();
    await endSessionsOf(inner, link.person.id);
    return startSession(inner, link.person.id, now, where);
  });
}
