import type { ReactNode } from "react";
import { t } from "../words/account";

/** The page before the desk: who comes in says who they are. */
export function Door({ title, words, children }: { title: string; words: ReactNode; children: ReactNode }) {
  return (
    <main className="flex min-h-dvh flex-col items-center justify-center px-4">
      <title>{t("titlePlainShelf", { title })}</title>
      <div className="w-full max-w-sm bg-sheet px-9 pt-8 pb-10">
        <h1 className="inline-block border-b-4 border-accent text-xl font-bold">{t("plainShelf")}</h1>
        <p className="mt-3 font-serif text-letter text-soft">{words}</p>
        {children}
      </div>
      <div className="h-1.5 w-full max-w-md bg-board" />
    </main>
  );
}

/** What went wrong, before anything else on the page. */
export function DoorProblem({ words }: { words: string | null | undefined }) {
  return words == null ? null : (
    <p role="alert" className="border-l-[3px] border-stop bg-stop-wash px-3 py-2 text-stop">
      {words}
    </p>
  );
}
