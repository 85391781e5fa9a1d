import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { MOST_PIECE, type Piece } from "#core/chat/protocol";
import type { DeskChat } from "#server/chats/desk";
import { Kbd } from "../ui/kbd";
import { Select } from "../ui/select";
import { askChat, done } from "./ask";
import { Looked } from "./looked";
import { since } from "./since";
import type { LookedAt } from "./use-looked";
import { t } from "../words/chats";

interface Props {
  chat: DeskChat;
  /** Its place from the left, from 1. */
  place: number;
  isActive: boolean;
  isTyping: boolean;
  /** Milliseconds since 1970, as the screen counts them. */
  now: number;
  colleagues: { id: number; name: string }[];
  /** Words under the hand, which stay while one is elsewhere. */
  words: string;
  looked: LookedAt | null;
  problem: string | null;
  onWords: (words: string) => void;
  onActive: () => void;
  onSay: () => void;
  onSendLooked: () => void;
  onPutBack: () => void;
  onOtherwise: (text: string) => void;
  onEnd: () => void;
  onHandOver: (to: number) => void;
  onShelf: () => void;
}

/** Windows that were not heard of for so long are gone. */
const GONE_MS = 40_000;
/** Silence of a customer that is told. */
const QUIET_MS = 3 * 60_000;
/** Waiting that is told as long. */
const LONG_MS = 60_000;

/** One chat: who it is, what was said, and where one writes. */
export function Column(props: Props) {
  const { chat, place, isActive, isTyping, onActive, looked } = props;
  const end = useRef<HTMLLIElement>(null);
  const last = chat.pieces.at(-1)?.n ?? 0;
  useEffect(() => {
    end.current?.scrollIntoView({ block: "end" });
  }, [last, isTyping]);
  return (
    // The keyboard has Alt and the chat's number, and Tab: whose field has the focus is the one that the shelf is for.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions, jsx-a11y/click-events-have-key-events
    <section
      aria-label={t("chatWithName", { name: chat.customer })}
      data-active={isActive}
      className={`flex min-h-0 w-full min-w-[19rem] flex-1 flex-col border-t-[3px] border-r border-r-line px-4.5 ${isActive ? "border-t-accent bg-sheet" : "border-t-transparent bg-desk/45"}`}
      onClick={onActive}
      onFocus={onActive}
    >
      <Head {...props} place={place} />
      <ol
        aria-label={t("chatWithName", { name: chat.customer })}
        className="flex grow flex-col gap-2.5 overflow-y-auto py-3"
      >
        {chat.pieces.map((piece) => (
          <PieceView key={piece.n} piece={piece} chat={chat} />
        ))}
        {isTyping && chat.state === "open" && (
          <li className="font-serif text-letter text-soft italic">
            {t("nameIsWriting", { name: chat.customer })}
          </li>
        )}
        <li ref={end} aria-hidden="true" />
      </ol>
      <div className="border-t border-ink py-3">
        {chat.state === "ended" ? (
          <p className="text-soft">
            {chat.mailedTo === null ? t("theTalkHasEnded") : t("theTalkWentTo", { address: chat.mailedTo })}{" "}
            <Link to={`/cases/${chat.number}`} className="quiet-link">
              {t("openTheCase")}
            </Link>
          </p>
        ) : looked ? (
          <Looked
            looked={looked}
            onSend={props.onSendLooked}
            onBack={props.onPutBack}
            onOtherwise={props.onOtherwise}
          />
        ) : (
          <Composer {...props} />
        )}
        {props.problem !== null && (
          <p
            role="alert"
            className="mt-1.5 border-l-[3px] border-stop bg-stop-wash px-2 py-1 text-sm text-stop"
          >
            {t("notSaidProblem", { problem: props.problem })}
          </p>
        )}
      </div>
    </section>
  );
}

