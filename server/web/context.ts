import { redirect } from "react-router";
import type { EntityManager } from "@mikro-orm/postgresql";
import { entityManager } from "../db/orm";
import type { Viewer } from "../people/viewer";

/** What the web process hands to loaders and actions with every request. */
declare module "react-router" {
  interface AppLoadContext {
    /** Who is signed in; null for nobody. */
    viewer: Viewer | null;
    /** The session's token, as the cookie has it. */
    sessionToken: string | null;
    /** For scripts of this response (Content-Security-Policy). */
    nonce: string;
    /** Network address of the browser. */
    address: string;
  }
}

export interface SignedIn {
  viewer: Viewer;
  em: EntityManager;
  now: Date;
}

/** Lets pass only who is signed in; others are led to sign in and back. */
export async function signedIn({
  context,
  request,
}: {
  context: { viewer: Viewer | null };
  request: Request;
}): Promise<SignedIn> {
  if (!context.viewer) {
    const url = new URL(request.url);
    const back =
      request.method === "GET"
        ? `?to=${encodeURIComponent(url.pathname.replace(/\.data$/, "") + url.search)}`
        : "";
    throw redirect(`/sign-in${back}`);
  }
  return { viewer: context.viewer, em: await entityManager(), now: new Date() };
}
