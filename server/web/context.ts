import { redirect } from "react-router";
import type { EntityManager } from "@mikro-orm/postgresql";
import { entityManager } from "../db/orm";
import { environment } from "../environment";
import type { Viewer } from "../people/viewer";
import { wantsJson } from "./refuse";

/** What the web process hands to loaders and actions with every request. */
declare module "react-router" {
  interface AppLoadContext {
    /** Who is signed in; null for nobody. */
    viewer: Viewer | null;
    /** The session's id; null for nobody. */
    sessionId: number | null;
    /** The session's token, as the cookie has it. */
    sessionToken: string | null;
    /** For scripts of this response (Content-Security-Policy). */
    nonce: string;
    /** Network address of the browser. */
    address: string;
    /** Whether the browser came over TLS. */
    secure: boolean;
  }
}

export interface SignedIn {
  viewer: Viewer;
  em: EntityManager;
  now: Date;
}

/**
 * Lets pass only who is signed in; others are led to sign in and back.
 * @param withAnyPassword also who has yet to choose a password of their own, and is else led to do that first
 */
export async function signedIn(
  { context, request }: { context: { viewer: Viewer | null }; request: Request },
  withAnyPassword = false,
): Promise<SignedIn> {
  if (!context.viewer) {
    // A script is not led to a page that it cannot show.
    if (wantsJson(request.headers))
      throw Response.json({ problem: "Your session has ended. Sign in again." }, { status: 401 });
    const url = new URL(request.url);
    const back =
      request.method === "GET"
        ? `?to=${encodeURIComponent(url.pathname.replace(/\.data$/, "") + url.search)}`
        : "";
    throw redirect(`/sign-in${back}`);
  }
  if (context.viewer.mustChangePassword && !withAnyPassword) {
    if (wantsJson(request.headers))
      throw Response.json({ problem: "Choose a password of your own first." }, { status: 403 });
    throw redirect("/password");
  }
  return { viewer: context.viewer, em: await entityManager(), now: new Date() };
}

/** Where people reach the program, for links in mail: as it is set, else as whoever asks has reached it. */
export function publicBase(request: Request): string {
  return environment().publicUrl ?? new URL(request.url).origin;
}
