import { SegmentedMessage } from "sms-segments-calculator";

/** How many messages a text takes as an SMS, by its characters (3GPP TS 23.038: GSM 7-bit, else UCS-2). */
export function smsSegments(text: string): number {
  return new SegmentedMessage(text).segmentsCount;
}
