/** A part of a message that is told of beside its words. */
export type MailPart =
  /** An invitation to a date, or what becomes of one (RFC 5545, RFC 5546). */
  | {
      kind: "invitation";
      /** As `REQUEST`, `CANCEL`, `REPLY`; null where it does not say. */
      method: string | null;
      what: string;
      where: string | null;
      /** ISO 8601 instants, or dates where it is about whole days; null where it cannot be told. */
      from: string | null;
      to: string | null;
      organiser: string | null;
    }
  /** Signed by its sender (RFC 8551, RFC 3156); nobody has looked whether the signature is good. */
  | { kind: "signed"; by: "S/MIME" | "OpenPGP" }
  /** Encrypted: its words cannot be read here. */
  | { kind: "encrypted"; by: "S/MIME" | "OpenPGP" };
