import { WebSocket } from "ws";
import { setTimeout as delay } from "node:timers/promises";
import { ChatLine } from "#core/chat/line";
import { beginChat } from "#server/chats/window";
import { connect, disconnect } from "#server/db/orm";
import { percentiles } from "./measure";
import { withProgram } from "./program";

const CHATS = 200;
/** What each window says, and how long a hand is still between. */
const PIECES = 6;
const BETWEEN_MS = 10_000;

/**
 * So many chats at once, each over a connection of its own: how long a piece takes from being said to being seen, kept
 * and brought back by way of the database as every other screen hears of it. Milliseconds.
 */
export async function benchChat(): Promise<object> {
  return withProgram(async (program) => {
    const orm = await connect(program.databaseUrl);
    const lines: ChatLine[] = [];
    for (let index = 0; index < CHATS; index += 1) {
      const input = { name: `Guest ${index}`, email: "", text: `chat ${index}`, page: "", language: "en" };
      const { token } = await beginChat(orm.em.fork(), input, new Date());
      lines.push(lineTo(program.base, token));
    }
    await disconnect();
    for (const line of lines) line.start();
    const times: number[] = [];
    const talk = async (line: ChatLine, index: number) => {
      await until(() => line.state.talk.pieces.length === 1);
      await delay((index * BETWEEN_MS) / CHATS);
      for (let piece = 0; piece < PIECES; piece += 1) {
        const began = performance.now();
        line.say(`p${piece}`, `piece ${piece} of ${index}`);
        await until(() => line.state.talk.pieces.length === piece + 2);
        times.push(performance.now() - began);
        await delay(BETWEEN_MS);
      }
    };
    await Promise.all(lines.map(talk));
    const whole = lines.filter((line) => line.state.talk.pieces.length === PIECES + 1).length;
    for (const line of lines) line.stop();
    return { bench: "chat", chats: CHATS, pieces: times.length, whole, ...percentiles(times) };
  });
}

async function until(holds: () => boolean): Promise<void> {
  while (!holds()) await delay(1);
}

function lineTo(base: string, token: string): ChatLine {
  return new ChatLine(token, {
    connect({ onOpen, onMessage, onClose }) {
      const socket = new WebSocket(`${base.replace(/^http/, "ws")}/chat/socket`);
      socket.on("open", onOpen);
      socket.on("message", (data: Buffer) => onMessage(data.toString()));
      socket.on("error", () => undefined);
      socket.on("close", onClose);
      return socket;
    },
    ask: () => Promise.reject(new Error("Requests are not measured")),
    now: () => Date.now(),
    after(milliseconds, work) {
      const timer = setTimeout(work, milliseconds);
      return () => clearTimeout(timer);
    },
  });
}
