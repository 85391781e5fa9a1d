import { t } from "./names";

/** Where replies go, and which parts of a letter they are. */
export const replyChannels = ["email", "chat", "sms"] as const;
export const replyParts = ["opening", "answer", "closing"] as const;

type Channel = (typeof replyChannels)[number];
type Part = (typeof replyParts)[number];
type Role = "agent" | "curator" | "lead";

/** Where a reply can stand. */
export const replyStates = ["draft", "ready to check", "shelved", "retired"] as const;

export const YES_NO = ["yes", "no"] as const;

const channels: readonly string[] = replyChannels;

/** A channel, as people call it; one that nothing is known of stands for itself. */
export function channelName(channel: string): string {
  return channels.includes(channel) ? t(channel as Channel) : channel;
}

/** A part of a letter, as people call it. */
export function partName(part: Part): string {
  return t(part);
}

/** A role, as people call it. */
export function roleName(role: Role): string {
  return t(role);
}

/** Where a reply stands, as people say it. */
export function stateName(state: (typeof replyStates)[number]): string {
  return t(state === "ready to check" ? "readyToCheck" : state);
}

/** Yes or no. */
export function yesOrNo(answer: (typeof YES_NO)[number]): string {
  return t(answer);
}
