import { createCookie } from "react-router";
import { SESSION_DAYS } from "../people/sessions";

const cookie = createCookie("plain_shelf", {
  httpOnly: true,
  sameSite: "lax",
  path: "/",
  maxAge: SESSION_DAYS * 24 * 60 * 60,
});

/** The session's token in a Cookie header; null when there is none. */
export async function readToken(header: string | undefined): Promise<string | null> {
  const value: unknown = await cookie.parse(header ?? null);
  return typeof value === "string" && value !== "" ? value : null;
}

/** A Set-Cookie header with a token; empty ends it. @param secure whether the browser came over TLS */
export async function writeToken(token: string, secure: boolean): Promise<string> {
  return cookie.serialize(token, { secure, ...(token === "" ? { maxAge: 0 } : {}) });
}
