import { lazy, Suspense, useState } from "react";
import type { OpenCase } from "#server/answering/open";
import { useAct } from "../../ui/act";
import { Kbd } from "../../ui/kbd";
import { NoteWords } from "../../ui/note-words";
import { Time } from "../../ui/time";
import { useToast } from "../../ui/toast";
import { usePerson } from "../../ui/use-person";
import { useShortcut } from "../../ui/use-shortcut";
import { t } from "../../words/answering";
import type { WrittenNote } from "./note-editor";

const NoteEditor = lazy(() => import("./note-editor"));

/** What colleagues told each other on a case. It stands apart from what is said with the customer, and looks it. */
export function Notes({ open }: { open: Pick<OpenCase, "number" | "notes"> }) {
  const [writing, setWriting] = useState(false);
  const act = useAct();
  const toast = useToast();
  const person = usePerson();
  useShortcut("note", () => setWriting(true));
  const keep = async ({ text, mentions }: WrittenNote) => {
    const done = await act(`/cases/${open.number}/note`, { text, mentions });
    if (done.ok) setWriting(false);
    else toast({ words: done.problem, tone: "stop" });
    return done.ok;
  };
  if (!writing && open.notes.length === 0)
    return (
      <p className="mt-2 flex items-baseline gap-2 text-sm">
        <button
          type="button"
          className="text-soft underline underline-offset-2"
          onClick={() => setWriting(true)}
        >
          {t("writeANote")}
        </button>
        <Kbd keys="Alt N" />
      </p>
    );
  return (
    <section
      aria-label={t("betweenUs")}
      className="mt-3 border border-dashed border-board bg-desk px-3 py-2 text-[13px]"
    >
      <h2 className="flex items-baseline gap-3">
        <span className="font-bold">{t("betweenUs")}</span>
        <span className="text-soft">{t("neverSent")}</span>
        {!writing && (
          <button type="button" className="quiet-link ml-auto" onClick={() => setWriting(true)}>
            {t("writeANote")}
          </button>
        )}
        {writing ? <Kbd keys="Alt Enter" /> : <Kbd keys="Alt N" />}
      </h2>
      {open.notes.map((note) => (
        <p key={note.id} className="mt-1.5 [overflow-wrap:anywhere] whitespace-pre-wrap">
          <strong className="font-semibold">{note.by}</strong> <NoteWords note={note} />{" "}
          <Time at={note.at} className="text-soft" />
        </p>
      ))}
      {writing && (
        <Suspense>
          <NoteEditor
            name={`note of ${person} on ${open.number}`}
            onKeep={keep}
            onLeave={() => setWriting(false)}
          />
        </Suspense>
      )}
    </section>
  );
}
