import { useCallback, useEffect, useRef, useState, useSyncExternalStore } from "react";
import { createPortal } from "react-dom";
import { MOST_CHATS } from "#core/chat/protocol";
import { readDesk } from "#server/chats/desk";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import type { OpenChat } from "#server/chats/desk";
import type { StripReply } from "#server/strip/strip";
import { letterFontLink } from "../ui/fonts";
import { Kbd } from "../ui/kbd";
import { Select } from "../ui/select";
import { useToast } from "../ui/toast";
import { useShortcut } from "../ui/use-shortcut";
import { Strip } from "../answering/strip/strip";
import { useStrip } from "../answering/strip/use-strip";
import type { Route } from "./+types/route";
import { askChat, done } from "./ask";
import { Column } from "./column";
import { ownPiece, sayPiece } from "./pieces";
import { since } from "./since";
import { useDesk } from "./use-desk";
import { useLooked } from "./use-looked";
import { t } from "../words/chats";
import { Sentence } from "../words/sentence";

export const links = () => [letterFontLink];

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(async () => ({ desk: await readDesk(em, viewer, now), now: now.toISOString() }));
}

/** The agent's chats, side by side, and the shelf beneath for the one under the hand. */
export default function Chats({ loaderData }: Route.ComponentProps) {
  const { desk } = loaderData;
  const { chats, typing, reload } = useDesk(desk);
  const [chosen, setChosen] = useState<number | null>(null);
  const active = chats.find((one) => one.chat.number === chosen) ?? chats[0];
  const now = useNow(loaderData.now);
  const toast = useToast();
  const sign = useCallback(
    async (body: object) => {
      const asked = await askChat("/chats/sign", done, body);
      if (!asked.ok) toast({ words: asked.problem, tone: "stop" });
    },
    [toast],
  );
  const last = active?.chat.pieces.at(-1)?.n ?? 0;
  const shown = active?.chat.number;
  useEffect(() => {
    const read = () => {
      if (shown !== undefined && last > 0 && document.visibilityState === "visible")
        void askChat("/chats/sign", done, { what: "read", number: shown, to: last });
    };
    read();
    document.addEventListener("visibilitychange", read);
    return () => document.removeEventListener("visibilitychange", read);
  }, [shown, last]);
  useShortcut("chatByNumber", (event) => {
    const at = chats[Number(event.key) - 1];
    if (at) setChosen(at.chat.number);
  });
  return (
    <main className="flex min-h-0 grow flex-col">
      <title>{t("chatsPlainShelf")}</title>
      <h1 className="sr-only">{t("chats")}</h1>
      <Tools
        limit={desk.limit}
        door={desk.door}
        now={now}
        onLimit={(limit) => void sign({ what: "take", limit })}
      />
      {active === undefined ? (
        <p className="mx-5 grow bg-sheet px-8 py-8 font-serif text-letter text-soft">
          {desk.limit === 0 ? t("youTakeNoChatsJustNow") : t("nobodyIsChattingJustNow")}
        </p>
      ) : (
        <Talks
          // Whatever stands under the hand in one chat stays there while another is looked at.
          chats={chats}
          active={active}
          typing={typing}
          now={now}
          colleagues={desk.colleagues}
          onActive={setChosen}
          onSaid={reload}
          onSign={sign}
        />
      )}
    </main>
  );
}

interface TalksProps {
  chats: OpenChat[];
  active: OpenChat;
  typing: ReadonlySet<number>;
  now: number;
  colleagues: { id: number; name: string }[];
  onActive: (number: number) => void;
  onSaid: (number: number) => Promise<void>;
  onSign: (body: object) => Promise<void>;
}

