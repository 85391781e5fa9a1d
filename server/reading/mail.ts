import type { DeliveryFailure } from "#core/mail/failure";
import type { MailPart } from "#core/mail/parts";
import type { Doubt, Envelope } from "../db/entities/messages";

/** A message as it was received, in the parts that we keep. All texts are well formed and within the limits below. */
export interface ReceivedMail {
  from: { name: string | null; address: string };
  /** Where its sender asks answers to go, where that is another address. */
  replyTo: string | null;
  to: string[];
  cc: string[];
  subject: string;
  text: string;
  html: string | null;
  messageId: string | null;
  /** Message-IDs that it answers, the nearest first. */
  answers: string[];
  /** Language of what was written, where it can be told. */
  language: string | null;
  attachments: {
    name: string;
    contentType: string;
    content: Uint8Array;
    sha256: string;
    contentId: string | null;
  }[];
  /** What rules read of it: the envelope’s sender, and headers that tell whether anybody is to answer. */
  envelope: Envelope;
  /** What speaks against its being from whom it says. */
  doubts: Doubt[];
  /** Whether the raw message has more than was read. */
  cut: boolean;
  /** What it is, beside a message that somebody wrote to us. */
  kind: "message" | "automatic" | "list" | "failure";
  /** Parts that are told of. */
  parts: MailPart[];
  /** What a report of failure says (RFC 3464); null where it is none. */
  failure: DeliveryFailure | null;
}

/** What of a message is read; the raw message keeps all. Lengths in UTF-16 units. */
export const limits = {
  text: 100_000,
  html: 500_000,
  subject: 1000,
  name: 200,
  addresses: 100,
  references: 100,
  attachments: 200,
} as const;

/** A sender that no header and no envelope names (RFC 2606: the domain is nobody's). */
export const NOBODY = "unknown-sender@invalid";
