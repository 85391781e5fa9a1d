import { useEffect } from "react";

const HERE_EVERY_MS = 15_000;

/** Says at once, and again and again, that an agent is there for whoever chats. */
export function useStillThere(isWanted: boolean): void {
  useEffect(() => {
    if (!isWanted) return;
    // What cannot be said now is said the next time. An answer that is not read would keep its connection open.
    const here = () =>
      void fetch("/chats/sign", {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify({ what: "here" }),
      })
        .then((response) => response.text())
        .catch(() => undefined);
    here();
    const timer = setInterval(here, HERE_EVERY_MS);
    return () => clearInterval(timer);
  }, [isWanted]);
}
