import { useCallback, useEffect, useRef, useState, useSyncExternalStore, type SubmitEvent } from "react";
import { ChatLine, type LineState, type Reaching } from "#core/chat/line";
import { MOST_PIECE, type Piece } from "#core/chat/protocol";
import { lastPiece } from "#core/chat/talk";
import { Button } from "../ui/button";
import { Answers } from "./answers";
import { t } from "../words/public";

/** For so long a connection holds that is to be lost, in milliseconds. */
const DROPS_AFTER_MS = 3000;

/** The browser's way to the program. */
function reachingFor(token: string, drops: boolean): Reaching {
  return {
    connect:
      typeof WebSocket === "undefined"
        ? null
        : ({ onOpen, onMessage, onClose }) => {
            const socket = new WebSocket(`${location.origin.replace(/^http/, "ws")}/chat/socket`);
            socket.onopen = onOpen;
            socket.onmessage = ({ data }) => onMessage(String(data));
            socket.onclose = ({ code }) => onClose(code);
            if (drops) setTimeout(() => socket.close(), DROPS_AFTER_MS);
            return socket;
          },
    async ask(path, init) {
      const answer = await fetch(path, {
        ...init,
        headers: { "Content-Type": "application/json", Authorization: `Bearer ${token}` },
        signal: AbortSignal.timeout(10_000),
      });
      return { status: answer.status, body: (await answer.json()) as unknown };
    },
    now: () => Date.now(),
    after(milliseconds, work) {
      const timer = setTimeout(work, milliseconds);
      return () => clearTimeout(timer);
    },
  };
}

const nothing: LineState = {
  talk: { pieces: [], ahead: [], unsent: [] },
  chat: null,
  isReached: true,
  typingAt: 0,
  problem: null,
};

interface TalkingProps {
  token: string;
  /** Whether the connection is to be lost again and again, to see how the window bears it. */
  drops: boolean;
  onAgain: () => void;
}

/** A chat that was begun: its pieces, and what is said next. */
export function Talking({ token, drops, onAgain }: TalkingProps) {
  const [line] = useState(() => new ChatLine(token, reachingFor(token, drops)));
  const state = useSyncExternalStore(
    useCallback((changed) => line.listen(changed), [line]),
    () => line.state,
    () => nothing,
  );
  useEffect(() => {
    line.start();
    return () => line.stop();
  }, [line]);
  const { talk, chat, isReached, problem } = state;
  const last = lastPiece(talk);
  useEffect(() => {
    const look = () => {
      if (document.visibilityState === "visible" && last > 0) line.read();
    };
    look();
    document.addEventListener("visibilitychange", look);
    return () => document.removeEventListener("visibilitychange", look);
  }, [line, last]);
  const end = useRef<HTMLLIElement>(null);
  useEffect(() => {
    end.current?.scrollIntoView({ block: "end" });
  }, [last, talk.unsent.length, state.typingAt]);
  const isTyping = useIsRecent(state.typingAt);
  const hasEnded = chat?.state === "ended" || problem !== null;
  return (
    <>
      <p role="status" className="border-b border-line px-4 py-2 text-sm text-soft">
        {problem ??
          (!isReached
            ? t("weAreConnectingAgain")
            : chat?.state === "waiting"
              ? t("placeAtTheDoor", { count: chat.place ?? 1 })
              : chat?.state === "open"
                ? t("isWithYou", { name: chat.with ?? t("somebody") })
                : chat?.state === "ended"
                  ? t("theChatHasEnded")
                  : "")}
      </p>
      <ol
        aria-label={t("theTalk")}
        className="flex grow flex-col gap-3 overflow-y-auto px-4 py-4"
        aria-live="polite"
      >
        {talk.pieces.map((piece) => (
          <PieceView
            key={piece.n}
            piece={piece}
            isRead={piece.n <= (chat?.readTo ?? 0)}
            token={token}
            line={line}
          />
        ))}
        {talk.unsent.map(({ key, text, problem: refused }) => (
          <li key={key} className="max-w-[85%] self-end border-r-[3px] border-line pr-3 text-right">
            <span className="font-serif text-letter whitespace-pre-wrap [overflow-wrap:anywhere]">
              {text}
            </span>
            <span className={`block text-xs ${refused === null ? "text-soft" : "text-stop"}`}>
              {refused ?? t("notSentYet")}
            </span>
          </li>
        ))}
        {isTyping && (
          <li className="font-serif text-soft italic">
            {t("isWriting", { name: chat?.with ?? t("somebody") })}
          </li>
        )}
        <li ref={end} aria-hidden="true" />
      </ol>
      {hasEnded ? (
        <p className="border-t border-line px-4 py-4">
          {chat?.mailedTo != null && `${t("theTalkWentTo", { address: chat.mailedTo })} `}
          <button type="button" className="quiet-link" onClick={onAgain}>
            {t("beginAnother")}
          </button>
        </p>
      ) : (
        <Composer line={line} />
      )}
    </>
  );
}

