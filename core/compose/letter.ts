import type { Block, Source } from "../document/types";
import type { Piece } from "../document/text";
import type { Decision } from "./passages";
import type { AttachmentRef } from "./slip";
import type { PlacedFragment } from "./stationery";

/** Where something stands in a letter. */
export interface Place {
  in: "subject" | "body";
  /** Offsets in the letter's subject or plain text (UTF-16 units). */
  start: number;
  end: number;
  /** The same in the slip that the words came from, where they came from one. */
  source: Pick<Source, "slip" | "from" | "to"> | null;
}

/** One thing that composing decided, and why: for the record and for whoever asks where a word came from. */
export interface TraceEntry {
  kind: "token" | "blank" | "passage" | "subject" | "signature" | "stationery";
  slip: string | null;
  name: string;
  /** The text that was printed; for a passage “in” or “out”; null where there was no value. */
  value: string | null;
  why: string;
}

/** A blank of a slip. */
export interface BlankPlace {
  slip: string;
  name: string;
}

/** What went wrong while composing; the letter exists all the same. */
export interface ComposeProblem {
  code:
    | "token-missing"
    | "token-unknown"
    | "token-unusable"
    | "text-unreadable"
    | "blank-empty"
    | "blank-unknown"
    | "passage-unknown"
    | "condition-unusable"
    | "picture-missing"
    | "link-unusable"
    | "language-unusable";
  message: string;
  at: Place | null;
  /** The blank that it is about, where it is about one. */
  blank?: BlankPlace;
  /** Name of the token that has no value, where that is what went wrong. */
  token?: string;
}

/** What composing yields. HTML, trace and blocks are made when they are asked for. */
export interface Letter {
  subject: string;
  /** Null for a channel without formatting. */
  html: string | null;
  text: string;
  attachments: AttachmentRef[];
  /** Ids of attachments that stand as pictures inside the HTML, by Content-ID; not listed as attachments again. */
  pictures: AttachmentRef[];
  trace: TraceEntry[];
  problems: ComposeProblem[];
  /** The plain text in stretches that know where they came from. */
  pieces: Piece[];
  /** The blocks of the plain text, each with its place in it. */
  fragments: PlacedFragment[];
  /** What was decided of the passages of each slip, by slip and passage. */
  decisions: ReadonlyMap<string, ReadonlyMap<string, Decision>>;
  /** The filled blocks of each slip, for screens that show the letter. */
  blocks: Block[];
}