function Head({ chat, place, now, colleagues, onEnd, onHandOver }: Props) {
  const waits = chat.waitingSince === null ? 0 : now - Date.parse(chat.waitingSince);
  const quiet = now - Date.parse(chat.saidAt);
  const isGone = chat.state === "open" && now - Date.parse(chat.seenAt) > GONE_MS;
  return (
    <header className="border-b border-line pt-2.5 pb-2 text-sm">
      <p className="flex items-baseline gap-2">
        <strong className="text-base">{chat.customer}</strong>
        <span className="truncate text-soft">{chat.bookingReference ?? t("noBookingNamed")}</span>
        <span className="ml-auto whitespace-nowrap">
          {chat.state === "ended" ? (
            <span className="text-soft">{t("ended")}</span>
          ) : isGone ? (
            <span className="text-look">{t("isGone")}</span>
          ) : waits > 0 ? (
            <span className={waits > LONG_MS ? "font-semibold text-look" : "text-soft"}>
              {t("waitsTime", { time: since(waits) })}
            </span>
          ) : quiet > QUIET_MS ? (
            <span className="text-soft">{t("quietTime", { time: since(quiet) })}</span>
          ) : null}
        </span>
        <Kbd keys={`Alt ${place}`} />
      </p>
      {chat.handedOver && <p className="text-soft">{t("wasHandedOver")}</p>}
      {chat.email !== null && (
        <p className={`[overflow-wrap:anywhere] ${chat.emailOf === null ? "text-soft" : "text-look"}`}>
          {chat.emailOf === null
            ? t("giveTheAddress", { address: chat.email })
            : t("giveTheAddressOf", { address: chat.email, owner: chat.emailOf })}
        </p>
      )}
      {chat.page !== null && <p className="truncate text-soft">{t("fromThePage", { page: chat.page })}</p>}
      {chat.state === "open" && (
        <p className="mt-0.5 flex items-baseline gap-4">
          <Link to={`/cases/${chat.number}`} className="text-soft underline underline-offset-2">
            {t("openTheCase")}
          </Link>
          <button type="button" className="text-soft underline underline-offset-2" onClick={onEnd}>
            {t("endIt")}
          </button>
          {colleagues.length > 0 && (
            <Select
              label={t("handItTo")}
              value=""
              placeholder={t("handItTo")}
              options={colleagues.map(({ id, name }) => [String(id), name] as const)}
              onChange={(id) => onHandOver(Number(id))}
              className="text-soft underline underline-offset-2"
            />
          )}
        </p>
      )}
    </header>
  );
}

function PieceView({ piece, chat }: { piece: Piece; chat: DeskChat }) {
  const ours = piece.from === "us";
  const clock = new Date(piece.at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
  const state = piece.n <= chat.seenTo ? t("readIt") : piece.n <= chat.gotTo ? t("arrived") : t("onItsWay");
  return (
    <li
      className={`max-w-[92%] font-serif text-letter leading-snug ${ours ? "self-end border-r-[3px] border-accent pr-2.5 text-right" : "self-start border-l-[3px] border-board pl-2.5"}`}
    >
      <span className="whitespace-pre-wrap [overflow-wrap:anywhere]">{piece.text}</span>
      {piece.files.map(({ name }) => (
        <span key={name} className="block font-sans text-sm">
          {name}
        </span>
      ))}
      {ours && (
        <span className="block font-sans text-xs text-soft" suppressHydrationWarning>
          {`${state} ${clock}`}
        </span>
      )}
    </li>
  );
}

function Composer({ chat, isActive, words, onWords, onSay, onShelf }: Props) {
  const field = useRef<HTMLTextAreaElement>(null);
  const [told, setTold] = useState(0);
  const wasActive = useRef(isActive);
  useEffect(() => {
    // Who comes to the chat writes in it; whoever is on its shelf stays there.
    const isNew = isActive && (!wasActive.current || document.activeElement === document.body);
    wasActive.current = isActive;
    if (isNew) field.current?.focus({ preventScroll: true });
  }, [isActive]);
  return (
    <textarea
      ref={field}
      aria-label={t("writeOrTakeFromTheShelf")}
      placeholder={t("writeOrTakeFromTheShelf")}
      rows={Math.min(6, Math.max(2, words.split("\n").length))}
      maxLength={MOST_PIECE}
      className="w-full resize-none bg-transparent font-serif text-letter outline-offset-4"
      value={words}
      onChange={(event) => {
        onWords(event.target.value);
        const now = Date.now();
        if (now - told < 2500) return;
        setTold(now);
        void askChat("/chats/sign", done, { what: "typing", number: chat.number });
      }}
      onKeyDown={(event) => {
        if (event.nativeEvent.isComposing) return;
        if (event.key === "Enter" && !event.shiftKey && !event.ctrlKey && !event.metaKey) {
          event.preventDefault();
          if (words.trim() === "") onShelf();
          else onSay();
        }
        if (event.key === "Escape") onShelf();
      }}
    />
  );
}