/** Whether something was so within the last seconds. */
function useIsRecent(at: number): boolean {
  const [over, setOver] = useState(0);
  useEffect(() => {
    if (at === 0) return;
    const timer = setTimeout(() => setOver(at), 5000);
    return () => clearTimeout(timer);
  }, [at]);
  return at !== 0 && over !== at;
}

/** The answers to a question of a piece, to be pressed beside it. */
function PieceQuestion({ asked, line }: { asked: Piece["asks"][number]; line: ChatLine }) {
  const [isAnswered, setAnswered] = useState(asked.answered);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  if (isAnswered) return <p className="text-sm text-soft">{t("thankYouWeHaveYourAnswer")}</p>;
  const press = async (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    const fields = new FormData(event.currentTarget, event.nativeEvent.submitter);
    const said = (name: string) => {
      const value = fields.get(name);
      return typeof value === "string" ? value : "";
    };
    setBusy(true);
    const refused = await line.press(asked.id, said("answer"), said("remark"));
    setBusy(false);
    if (refused === null) setAnswered(true);
    else setProblem(t("thatDidNotGoThrough", { problem: refused || t("nobodyAnswers") }));
  };
  return (
    <form aria-label={asked.words} className="mt-2" onSubmit={(event) => void press(event)}>
      <Answers question={asked} busy={isBusy} />
      {problem !== null && (
        <p role="alert" className="mt-2 text-sm text-stop">
          {problem}
        </p>
      )}
    </form>
  );
}

interface PieceProps {
  piece: Piece;
  isRead: boolean;
  token: string;
  line: ChatLine;
}

function PieceView({ piece, isRead, token, line }: PieceProps) {
  const ours = piece.from === "us";
  const fetchFile = async (href: string, name: string) => {
    const answer = await fetch(href, { headers: { Authorization: `Bearer ${token}` } });
    const link = document.createElement("a");
    link.href = URL.createObjectURL(await answer.blob());
    link.download = name;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <li
      className={`max-w-[85%] ${ours ? "border-l-[3px] border-accent pl-3" : "self-end border-r-[3px] border-board pr-3 text-right"}`}
    >
      <span className="sr-only">{ours ? piece.name : t("you")}: </span>
      <span className="font-serif text-letter whitespace-pre-wrap [overflow-wrap:anywhere]">
        {piece.text}
      </span>
      {piece.files.map(({ name, href }) => (
        <button
          key={href}
          type="button"
          className="quiet-link block"
          onClick={() => void fetchFile(href, name)}
        >
          {name}
        </button>
      ))}
      {piece.asks.map((asked) => (
        <PieceQuestion key={asked.id} asked={asked} line={line} />
      ))}
      <span className="block text-xs text-soft">{ours ? piece.name : isRead ? t("read") : t("sent")}</span>
    </li>
  );
}

function Composer({ line }: { line: ChatLine }) {
  const [text, setText] = useState("");
  const told = useRef(0);
  const say = () => {
    const words = text.trim();
    if (words === "") return;
    line.say(crypto.randomUUID(), words);
    setText("");
  };
  return (
    <form
      className="flex items-end gap-3 border-t border-line px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        say();
      }}
    >
      <textarea
        aria-label={t("writeHere")}
        placeholder={t("writeHere")}
        rows={2}
        autoFocus
        maxLength={MOST_PIECE}
        className="boxed-field grow font-serif text-letter"
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          if (Date.now() - told.current > 2500) {
            told.current = Date.now();
            line.typing();
          }
        }}
        onKeyDown={(event) => {
          if (event.key !== "Enter" || event.shiftKey || event.nativeEvent.isComposing) return;
          event.preventDefault();
          say();
        }}
      />
      <div className="flex flex-col items-end gap-2">
        <Button type="submit">{t("say")}</Button>
        <button type="button" className="text-sm text-soft underline" onClick={() => void line.end()}>
          {t("endTheChat")}
        </button>
      </div>
    </form>
  );
}
