import { useCallback, useEffect, useRef, useState } from "react";
import * as z from "zod/mini";
import type { FilingChange } from "#core/forms/library";
import type { Content, ContentInput } from "#server/replies/content";
import type { OpenReply } from "#server/writing/open";
import { KeptInBrowser } from "../../ui/kept";
import { usePerson } from "../../ui/use-person";
import { Saver, type SaveState } from "../../ui/saver";
import { filingChange } from "./unpublished";

const saved = z.object({ version: z.number() });

/** What is written of a reply: what it says, and how it is to be filed otherwise. */
interface Written {
  content: Content;
  filing: FilingChange;
}

const written: z.ZodMiniType<Written> = z.object({
  // What it holds is looked at by the server, as whatever a screen sends.
  content: z.custom<Content>((value) => typeof value === "object" && value !== null && "variants" in value),
  filing: z.custom<FilingChange>((value) => typeof value === "object" && value !== null),
});

/** Where the browser keeps what a person wrote of a reply and is not stored yet. */
function keptReply(key: string, person: number): KeptInBrowser<Written> {
  return new KeptInBrowser(`reply:${key}:${person}`, written);
}

export type ChangeContent = (change: (content: Content) => Content) => void;

export interface ReplyHandle {
  content: Content;
  change: ChangeContent;
  /** Sets how it is to be filed otherwise than it is. */
  file: (change: FilingChange) => void;
  saveState: SaveState;
  /** Saves what is not saved yet. @returns the revision that is stored; null where it could not be saved */
  settle: () => Promise<number | null>;
  /** What was written has been sent off: nothing more is saved from here. */
  stop: () => void;
  saver: () => Saver<z.infer<typeof saved>> | null;
  /** What the browser had kept and was put back when the reply was opened; null for nothing. */
  back: Written | null;
}

/** The reply under way: what it says, saved as a working copy as one types. */
export function useReply(open: OpenReply): ReplyHandle {
  const person = usePerson();
  const [back, setBack] = useState<Written | null>(null);
  const [content, setContent] = useState(open.content);
  const [saveState, setSaveState] = useState<SaveState>(open.revision > 0 ? "saved" : "nothing");
  const latest = useRef<Written>({
    content: open.content,
    filing: filingChange(open.filed, open.filing),
  });
  const saver = useRef<Saver<z.infer<typeof saved>> | null>(null);
  const [opened] = useState(open);

  useEffect(() => {
    const made = new Saver({
      version: opened.revision,
      answer: saved,
      onState: setSaveState,
      keeping: keptReply(opened.key, person).keeping(() => latest.current),
      request: ({ version: revision, keepalive, signal }) =>
        fetch(`/replies/${opened.key}/save`, {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify({
            revision,
            baseId: opened.baseId,
            content: input(latest.current.content),
            ...(opened.mayFile ? { filing: latest.current.filing } : {}),
          }),
          keepalive,
          signal,
        }),
    });
    saver.current = made;
    const looking = setTimeout(() => {
      const kept = keptReply(opened.key, person).find();
      if (kept?.version !== opened.revision) return;
      // Nothing was stored since: what this browser kept goes on from there.
      latest.current = kept.kept;
      setContent(kept.kept.content);
      setBack(kept.kept);
      made.touch();
    });
    return () => {
      clearTimeout(looking);
      made.leave();
    };
  }, [opened, person]);

  const current = useCallback(() => saver.current, []);

  const change = useCallback<ChangeContent>((how) => {
    const next = how(latest.current.content);
    if (next === latest.current.content) return;
    latest.current = { ...latest.current, content: next };
    setContent(next);
    saver.current?.touch();
  }, []);

  const file = useCallback((filing: FilingChange) => {
    latest.current = { ...latest.current, filing };
    saver.current?.touch();
  }, []);

  const settle = useCallback(async () => {
    const kept = saver.current;
    if (!kept) return null;
    // A reply that is published as it was opened has no working copy yet.
    if (kept.version === 0) kept.touch();
    return (await kept.flush()) ? kept.version : null;
  }, []);

  return {
    content,
    change,
    file,
    saveState,
    settle,
    stop: () => saver.current?.stop(),
    saver: current,
    back,
  };
}

/** What is sent: files by their ids; pictures are known by the words. */
function input({ files, pictures: _pictures, ...content }: Content): ContentInput {
  return { ...content, files: files.map((file) => file.id) };
}
