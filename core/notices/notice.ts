import { isAmong } from "../text/among";

/** What of a case customers may be told of when it changes. */
export const noticeChanges = ["state", "topic", "owner", "promise"] as const;
export type NoticeChange = (typeof noticeChanges)[number];

/** Whether a notice waits for somebody to send it, or goes by itself after a time in which it can be called back. */
export const noticeWays = ["offered", "queued"] as const;
export type NoticeWay = (typeof noticeWays)[number];

/** When a notice is for a change; an empty list stands for any. */
export interface NoticeRule {
  on: NoticeChange;
  /** States or topics that a case comes into. Of no meaning for an owner and a promise. */
  into: readonly string[];
  mailboxes: readonly number[];
  channels: readonly string[];
}

/** A case that was changed. */
export interface Changed {
  on: NoticeChange;
  /** Its new state or topic; null for none, and where that is not what changed. */
  into: string | null;
  /** The mailbox that it came to; null for the team's own. */
  mailbox: number | null;
  channel: string;
}

/** Words go out by these channels alone; in a chat somebody says it. */
export const noticeChannels = ["email", "sms"] as const;

/** The notice that a change calls for: the first that fits; null for none. */
export function noticeFor<Rule extends NoticeRule>(rules: readonly Rule[], changed: Changed): Rule | null {
  if (!noticeChannels.some((one) => one === changed.channel)) return null;
  return rules.find((rule) => fits(rule, changed)) ?? null;
}

function fits({ on, into, mailboxes, channels }: NoticeRule, changed: Changed): boolean {
  const isInto = on === "owner" || on === "promise" || isAmong(into, changed.into);
  return (
    on === changed.on && isInto && isAmong(mailboxes, changed.mailbox) && isAmong(channels, changed.channel)
  );
}
