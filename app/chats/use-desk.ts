import { useCallback, useEffect, useRef, useState } from "react";
import { useRevalidator } from "react-router";
import * as z from "zod/mini";
import type { Desk, OpenChat } from "#server/chats/desk";
import { askChat } from "./ask";

const TYPING_MS = 5000;

const happening = z.object({
  case: z.number(),
  chat: z.object({ what: z.enum(["pieces", "typing", "read", "state"]), by: z.enum(["us", "them"]) }),
});

/** What the server answers of a chat, as it wrote it. */
const asOpen = z.custom<OpenChat>((value) => typeof value === "object" && value !== null && "chat" in value);

/** The viewer's chats, kept current: each is loaded again by itself when something happens in it. */
export function useDesk(loaded: Desk): {
  chats: OpenChat[];
  /** Numbers of the chats whose customers are writing. */
  typing: ReadonlySet<number>;
  reload: (number: number) => Promise<void>;
} {
  const { revalidate } = useRevalidator();
  const [fresh, setFresh] = useState<{ of: Desk; chats: ReadonlyMap<number, OpenChat> }>({
    of: loaded,
    chats: new Map(),
  });
  const [typing, setTyping] = useState<ReadonlySet<number>>(new Set());
  // What was loaded anew is newer than what was brought since the last time.
  const brought = fresh.of === loaded ? fresh.chats : new Map<number, OpenChat>();
  const latest = useRef(loaded);
  useEffect(() => {
    latest.current = loaded;
  }, [loaded]);

  const reload = useCallback(async (number: number) => {
    const now = await askChat(`/chats/${number}/now`, asOpen);
    if (!now.ok) return;
    setFresh((before) => {
      const chats = new Map(before.of === latest.current ? before.chats : []);
      chats.set(number, now.data);
      return { of: latest.current, chats };
    });
  }, []);

  useEffect(() => {
    const source = new EventSource("/events?chats=1");
    const timers = new Map<number, ReturnType<typeof setTimeout>>();
    let everything: ReturnType<typeof setTimeout> | undefined;
    const loadAll = () => {
      clearTimeout(everything);
      everything = setTimeout(() => void revalidate(), 150);
    };
    source.addEventListener("chat", (event: MessageEvent<string>) => {
      const read = z.safeParse(happening, JSON.parse(event.data));
      if (!read.success) return;
      const { case: number, chat } = read.data;
      const isOurs = latest.current.chats.some((one) => one.chat.number === number);
      if (chat.what === "typing") {
        if (chat.by !== "them" || !isOurs) return;
        setTyping((before) => new Set(before).add(number));
        clearTimeout(timers.get(number));
        timers.set(
          number,
          setTimeout(
            () => setTyping((before) => new Set([...before].filter((one) => one !== number))),
            TYPING_MS,
          ),
        );
        return;
      }
      if (chat.what === "read") {
        if (isOurs && chat.by === "them") void reload(number);
        return;
      }
      // Who has it, and who waits, may be others now.
      if (chat.what === "state") return loadAll();
      if (!isOurs) return;
      if (chat.by === "them") setTyping((before) => new Set([...before].filter((one) => one !== number)));
      void reload(number);
    });
    source.addEventListener("queue", loadAll);
    return () => {
      source.close();
      clearTimeout(everything);
      for (const timer of timers.values()) clearTimeout(timer);
    };
  }, [reload, revalidate]);

  return { chats: loaded.chats.map((one) => brought.get(one.chat.number) ?? one), typing, reload };
}
