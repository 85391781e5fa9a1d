import { useEffect } from "react";
import { useRevalidator } from "react-router";
import { SignInAgain } from "./sign-in-again";
import { t } from "../words/ui";

/** Why a screen shows what it knew before: the server did not answer, or asked to sign in. */
export type Stale = "unreachable" | "signed out";

const AGAIN_MS = 2500;

/** Loaded data, or what was known before with the reason. */
export type Steady<T> = T & { stale: Stale | null };

const forgetting: (() => void)[] = [];

/** Forgets what screens knew: whoever comes next at this browser is not to read it by going back. */
export function forgetScreens(): void {
  for (const forget of forgetting) forget();
}

/**
 * Loads a screen's data again so that a failure leaves the screen as it is: what was known of the same place serves on.
 * @param place what tells that it is the same screen, as a case's number
 * @throws what the server answered, where nothing was known before or the place is not there any more
 */
export function steadily<T extends object>(): (place: string, load: () => Promise<T>) => Promise<Steady<T>> {
  let known: { place: string; data: T } | null = null;
  forgetting.push(() => {
    known = null;
  });
  return async (place, load) => {
    try {
      const data = await load();
      known = { place, data };
      return { ...data, stale: null };
    } catch (error) {
      const stale = whyStale(error);
      if (stale === null || known?.place !== place) throw error;
      return { ...known.data, stale };
    }
  };
}

function whyStale(error: unknown): Stale | null {
  if (error instanceof Response && error.status >= 300 && error.status < 400)
    return (error.headers.get("Location") ?? "").startsWith("/sign-in") ? "signed out" : null;
  const status = typeof error === "object" && error !== null && "status" in error ? Number(error.status) : 0;
  // What failed without an answer, or with one that says nothing of the place itself.
  return status === 0 || status === 429 || status >= 500 ? "unreachable" : null;
}

/** A line at the foot of a screen that is out of date; it loads again by itself. */
export function StaleLine({ stale }: { stale: Stale | null }) {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    if (stale === null) return;
    const timer = setInterval(() => void revalidate(), AGAIN_MS);
    return () => clearInterval(timer);
  }, [stale, revalidate]);
  if (stale === null) return null;
  return (
    <p role="status" className="border-b border-line bg-look-wash px-6 py-1.5 text-sm text-look">
      {stale === "unreachable" ? (
        t("theServerDoesNotAnswerWhat2")
      ) : (
        <>
          {t("yourSessionHasEndedWhatIs")} <SignInAgain>{t("signInAgain2")}</SignInAgain>
        </>
      )}
    </p>
  );
}
