import { startTransition, StrictMode } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { setNonce } from "get-nonce";
import { later } from "./ui/later";

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

async function fetchLater(): Promise<void> {
  const [{ fetchActs }] = await Promise.all([import("./fetch-acts"), import("./ui/refusal-shape")]);
  await fetchActs();
}

later(() => {
  fetchLater().catch((error: unknown) => {
    console.warn("What acts could not be fetched ahead", error);
  });
});
