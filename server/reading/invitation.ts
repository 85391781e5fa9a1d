import ICAL from "ical.js";
import type { MailPart } from "#core/mail/parts";
import { wellFormed } from "#core/text/well-formed";

/** Longest calendar that is read, in UTF-16 units. */
const MOST = 200_000;

const line = (value: unknown, most = 300) =>
  typeof value === "string" ? wellFormed(value.replace(/\s+/g, " ").trim().slice(0, most)) || null : null;

/** What a part `text/calendar` invites to (RFC 5545); null where that cannot be told. */
export function readInvitation(text: string): MailPart | null {
  try {
    const calendar = new ICAL.Component(ICAL.parse(text.slice(0, MOST)) as unknown[]);
    const found = calendar.getFirstSubcomponent("vevent");
    if (!found) return null;
    const event = new ICAL.Event(found);
    const at = (time: ICAL.Time | null | undefined) =>
      time == null ? null : time.isDate ? time.toString() : time.toJSDate().toISOString();
    return {
      kind: "invitation",
      method: line(calendar.getFirstPropertyValue("method"), 40)?.toUpperCase() ?? null,
      what: line(event.summary) ?? "",
      where: line(event.location),
      from: at(event.startDate),
      to: at(event.endDate),
      organiser: line(event.organizer)?.replace(/^mailto:/i, "") ?? null,
    };
  } catch {
    return null; // What cannot be read stays a file of the message.
  }
}
