import * as z from "zod/mini";
import { chatStateSchema, pieceSchema, toWindow, type ChatState, type FromWindow } from "./protocol";
import { emptyTalk, lastPiece, toSayAgain, withPieces, withRefused, withSaid, type Talk } from "./talk";

/** A WebSocket as far as it is used here: the browser's, or that of a program. */
export interface Connection {
  send(data: string): void;
  close(): void;
}

/** What a connection tells. */
interface Listening {
  onOpen: () => void;
  onMessage: (data: string) => void;
  /** @param code RFC 6455, 7.4 */
  onClose: (code: number) => void;
}

/** How a line reaches the program. */
export interface Reaching {
  /** Opens a connection; null where no WebSocket can be had. */
  connect: ((listening: Listening) => Connection) | null;
  /** Asks by a request; rejects where nobody answers. */
  ask: (path: string, init?: { method: string; body: string }) => Promise<{ status: number; body: unknown }>;
  /** Milliseconds since 1970. */
  now: () => number;
  /** Does something later. @returns how to call it off */
  after: (milliseconds: number, work: () => void) => () => void;
}

/** What a window shows. */
export interface LineState {
  talk: Talk;
  chat: ChatState | null;
  /** Whether the program is reached just now. */
  isReached: boolean;
  /** When somebody of us was writing last, in milliseconds; 0 for never. */
  typingAt: number;
  /** Why there is no going on with this chat; null where there is. */
  problem: string | null;
}

const FIRST_WAIT_MS = 300;
const LONGEST_WAIT_MS = 8000;
/** What could not be connected so often is asked by requests meanwhile. */
const GIVE_UP_AFTER = 3;
const ASK_EVERY_MS = 2500;
const HERE_EVERY_MS = 15_000;
const GOT_AFTER_MS = 250;

const gone = 4404;
const asked = z.object({ pieces: z.array(pieceSchema), chat: chatStateSchema });
const kept = z.object({ n: z.int() });
const refusal = z.object({ problem: z.string() });

/**
 * A chat as its window holds it: says what is said until it is kept, takes in what comes, connects again where it was cut
 * off, and asks by requests where it cannot be connected at all. Nothing is lost on the way, nothing stands twice.
 */
export class ChatLine {
  readonly #token: string;
  readonly #reaching: Reaching;
  readonly #listeners = new Set<() => void>();
  #state: LineState = { talk: emptyTalk, chat: null, isReached: false, typingAt: 0, problem: null };
  #socket: Connection | null = null;
  #isOpen = false;
  #failures = 0;
  #isStopped = false;
  #timers = new Set<() => void>();
  #asking = false;
  #gotIsDue = false;

  constructor(token: string, reaching: Reaching) {
    this.#token = token;
    this.#reaching = reaching;
  }

  get state(): LineState {
    return this.#state;
  }

