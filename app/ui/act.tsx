import { createContext, useCallback, useContext, useEffect, useRef, useState, type ReactNode } from "react";
import { useFetcher, type SubmitTarget } from "react-router";
import type * as z from "zod/mini";
import { refusalOf, type Refusal } from "./refusal";
import { t } from "../words/ui";

/** What an act came to: what the server answered, or why it refused, in words. */
export type Outcome<T> = { ok: true; data: T } | ({ ok: false } & Refusal);

/**
 * Asks an action for something, by JSON or a form with files. It goes its way however the screens change meanwhile; what
 * screens show is loaded again when it is done.
 */
export interface Act {
  /** One that has nothing to say but that it is done. */
  (path: string, body: object): Promise<Outcome<object>>;
  /** @param schema of the answer, or what fetches it once there is one */
  <T>(path: string, body: object, schema: Schema<T>): Promise<Outcome<T>>;
}

type Schema<T> = z.ZodMiniType<T> | (() => Promise<z.ZodMiniType<T>>);

interface Running {
  id: number;
  path: string;
  body: object;
  resolve: (answer: unknown) => void;
}

const ActContext = createContext<Act>(() => Promise.reject(new Error("There is no Acts above")));

export function useAct(): Act {
  return useContext(ActContext);
}

/** Holds the acts that are under way, a fetcher each. */
export function Acts({ children }: { children: ReactNode }) {
  const [running, setRunning] = useState<Running[]>([]);
  const lastId = useRef(0);
  const act = useCallback(async (path: string, body: object, schema?: Schema<object>) => {
    const answer = await new Promise<unknown>((resolve) => {
      const id = ++lastId.current;
      setRunning((all) => [...all, { id, path, body, resolve }]);
    });
    const unread = { ok: false as const, problem: t("theServersAnswerCouldNotBe"), status: 200 };
    try {
      const refused = await refusalOf(answer);
      if (refused) return { ok: false as const, ...refused };
      if (!schema)
        return typeof answer === "object" && answer !== null ? { ok: true as const, data: answer } : unread;
      const read = (typeof schema === "function" ? await schema() : schema).safeParse(answer);
      return read.success ? { ok: true as const, data: read.data } : unread;
    } catch {
      return unread; // What reads it could not be fetched.
    }
  }, []) as Act;
  return (
    <ActContext value={act}>
      {children}
      {running.map((one) => (
        <UnderWay
          key={one.id}
          act={one}
          onDone={() => setRunning((all) => all.filter(({ id }) => id !== one.id))}
        />
      ))}
    </ActContext>
  );
}

function UnderWay({ act, onDone }: { act: Running; onDone: () => void }) {
  const { submit, state, data } = useFetcher<unknown>();
  const begun = useRef(false);
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    const { path, body } = act;
    void (body instanceof FormData
      ? submit(body, { method: "post", action: path, encType: "multipart/form-data" })
      : submit(body as SubmitTarget, { method: "post", action: path, encType: "application/json" }));
  }, [act, submit]);
  useEffect(() => {
    if (data === undefined || state === "submitting") return;
    // Answered already while screens are still loaded again; a promise settles once.
    act.resolve(data);
    if (state === "idle") onDone();
  }, [act, data, state, onDone]);
  return null;
}
