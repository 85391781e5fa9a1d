import type { Server } from "node:http";
import { setTimeout as delay } from "node:timers/promises";
import type { EntityManager } from "@mikro-orm/postgresql";
import { WebSocketServer, type WebSocket } from "ws";
import * as z from "zod/mini";
import { fromWindow, type FromWindow, type ToWindow } from "#core/chat/protocol";
import { Conflict, NotFound } from "../errors";
import { onEvent } from "../events/hub";
import type { Chat } from "../db/entities/chats";
import { log } from "../log";
import { loggable } from "../told";
import { t } from "../words";
import { MOST_PIECES, piecesAfter } from "./pieces";
import {
  chatOf,
  chatState,
  endInWindow,
  sayInWindow,
  tellRead,
  typingInWindow,
  windowIsThere,
} from "./window";

/** Largest message of a window, in bytes. */
const MOST_BYTES = 32 * 1024;
/** A window that says nothing for so long is gone; one that is there says so more often. */
const SILENT_MS = 60_000;
/** What one window may say within ten seconds; more of it waits. */
const MOST_SAID = 600;
const WITHIN_MS = 10_000;
/** What waits to be heard of one window, at most. */
const MOST_WAITING = 1000;

/** A window that is connected to this process. */
class Window {
  readonly #socket: WebSocket;
  readonly #em: () => EntityManager;
  #chat: Chat | null = null;
  /** Up to which piece it was told. */
  #told = 0;
  /** One thing after another: what a window says is kept in its order. */
  #line: Promise<void> = Promise.resolve();
  #said: number[] = [];
  #waiting = 0;
  #timer: NodeJS.Timeout | undefined;

  constructor(socket: WebSocket, em: () => EntityManager) {
    this.#socket = socket;
    this.#em = em;
    this.#wait();
  }

  get chat(): number | null {
    return this.#chat?.id ?? null;
  }

  /** Hears what the window says. */
  hear(data: string): void {
    this.#wait();
    if (this.#waiting >= MOST_WAITING) {
      // It connects again later, and says again what was not kept.
      this.#socket.close(1013);
      return;
    }
    let said: FromWindow;
    try {
      said = z.parse(fromWindow, JSON.parse(data));
    } catch {
      this.#tell({ t: "refused", key: null, problem: t("thatCannotBeRead") });
      return;
    }
    this.#next(() => this.#take(said));
  }

