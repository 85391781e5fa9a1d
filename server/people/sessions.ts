import type { EntityManager } from "@mikro-orm/postgresql";
import { createHmac, randomBytes } from "node:crypto";
import { Person, Session } from "../db/entities/people";
import { environment } from "../environment";
import type { Viewer } from "./viewer";

/** A session ends when it was not used for this long. */
export const SESSION_DAYS = 14;
const ROTATE_AFTER_MINUTES = 30;
/** Requests that were under way during a rotation may still carry the token before it. */
const GRACE_SECONDS = 60;

const MINUTE = 60_000;

/** The only form in which a token is stored. */
function hashToken(token: string): string {
  return createHmac("sha256", environment().sessionSecret).update(token).digest("hex");
}

function newToken(): string {
  return randomBytes(32).toString("base64url");
}

function expiry(now: Date): Date {
  return new Date(now.getTime() + SESSION_DAYS * 24 * 60 * MINUTE);
}

/** Starts a session for a person. @returns the token for the cookie */
export async function startSession(em: EntityManager, personId: number, now: Date): Promise<string> {
  const token = newToken();
  em.create(Session, {
    person: em.getReference(Person, personId),
    tokenHash: hashToken(token),
    previousHash: null,
    rotatedAt: now,
    expiresAt: expiry(now),
  });
  await em.flush();
  return token;
}

/**
 * Finds who a token belongs to.
 * @returns the viewer, and a fresh token where it was time to rotate: it replaces the old one in the cookie; null when the token is no good
 */
export async function findSession(
  em: EntityManager,
  token: string,
  now: Date,
): Promise<{ viewer: Viewer; freshToken: string | null } | null> {
  const hash = hashToken(token);
  const session = await em.findOne(
    Session,
    { $or: [{ tokenHash: hash }, { previousHash: hash }], expiresAt: { $gt: now } },
    { populate: ["person.team"] },
  );
  if (!session?.person.active) return null;
  const age = now.getTime() - session.rotatedAt.getTime();
  const current = session.tokenHash === hash;
  if (!current && age > GRACE_SECONDS * 1000) return null;
  const { person } = session;
  const viewer: Viewer = {
    id: person.id,
    name: person.name,
    email: person.email,
    role: person.role,
    teamId: person.team.id,
    teamName: person.team.name,
    timeZone: person.timeZone,
  };
  if (!current || age < ROTATE_AFTER_MINUTES * MINUTE) return { viewer, freshToken: null };
  return { viewer, freshToken: await rotate(em, hash, now) };
}

/** Gives a session a new token, unless another request has just done so. */
async function rotate(em: EntityManager, hash: string, now: Date): Promise<string | null> {
  const token = newToken();
  const changed = await em.nativeUpdate(
    Session,
    { tokenHash: hash },
    { tokenHash: hashToken(token), previousHash: hash, rotatedAt: now, expiresAt: expiry(now) },
  );
  return changed === 1 ? token : null;
}

/** Ends the session that a token belongs to. */
export async function endSession(em: EntityManager, token: string): Promise<void> {
  const hash = hashToken(token);
  await em.nativeDelete(Session, { $or: [{ tokenHash: hash }, { previousHash: hash }] });
}

/** Deletes sessions that have ended. */
export async function sweepSessions(em: EntityManager, now: Date): Promise<void> {
  await em.nativeDelete(Session, { expiresAt: { $lte: now } });
}
