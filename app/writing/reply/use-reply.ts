import { useCallback, useEffect, useRef, useState } from "react";
import * as z from "zod/mini";
import type { Content, ContentInput } from "#server/replies/content";
import type { OpenReply } from "#server/writing/open";
import { KeptInBrowser } from "../../ui/kept";
import { usePerson } from "../../ui/use-person";
import { Saver, type SaveState } from "../../ui/saver";

const saved = z.object({ version: z.number() });

/** Where the browser keeps a person's words in a reply that are not stored yet. */
function keptContent(key: string, person: number): KeptInBrowser<Content> {
  return new KeptInBrowser(
    `reply:${key}:${person}`,
    z.custom<Content>((value) => typeof value === "object" && value !== null && "variants" in value),
  );
}

export type ChangeContent = (change: (content: Content) => Content) => void;

export interface ReplyHandle {
  content: Content;
  change: ChangeContent;
  saveState: SaveState;
  /** Saves what is not saved yet. @returns the revision that is stored; null where it could not be saved */
  settle: () => Promise<number | null>;
  /** What was written has been sent off: nothing more is saved from here. */
  stop: () => void;
  saver: () => Saver<z.infer<typeof saved>> | null;
  /** What the browser had kept was put back when the reply was opened. */
  isBack: boolean;
}

/** The reply under way: what it says, saved as a working copy as one types. */
export function useReply(open: OpenReply): ReplyHandle {
  const person = usePerson();
  const [isBack, setBack] = useState(false);
  const [content, setContent] = useState(open.content);
  const [saveState, setSaveState] = useState<SaveState>(open.revision > 0 ? "saved" : "nothing");
  const latest = useRef(open.content);
  const saver = useRef<Saver<z.infer<typeof saved>> | null>(null);
  const [opened] = useState(open);

  useEffect(() => {
    const made = new Saver({
      version: opened.revision,
      answer: saved,
      onState: setSaveState,
      keeping: keptContent(opened.key, person).keeping(() => latest.current),
      request: ({ version: revision, keepalive, signal }) =>
        fetch(`/replies/${opened.key}/save`, {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify({ revision, baseId: opened.baseId, content: input(latest.current) }),
          keepalive,
          signal,
        }),
    });
    saver.current = made;
    const looking = setTimeout(() => {
      const kept = keptContent(opened.key, person).find();
      if (kept?.version !== opened.revision) return;
      // Nothing was stored since: what this browser kept goes on from there.
      latest.current = kept.kept;
      setContent(kept.kept);
      setBack(true);
      made.touch();
    });
    return () => {
      clearTimeout(looking);
      made.leave();
    };
  }, [opened, person]);

  const current = useCallback(() => saver.current, []);

  const change = useCallback<ChangeContent>((how) => {
    const next = how(latest.current);
    if (next === latest.current) return;
    latest.current = next;
    setContent(next);
    saver.current?.touch();
  }, []);

  const settle = useCallback(async () => {
    const kept = saver.current;
    if (!kept) return null;
    // A reply that is published as it was opened has no working copy yet.
    if (kept.version === 0) kept.touch();
    return (await kept.flush()) ? kept.version : null;
  }, []);

  return { content, change, saveState, settle, stop: () => saver.current?.stop(), saver: current, isBack };
}

/** What is sent: files by their ids; pictures are known by the words. */
function input({ files, pictures: _pictures, ...content }: Content): ContentInput {
  return { ...content, files: files.map((file) => file.id) };
}
