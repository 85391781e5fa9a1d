import { useCallback, useEffect, useState, type FormEvent } from "react";
import { useSearchParams } from "react-router";
import * as z from "zod/mini";
import { MOST_PIECE } from "#core/chat/protocol";
import { isAnybodyThere } from "#server/chats/door";
import { entityManager } from "#server/db/orm";
import { firstForm } from "#server/contact/forms";
import { environment } from "#server/environment";
import { settingsOf } from "#server/house/settings";
import { Button } from "../ui/button";
import { letterFontLink } from "../ui/fonts";
import type { Route } from "./+types/chat";
import { Talking } from "./talking";
import { t } from "../words/public";

export const links = () => [letterFontLink];

export async function loader({ request }: Route.LoaderArgs) {
  const em = await entityManager();
  const { house } = await settingsOf(em);
  return {
    house: house.name,
    isThere: await isAnybodyThere(em, new Date()),
    form: await firstForm(em),
    // What is tried in the simulated outside fails nowhere else.
    drops: environment().standins.on && new URL(request.url).searchParams.get("fault") === "drops",
  };
}

/** Where a window keeps by what it goes on with its chat: as long as the browser's tab is open. @param as whose it is, where one tab has several */
function keptAt(as: string | null): string {
  return as === null ? "chat" : `chat of ${as.slice(0, 320)}`;
}

/** The customer's chat window: beginning, waiting, talking, and what follows. */
export default function Chat({ loaderData }: Route.ComponentProps) {
  const { house, isThere, form, drops } = loaderData;
  const [params] = useSearchParams();
  const kept = keptAt(params.get("as"));
  const [token, setToken] = useState<string | null>(null);
  useEffect(() => {
    // Known in the browser alone, and only once the page is there.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setToken(sessionStorage.getItem(kept));
  }, [kept]);
  const begun = useCallback(
    (next: string) => {
      sessionStorage.setItem(kept, next);
      setToken(next);
    },
    [kept],
  );
  const again = useCallback(() => {
    sessionStorage.removeItem(kept);
    setToken(null);
  }, [kept]);
  return (
    <main className="mx-auto flex h-dvh max-w-lg flex-col bg-sheet">
      <title>{t("chatWithHouse", { house })}</title>
      <h1 className="border-b-4 border-accent px-4 py-3 text-lg font-bold">
        {t("chatWithHouse", { house })}
      </h1>
      {token !== null ? (
        <Talking key={token} token={token} drops={drops} onAgain={again} />
      ) : isThere ? (
        <Beginning onBegun={begun} />
      ) : (
        <p className="px-4 py-6">
          {t("nobodyIsThereJustNow")}{" "}
          {form !== null && (
            <a href={`/contact/${form}`} className="quiet-link">
              {t("writeToUsInstead")}
            </a>
          )}
        </p>
      )}
      <noscript>
        <p className="px-4 py-4">
          {t("chatNeedsScript")}{" "}
          {form !== null && (
            <a href={`/contact/${form}`} className="quiet-link">
              {t("writeToUsInstead")}
            </a>
          )}
        </p>
      </noscript>
    </main>
  );
}

const begunSchema = z.object({ token: z.string() });
const problemSchema = z.object({ problem: z.string() });

function Beginning({ onBegun }: { onBegun: (token: string) => void }) {
  const [params] = useSearchParams();
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const begin = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    setBusy(true);
    setProblem(null);
    const fields = new FormData(event.currentTarget);
    const said = (name: string) => {
      const value = fields.get(name);
      return typeof value === "string" ? value.trim() : "";
    };
    const answer = await fetch("/chat/begin", {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({
        name: said("name"),
        email: said("email"),
        text: said("text"),
        page: (params.get("page") ?? "").slice(0, 500),
        language: navigator.language.split("-")[0] ?? null,
      }),
    }).catch(() => null);
    const body: unknown = await answer?.json().catch(() => null);
    const begun = z.safeParse(begunSchema, body);
    if (begun.success) return onBegun(begun.data.token);
    const told = z.safeParse(problemSchema, body);
    setProblem(told.success ? told.data.problem : t("nobodyAnswers"));
    setBusy(false);
  };
  return (
    <form className="flex flex-col gap-4 px-4 py-5" onSubmit={(event) => void begin(event)}>
      <label className="flex flex-col gap-1 font-semibold">
        {t("whatIsItAbout")}
        <textarea
          name="text"
          required
          rows={4}
          maxLength={MOST_PIECE}
          className="boxed-field font-serif text-letter font-normal"
        />
      </label>
      <label className="flex flex-col gap-1 font-semibold">
        {t("yourName")}
        <input
          name="name"
          defaultValue={(params.get("name") ?? "").slice(0, 200)}
          maxLength={200}
          autoComplete="name"
          className="boxed-field font-normal"
        />
      </label>
      <label className="flex flex-col gap-1 font-semibold">
        {t("yourEmail")}
        <input
          name="email"
          type="email"
          defaultValue={(params.get("email") ?? "").slice(0, 254)}
          maxLength={254}
          autoComplete="email"
          aria-describedby="why-email"
          className="boxed-field font-normal"
        />
        <span id="why-email" className="text-sm font-normal text-soft">
          {t("weSendYouTheTalk")}
        </span>
      </label>
      {problem !== null && (
        <p role="alert" className="border-l-[3px] border-stop bg-stop-wash px-3 py-2 text-stop">
          {t("thatDidNotGoThrough", { problem })}
        </p>
      )}
      <Button type="submit" disabled={isBusy} className="self-start">
        {t("begin")}
      </Button>
    </form>
  );
}