  /** @returns how to listen no more */
  listen(listener: () => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  start(): void {
    this.#isStopped = false;
    if (this.#reaching.connect === null) this.#failures = GIVE_UP_AFTER;
    this.#open();
    this.#every(HERE_EVERY_MS, () => this.#send({ t: "here" }));
    this.#every(ASK_EVERY_MS, () => {
      if (!this.#isOpen && this.#failures >= GIVE_UP_AFTER) void this.#ask();
    });
  }

  stop(): void {
    this.#isStopped = true;
    for (const callOff of this.#timers) callOff();
    this.#timers.clear();
    this.#socket?.close();
    this.#socket = null;
    this.#isOpen = false;
  }

  /** Says something, under a key that no other has. */
  say(key: string, text: string): void {
    this.#set({ talk: withSaid(this.#state.talk, key, text) });
    this.#send({ t: "say", key, text });
  }

  typing(): void {
    this.#send({ t: "typing" });
  }

  /** Presses an answer to a question. @returns why it was not taken; null where it was */
  async press(asked: number, answer: string, remark: string): Promise<string | null> {
    const body = JSON.stringify({ asked, answer, remark });
    const said = await this.#reaching.ask("/chat/press", { method: "POST", body }).catch(() => null);
    if (said === null) return "";
    return said.status < 300 ? null : (refusal.safeParse(said.body).data?.problem ?? "");
  }

  /** All pieces that are here are before the customer's eyes. */
  read(): void {
    const to = lastPiece(this.#state.talk);
    if (this.#isOpen) this.#send({ t: "read", to });
    else if (this.#failures >= GIVE_UP_AFTER)
      void this.#reaching
        .ask("/chat/read", { method: "POST", body: JSON.stringify({ got: to, read: to }) })
        .catch(() => undefined);
  }

  async end(): Promise<void> {
    if (this.#isOpen) return this.#send({ t: "end" });
    await this.#reaching.ask("/chat/end", { method: "POST", body: "{}" });
    await this.#ask();
  }

  #set(change: Partial<LineState>): void {
    this.#state = { ...this.#state, ...change };
    for (const listener of this.#listeners) listener();
  }

  #after(milliseconds: number, work: () => void): void {
    const callOff = this.#reaching.after(milliseconds, () => {
      this.#timers.delete(callOff);
      if (!this.#isStopped) work();
    });
    this.#timers.add(callOff);
  }

  #every(milliseconds: number, work: () => void): void {
    this.#after(milliseconds, () => {
      work();
      this.#every(milliseconds, work);
    });
  }

  #open(): void {
    if (this.#reaching.connect === null || this.#isStopped) return;
    const current = () => this.#socket === socket;
    const onOpen = () => {
      if (!current()) return;
      this.#isOpen = true;
      this.#failures = 0;
      this.#set({ isReached: true });
      this.#send({ t: "hello", token: this.#token, after: lastPiece(this.#state.talk) });
      // Whatever is not known to be kept is said again: under its key it is recognised.
      for (const { key, text } of toSayAgain(this.#state.talk)) this.#send({ t: "say", key, text });
    };
    const onMessage = (data: string) => {
      if (current()) this.#hear(data);
    };
    const onClose = (code: number) => {
      if (!current()) return;
      this.#socket = null;
      this.#isOpen = false;
      if (code === gone || this.#isStopped) return;
      this.#failures += 1;
      this.#set({ isReached: false });
      this.#after(Math.min(FIRST_WAIT_MS * 2 ** Math.min(this.#failures - 1, 10), LONGEST_WAIT_MS), () =>
        this.#open(),
      );
    };
    const socket: Connection = this.#reaching.connect({ onOpen, onMessage, onClose });
    this.#socket = socket;
  }

  #hear(text: string): void {
    const message = z.safeParse(toWindow, JSON.parse(text));
    if (!message.success) return;
    const { data } = message;
    switch (data.t) {
      case "state":
        return this.#set({ chat: data.chat });
      case "pieces": {
        const talk = withPieces(this.#state.talk, data.pieces);
        this.#set({
          talk,
          typingAt: data.pieces.some((one) => one.from === "us") ? 0 : this.#state.typingAt,
        });
        return this.#tellGot();
      }
      case "kept":
        // Its piece comes with the others.
        return;
      case "refused":
        if (data.key === null) return this.#set({ problem: data.problem });
        return this.#set({ talk: withRefused(this.#state.talk, data.key, data.problem) });
      case "typing":
        return this.#set({ typingAt: this.#reaching.now() });
    }
  }

  /** Says soon, and once for several, what has come. */
  #tellGot(): void {
    if (this.#gotIsDue) return;
    this.#gotIsDue = true;
    this.#after(GOT_AFTER_MS, () => {
      this.#gotIsDue = false;
      this.#send({ t: "got", to: lastPiece(this.#state.talk) });
    });
  }

  #send(message: FromWindow): void {
    if (this.#isOpen) this.#socket?.send(JSON.stringify(message));
  }

  /** Where no connection is to be had: says and hears by requests. */
  async #ask(): Promise<void> {
    if (this.#asking) return;
    this.#asking = true;
    try {
      for (const { key, text } of toSayAgain(this.#state.talk)) {
        const answer = await this.#reaching.ask("/chat/say", {
          method: "POST",
          body: JSON.stringify({ key, text }),
        });
        const told = refusal.safeParse(answer.body);
        if (answer.status >= 400 && answer.status < 500 && answer.status !== 429 && told.success)
          this.#set({ talk: withRefused(this.#state.talk, key, told.data.problem) });
        else if (!kept.safeParse(answer.body).success) break;
      }
      const answer = await this.#reaching.ask(`/chat/pieces?after=${lastPiece(this.#state.talk)}`);
      const here = asked.safeParse(answer.body);
      if (here.success)
        this.#set({
          talk: withPieces(this.#state.talk, here.data.pieces),
          chat: here.data.chat,
          isReached: true,
        });
      else if (answer.status === 404) {
        const told = refusal.safeParse(answer.body);
        this.#set({ problem: told.success ? told.data.problem : null, isReached: true });
        this.stop();
      }
    } catch {
      this.#set({ isReached: false });
    } finally {
      this.#asking = false;
    }
  }
}
