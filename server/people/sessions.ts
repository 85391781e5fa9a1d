import type { EntityManager, FilterQuery } from "@mikro-orm/postgresql";
import { randomBytes } from "node:crypto";
import { Person, Session } from "../db/entities/people";
import { prepared } from "../db/sql";
import { NotFound } from "../errors";
import { notify } from "../events/notify";
import { proofOf } from "../proof";
import type { Viewer } from "./viewer";
import { t } from "../words";

/** A session ends when it was not used for this long. */
export const SESSION_DAYS = 14;
/** And however much it is used, when it is this old. */
const OLDEST_DAYS = 60;
const ROTATE_AFTER_MINUTES = 30;
/** Requests that were under way during a rotation may still carry the token before it. */
const GRACE_SECONDS = 60;

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;

/** The only form in which a token is stored. */
function hashToken(token: string): string {
  return proofOf(token, "hex");
}

function newToken(): string {
  return randomBytes(32).toString("base64url");
}

function expiry(now: Date): Date {
  return new Date(now.getTime() + SESSION_DAYS * 24 * 60 * MINUTE);
}

/** By what a person recognises a session: the browser as it names itself, and the network address. */
export interface Where {
  browser: string | null;
  address: string | null;
}

/** Starts a session for a person. @returns the token for the cookie */
export async function startSession(
  em: EntityManager,
  personId: number,
  now: Date,
  where: Where = { browser: null, address: null },
): Promise<string> {
  const token = newToken();
  em.create(Session, {
    person: em.getReference(Person, personId),
    tokenHash: hashToken(token),
    previousHash: null,
    rotatedAt: now,
    expiresAt: expiry(now),
    createdAt: now,
    seenAt: now,
    browser: where.browser?.slice(0, 300) ?? null,
    address: where.address?.slice(0, 60) ?? null,
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
): Promise<{ id: number; viewer: Viewer; freshToken: string | null } | null> {
  const hash = hashToken(token);
  const [found] = await prepared<Viewer & { session: number; rotatedAt: string; current: boolean }>(
    em,
    `select s.id as session, s.rotated_at as "rotatedAt", s.token_hash = ? as current, p.id, p.name, p.email, p.role,
            p.team_id as "teamId", t.name as "teamName", p.time_zone as "timeZone", p.must_change_password as "mustChangePassword",
            p.team_id || array(select pt.team_id from person_teams pt where pt.person_id = p.id order by 1) as teams
       from sessions s join people p on p.id = s.person_id and p.active join teams t on t.id = p.team_id
      where (s.token_hash = ? or s.previous_hash = ?) and s.expires_at > ? and s.created_at > ?`,
    [hash, hash, hash, now, new Date(now.getTime() - OLDEST_DAYS * DAY)],
  );
  if (!found) return null;
  const { session: id, rotatedAt, current, ...viewer } = found;
  const age = now.getTime() - Date.parse(rotatedAt);
  if (!current && age > GRACE_SECONDS * 1000) return null;
  if (!current || age < ROTATE_AFTER_MINUTES * MINUTE) return { id, viewer, freshToken: null };
  return { id, viewer, freshToken: await rotate(em, hash, now) };
}

/** Gives a session a new token, unless another request has just done so. */
async function rotate(em: EntityManager, hash: string, now: Date): Promise<string | null> {
  const token = newToken();
  const changed = await em.nativeUpdate(
    Session,
    { tokenHash: hash },
    { tokenHash: hashToken(token), previousHash: hash, rotatedAt: now, seenAt: now, expiresAt: expiry(now) },
  );
  return changed === 1 ? token : null;
}

/** Ends the session that a token belongs to, and what is open in it. */
export async function endSession(em: EntityManager, token: string): Promise<void> {
  const hash = hashToken(token);
  await end(em, { $or: [{ tokenHash: hash }, { previousHash: hash }] });
}

/** A session as its person sees it. Times are ISO 8601 instants. */
export interface SessionRow {
  id: number;
  browser: string | null;
  address: string | null;
  began: string;
  /** When it was used last, to half an hour. */
  seen: string;
}

/** A person's open sessions, the one that was used last first. */
export async function sessionsOf(em: EntityManager, viewer: Viewer, now: Date): Promise<SessionRow[]> {
  const sessions = await em.find(
    Session,
    { person: viewer.id, expiresAt: { $gt: now } },
    { orderBy: { seenAt: "desc", id: "desc" } },
  );
  return sessions.map(({ id, browser, address, createdAt, seenAt }) => ({
    id,
    browser: browser ?? null,
    address: address ?? null,
    began: createdAt.toISOString(),
    seen: seenAt.toISOString(),
  }));
}

/** Ends sessions of the viewer's own: one, or all but one. @throws NotFound */
export async function endSessions(
  em: EntityManager,
  viewer: Viewer,
  which: { id: number } | { allBut: number },
): Promise<void> {
  const id = "id" in which ? which.id : { $ne: which.allBut };
  const ended = await end(em, { person: viewer.id, id });
  if (ended === 0 && "id" in which) throw new NotFound(t("thatSessionHasEndedAlready"));
}

/** Ends all sessions of a person. @param allBut one that goes on */
export async function endSessionsOf(
  em: EntityManager,
  person: number,
  allBut: number | null = null,
): Promise<void> {
  await end(em, { person, ...(allBut === null ? {} : { id: { $ne: allBut } }) });
}

async function end(em: EntityManager, which: FilterQuery<Session>): Promise<number> {
  return em.transactional(async (inner) => {
    const sessions = await inner.find(Session, which, { fields: ["id"] });
    const ids = sessions.map((session) => session.id);
    await inner.nativeDelete(Session, { id: { $in: ids } });
    for (const session of ids) await notify(inner, { case: null, kind: "session", session });
    return ids.length;
  });
}

/** Deletes sessions that have ended. */
export async function sweepSessions(em: EntityManager, now: Date): Promise<void> {
  await em.nativeDelete(Session, { expiresAt: { $lte: now } });
}