function Talks({ chats, active, typing, now, colleagues, onActive, onSaid, onSign }: TalksProps) {
  const [words, setWords] = useState<Readonly<Record<number, string>>>({});
  const [problems, setProblems] = useState<Readonly<Record<number, string | null>>>({});
  const toast = useToast();
  const search = useRef<HTMLInputElement>(null);
  const { number } = active.chat;
  const { looked, look, asItStands } = useLooked(active.open);
  const [lookedIn, setLookedIn] = useState<number | null>(null);
  const isLooking = looked !== null && lookedIn === number;
  /** What is being said just now, by chat: pressed twice, it is said once. */
  const busy = useRef(new Set<number>());
  /** The own words that are being said, by chat, one after the other. */
  const line = useRef(new Map<number, Promise<unknown>>());

  const say = async (to: number, key: string, language: string, slips: Parameters<typeof sayPiece>[3]) => {
    if (busy.current.has(to)) return false;
    busy.current.add(to);
    const asked = await sayPiece(to, key, language, slips);
    busy.current.delete(to);
    setProblems((before) => ({ ...before, [to]: asked.ok ? null : asked.problem }));
    if (asked.ok) await onSaid(to);
    return asked.ok;
  };
  const sayOwn = async (chat: OpenChat) => {
    const to = chat.chat.number;
    const text = (words[to] ?? "").trim();
    if (text === "") return;
    // The field is free for the next words at once; those before are said first.
    setWords((before) => ({ ...before, [to]: "" }));
    const { language } = chat.open;
    const said = (line.current.get(to) ?? Promise.resolve()).then(() =>
      say(to, crypto.randomUUID(), language, [ownPiece(text, language)]),
    );
    line.current.set(to, said);
    if (await said) return;
    // What was not said stands there again, before what was written since.
    setWords((before) => ({ ...before, [to]: [text, before[to] ?? ""].filter(Boolean).join("\n") }));
  };
  const focusComposer = () =>
    requestAnimationFrame(() =>
      document.querySelector<HTMLElement>('section[data-active="true"] textarea')?.focus(),
    );
  const sendLooked = async () => {
    if (!looked) return;
    const stop = looked.checks.find((one) => one.severity === "stop");
    if (stop) {
      setProblems((before) => ({ ...before, [number]: stop.message }));
      return;
    }
    if (await say(number, looked.slip.id, looked.slip.language, [looked.slip])) {
      look(null);
      search.current?.focus();
    }
  };
  const lookFirst = (reply: StripReply) => {
    setLookedIn(number);
    setProblems((before) => ({ ...before, [number]: null }));
    look(reply);
  };
  const sendAtOnce = async (reply: StripReply | null) => {
    if (isLooking) return sendLooked();
    if (!reply) {
      toast({ words: t("chooseAPieceFirst"), tone: "stop" });
      return;
    }
    const { slip, checks } = asItStands(reply);
    const [first] = checks;
    if (first) {
      lookFirst(reply);
      toast({ words: t("lookAtItFirst", { what: first.message }) });
      return;
    }
    await say(number, slip.id, slip.language, [slip]);
  };
  return (
    <>
      <div className="mx-5 flex min-h-0 grow overflow-x-auto bg-sheet max-sm:mx-0">
        {chats.map((one, index) => (
          <Column
            key={one.chat.number}
            chat={one.chat}
            place={index + 1}
            isActive={one.chat.number === number}
            isTyping={typing.has(one.chat.number)}
            now={now}
            colleagues={colleagues}
            words={words[one.chat.number] ?? ""}
            looked={lookedIn === one.chat.number && one.chat.number === number ? looked : null}
            problem={problems[one.chat.number] ?? null}
            onWords={(next) => setWords((before) => ({ ...before, [one.chat.number]: next }))}
            onActive={() => onActive(one.chat.number)}
            onSay={() => void sayOwn(one)}
            onSendLooked={() => void sendLooked()}
            onPutBack={() => {
              look(null);
              search.current?.focus();
            }}
            onOtherwise={(text) => {
              setWords((before) => ({ ...before, [number]: text }));
              look(null);
              focusComposer();
            }}
            onEnd={() => void onSign({ what: "end", number: one.chat.number })}
            onHandOver={(to) => void onSign({ what: "hand over", number: one.chat.number, to })}
            onShelf={() => search.current?.focus()}
          />
        ))}
      </div>
      {active.chat.state === "open" && (
        <ChatShelf
          key={`${number} ${active.open.lastMessage}`}
          chat={active}
          search={search}
          onLook={lookFirst}
          onAtOnce={(reply) => void sendAtOnce(reply)}
          onLeave={focusComposer}
        />
      )}
    </>
  );
}

/** The replies for the chat under the hand. */
function ChatShelf({
  chat,
  search,
  onLook,
  onAtOnce,
  onLeave,
}: {
  chat: OpenChat;
  search: React.RefObject<HTMLInputElement | null>;
  onLook: (reply: StripReply) => void;
  onAtOnce: (reply: StripReply | null) => void;
  onLeave: () => void;
}) {
  const strip = useStrip(chat.open);
  useShortcut("send", () => onAtOnce(strip.chosen), { capture: true });
  return (
    <Strip
      began
      strip={strip}
      search={search}
      taken={NOTHING}
      keysGoTo={null}
      onSide={() => search.current?.focus()}
      onLook={() => undefined}
      onTake={onLook}
      onLeave={onLeave}
      hints={
        <>
          <span className="basis-full">
            <Sentence
              of={t}
              name="forNameChatPieces"
              values={{ name: chat.chat.customer }}
              parts={[<strong key="0" className="text-ink" />]}
            />
          </span>
          <span>
            <Sentence of={t} name="lookFirst" parts={[<Kbd key="0" keys="Enter" />]} />
          </span>
          <span>
            <Sentence of={t} name="sendAtOnce" parts={[<Kbd key="0" keys="Ctrl Enter" />]} />
          </span>
        </>
      }
    />
  );
}

const NOTHING: ReadonlySet<string> = new Set();

/** How many chats one takes, and who waits, in the line at the top. */
function Tools({
  limit,
  door,
  now,
  onLimit,
}: {
  limit: number;
  door: { count: number; since: string } | null;
  now: number;
  onLimit: (limit: number) => void;
}) {
  const place = useSyncExternalStore(
    () => () => undefined,
    () => document.getElementById("place-tools"),
    () => null,
  );
  if (!place) return null;
  const counts = Array.from({ length: MOST_CHATS + 1 }, (_, count) => count);
  return createPortal(
    <>
      <span role="status" className="mr-4">
        {door === null
          ? t("nobodyAtTheDoor")
          : t("waitAtTheDoor", { count: door.count, since: since(now - Date.parse(door.since)) })}
      </span>
      <span>{t("iTakeUpTo")}</span>
      <Select
        label={t("iTakeUpTo")}
        value={String(limit)}
        options={counts.map(
          (count) => [String(count), count === 0 ? t("noChats") : t("countChats", { count })] as const,
        )}
        onChange={(next) => onLimit(Number(next))}
      />
    </>,
    place,
  );
}

/** The clock, every second; the server’s when the page came. */
function useNow(loaded: string): number {
  const [now, setNow] = useState(() => Date.parse(loaded));
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  return now;
}
