import { createCookie } from "react-router";
import { SESSION_DAYS } from "../people/sessions";

const DAY = 24 * 60 * 60;

const session = createCookie("plain_shelf", {
  httpOnly: true,
  sameSite: "lax",
  path: "/",
  maxAge: SESSION_DAYS * DAY,
});

/** By what a browser is known that has signed in before. */
const device = createCookie("plain_shelf_device", {
  httpOnly: true,
  sameSite: "lax",
  path: "/sign-in",
  maxAge: 400 * DAY,
});

async function read(cookie: typeof session, header: string | null | undefined): Promise<string | null> {
  const value: unknown = await cookie.parse(header ?? null);
  return typeof value === "string" && value !== "" && value.length <= 1000 ? value : null;
}

/** The session's token in a Cookie header; null when there is none. */
export function readToken(header: string | null | undefined): Promise<string | null> {
  return read(session, header);
}

/** A Set-Cookie header with a token; empty ends it. @param secure whether the browser came over TLS */
export function writeToken(token: string, secure: boolean): Promise<string> {
  return session.serialize(token, { secure, ...(token === "" ? { maxAge: 0 } : {}) });
}

/** By what the browser is known, in a Cookie header; null where it has never signed in. */
export function readDevice(header: string | null | undefined): Promise<string | null> {
  return read(device, header);
}

/** A Set-Cookie header by which the browser is known when it signs in again. */
export function writeDevice(known: string, secure: boolean): Promise<string> {
  return device.serialize(known, { secure });
}
