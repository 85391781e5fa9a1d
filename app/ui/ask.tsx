import {
  createContext,
  lazy,
  Suspense,
  useCallback,
  useContext,
  useRef,
  useState,
  type ReactNode,
} from "react";

const ConfirmDialog = lazy(async () => ({ default: (await import("./confirm")).ConfirmDialog }));

/** A question that stops what is under way until it is answered. */
export interface Question {
  title: string;
  words: string;
  /** What the button says that goes on. */
  yes: string;
}

/** Asks it. @returns whether to go on */
export type Ask = (question: Question) => Promise<boolean>;

const AskContext = createContext<Ask>(() => Promise.reject(new Error("There is no Questions above")));

export function useAsk(): Ask {
  return useContext(AskContext);
}

/** Shows the questions that are asked below, one at a time. */
export function Questions({ children }: { children: ReactNode }) {
  const [asked, setAsked] = useState<Question | null>(null);
  const answer = useRef<(yes: boolean) => void>(() => undefined);
  const last = useRef<Promise<unknown>>(Promise.resolve());
  const ask = useCallback<Ask>((question) => {
    const mine = last.current.then(
      () =>
        new Promise<boolean>((resolve) => {
          answer.current = (yes) => {
            setAsked(null);
            resolve(yes);
          };
          setAsked(question);
        }),
    );
    last.current = mine;
    return mine;
  }, []);
  return (
    <AskContext value={ask}>
      {children}
      <Suspense fallback={null}>
        {asked && (
          <ConfirmDialog {...asked} onYes={() => answer.current(true)} onNo={() => answer.current(false)} />
        )}
      </Suspense>
    </AskContext>
  );
}
