import * as z from "zod/mini";
import { questionKinds } from "../questions/question";

/**
 * What a customer's chat window and the program say to each other: JSON, one object a message, over a WebSocket
 * (RFC 6455) or, where none can be had, by requests. Pieces are numbered by the program from 1 on, in one row for both
 * sides; what a window says goes under a key of its own, again and again until it is told its number.
 */

/** Longest piece, in UTF-16 units. */
export const MOST_PIECE = 4000;

/** Most chats that one person takes at once. */
export const MOST_CHATS = 8;

/** A piece of a chat. */
export const pieceSchema = z.object({
  n: z.int().check(z.gte(1)),
  from: z.enum(["us", "them"]),
  text: z.string(),
  /** ISO 8601 instant. */
  at: z.string(),
  /** Who of us said it; null for the customer's own. */
  name: z.nullable(z.string()),
  /** The key that the window gave it; null for ours. */
  key: z.nullable(z.string()),
  files: z.array(z.object({ name: z.string(), href: z.string() })),
  /** Questions that it asks, whose answers stand beside it to be pressed. */
  asks: z.array(
    z.object({
      id: z.int(),
      words: z.string(),
      kind: z.enum(questionKinds),
      options: z.array(z.string()),
      takesRemark: z.boolean(),
      answered: z.boolean(),
    }),
  ),
});
export type Piece = z.infer<typeof pieceSchema>;

/** What a window shows of a chat beside its pieces. */
export const chatStateSchema = z.object({
  state: z.enum(["waiting", "open", "ended"]),
  /** Place in the row at the door, from 1; null where it does not wait. */
  place: z.nullable(z.int()),
  /** Who of us is there; null for nobody yet. */
  with: z.nullable(z.string()),
  /** Up to which piece they have read. */
  readTo: z.int(),
  /** Where the whole talk went, once it has ended; null for nowhere. */
  mailedTo: z.nullable(z.string()),
});
export type ChatState = z.infer<typeof chatStateSchema>;

/** What the window says. */
export const fromWindow = z.discriminatedUnion("t", [
  /** First of all: who it is, and up to which piece it has all. */
  z.object({
    t: z.literal("hello"),
    token: z.string().check(z.minLength(20), z.maxLength(200)),
    after: z.int().check(z.gte(0)),
  }),
  z.object({
    t: z.literal("say"),
    key: z.string().check(z.minLength(1), z.maxLength(60)),
    text: z.string().check(z.minLength(1), z.maxLength(MOST_PIECE)),
  }),
  z.object({ t: z.literal("typing") }),
  /** It has all up to this piece. */
  z.object({ t: z.literal("got"), to: z.int().check(z.gte(0)) }),
  /** The customer has them before their eyes. */
  z.object({ t: z.literal("read"), to: z.int().check(z.gte(0)) }),
  z.object({ t: z.literal("end") }),
  z.object({ t: z.literal("here") }),
]);
export type FromWindow = z.infer<typeof fromWindow>;

/** What the program says. */
export const toWindow = z.discriminatedUnion("t", [
  z.object({ t: z.literal("state"), chat: chatStateSchema }),
  z.object({ t: z.literal("pieces"), pieces: z.array(pieceSchema) }),
  /** What was said under a key is kept, under this number. */
  z.object({ t: z.literal("kept"), key: z.string(), n: z.int() }),
  /** What was said under a key is not kept, and why. */
  z.object({ t: z.literal("refused"), key: z.nullable(z.string()), problem: z.string() }),
  z.object({ t: z.literal("typing") }),
]);
export type ToWindow = z.infer<typeof toWindow>;
