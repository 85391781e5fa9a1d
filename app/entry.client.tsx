import { startTransition, StrictMode } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { setNonce } from "get-nonce";
import * as z from "zod/mini";

// Styles that parts of the interface bring are allowed by the page's own nonce.
const nonce = document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce;
if (nonce) setNonce(nonce);

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <HydratedRouter />
    </StrictMode>,
  );
});

const manifest = z.object({
  routes: z.record(
    z.string(),
    z.object({ hasLoader: z.boolean(), hasClientAction: z.boolean(), module: z.string() }),
  ),
});

/** Fetches the scripts of what only acts: an act must not fail for a script that the server cannot give any more. */
async function fetchActs(): Promise<void> {
  const { routes } = manifest.parse(Reflect.get(window, "__reactRouterManifest"));
  for (const { hasLoader, hasClientAction, module } of Object.values(routes))
    if (hasClientAction && !hasLoader) await import(/* @vite-ignore */ module);
}

// What the page shows comes first.
window.addEventListener("load", () => {
  setTimeout(() => {
    fetchActs().catch((error: unknown) => {
      console.warn("What acts could not be fetched ahead", error);
    });
  }, 1000);
});
