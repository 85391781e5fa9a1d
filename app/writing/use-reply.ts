import { useCallback, useEffect, useRef, useState } from "react";
import * as z from "zod/mini";
import type { Content, ContentInput } from "#server/replies/content";
import type { OpenReply } from "#server/replies/open-writing";
import { Saver, type SaveState } from "../ui/saver";

const saved = z.object({ version: z.number() });

export type ChangeContent = (change: (content: Content) => Content) => void;

export interface ReplyHandle {
  content: Content;
  change: ChangeContent;
  saveState: SaveState;
  /** Saves what is not saved yet. @returns the revision that is stored; null where it could not be saved */
  settle: () => Promise<number | null>;
  /** What was written has been sent off: nothing more is saved from here. */
  stop: () => void;
}

/** The reply under way: what it says, saved as a working copy as one types. */
export function useReply(open: OpenReply): ReplyHandle {
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
      request: (revision, keepalive) =>
        fetch(`/replies/${opened.key}/save`, {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify({ revision, baseId: opened.baseId, content: input(latest.current) }),
          keepalive,
        }),
    });
    saver.current = made;
    const leave = () => made.leave();
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      made.leave();
    };
  }, [opened]);

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

  return { content, change, saveState, settle, stop: () => saver.current?.stop() };
}

/** What is sent: files by their ids; pictures are known by the words. */
function input({ files, pictures: _pictures, ...content }: Content): ContentInput {
  return { ...content, files: files.map((file) => file.id) };
}