  /** Tells the window what it has not yet: pieces, or how its chat stands. */
  bring(what: "pieces" | "state"): void {
    this.#next(async () => {
      if (!this.#chat) return;
      if (what === "pieces") await this.#bringPieces();
      else this.#tell({ t: "state", chat: await chatState(this.#em(), this.#chat.id) });
    });
  }

  tellTyping(): void {
    this.#tell({ t: "typing" });
  }

  close(): void {
    clearTimeout(this.#timer);
  }

  #next(work: () => Promise<void>): void {
    this.#waiting += 1;
    const done = () => {
      this.#waiting -= 1;
    };
    this.#line = this.#line
      .then(work)
      .finally(done)
      .catch((error: unknown) => {
        log.warn({ event: "chat window failed", chat: this.#chat?.id ?? null, error: loggable(error) });
        // It connects again, and says again what was not kept.
        this.#socket.close(1011);
      });
  }

  async #take(said: FromWindow): Promise<void> {
    const now = new Date();
    if (said.t === "hello") return this.#greet(said.token, said.after);
    const chat = this.#chat;
    if (!chat) return this.#tell({ t: "refused", key: null, problem: t("sayHelloFirst") });
    switch (said.t) {
      case "say":
        await this.#inTime();
        try {
          const n = await sayInWindow(this.#em(), chat.id, said, now);
          this.#tell({ t: "kept", key: said.key, n });
        } catch (error) {
          if (!(error instanceof Conflict)) throw error;
          this.#tell({ t: "refused", key: said.key, problem: error.message });
        }
        return;
      case "typing":
        return typingInWindow(this.#em(), chat);
      case "got":
        return tellRead(this.#em(), chat, { got: said.to, read: 0 }, now);
      case "read":
        return tellRead(this.#em(), chat, { got: said.to, read: said.to }, now);
      case "end":
        return endInWindow(this.#em(), chat.id, now);
      case "here":
        return windowIsThere(this.#em(), chat.id, now);
    }
  }

  async #greet(token: string, after: number): Promise<void> {
    try {
      this.#chat = await chatOf(this.#em(), token);
    } catch (error) {
      if (!(error instanceof NotFound)) throw error;
      this.#tell({ t: "refused", key: null, problem: error.message });
      this.#socket.close(4404);
      return;
    }
    this.#told = after;
    await windowIsThere(this.#em(), this.#chat.id, new Date());
    await this.#bringPieces();
    this.#tell({ t: "state", chat: await chatState(this.#em(), this.#chat.id) });
  }

  async #bringPieces(): Promise<void> {
    if (!this.#chat) return;
    for (;;) {
      const pieces = await piecesAfter(this.#em(), this.#chat.id, this.#told);
      const last = pieces.at(-1);
      if (!last) return;
      this.#tell({ t: "pieces", pieces });
      this.#told = last.n;
      if (pieces.length < MOST_PIECES) return;
    }
  }

  #tell(message: ToWindow): void {
    if (this.#socket.readyState === this.#socket.OPEN) this.#socket.send(JSON.stringify(message));
  }

  /** Waits where a window says more than a hand can. */
  async #inTime(): Promise<void> {
    const now = Date.now();
    this.#said = this.#said.filter((at) => at > now - WITHIN_MS);
    const [first] = this.#said;
    if (first !== undefined && this.#said.length >= MOST_SAID) await delay(first + WITHIN_MS - now);
    this.#said.push(Date.now());
  }

  #wait(): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => this.#socket.terminate(), SILENT_MS).unref();
  }
}

/**
 * Holds customers' chat windows by WebSocket at `/chat/socket`. What happens in a chat, in whatever process, is brought to
 * its windows; a connection that drops loses nothing, for the next one goes on behind the last piece that it has.
 * Other sites’ pages connect to none: the window itself is a page of ours, wherever it stands.
 * @returns how to let go of all
 */
export function chatSockets(server: Server, em: () => EntityManager): () => void {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: MOST_BYTES });
  const windows = new Set<Window>();
  server.on("upgrade", (request, socket, head) => {
    if (new URL(request.url ?? "/", "http://here.invalid").pathname !== "/chat/socket") {
      socket.end("HTTP/1.1 404 Not Found\r\nConnection: close\r\n\r\n");
      return;
    }
    const { origin, host } = request.headers;
    if (origin !== undefined && !(URL.canParse(origin) && new URL(origin).host === host)) {
      socket.end("HTTP/1.1 403 Forbidden\r\nConnection: close\r\n\r\n");
      return;
    }
    sockets.handleUpgrade(request, socket, head, (connected) =>
      sockets.emit("connection", connected, request),
    );
  });
  sockets.on("connection", (socket) => {
    const window = new Window(socket, em);
    windows.add(window);
    socket.on("message", (data: Buffer) => window.hear(data.toString("utf8")));
    socket.on("error", (error) => log.warn({ event: "chat connection failed", error: error.message }));
    socket.on("close", () => {
      window.close();
      windows.delete(window);
    });
  });
  const stopListening = onEvent((event) => {
    if (event.kind === "chat" && event.chat) {
      const { id, what, by } = event.chat;
      for (const window of windows) {
        if (window.chat !== id) continue;
        if (what === "pieces" || what === "state") window.bring(what);
        else if (by === "us") {
          if (what === "typing") window.tellTyping();
          else window.bring("state");
        }
      }
    }
    // What happened while nobody listened to the database: every window looks again.
    else if (event.kind === "queue" && event.changed === undefined)
      for (const window of windows) window.bring("pieces");
  });
  return () => {
    stopListening();
    for (const client of sockets.clients) client.terminate();
    sockets.close();
  };
}
