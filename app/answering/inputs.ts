import type { SubjectChoice } from "#core/compose/compose";
import { catalogue } from "#core/tokens/catalogue";
import type { AttachmentRef } from "#core/compose/slip";
import type { OpenCase } from "#server/answering/open";
import type { LetterInputs } from "./editor/letter-state";

/** What a letter on an opened case depends on beside its slips. */
export function letterInputs(open: OpenCase, choice: { subject: SubjectChoice; attachments: AttachmentRef[]; otherNames: string[] }): LetterInputs {
  return {
    context: open.context,
    channel: open.channel,
    language: open.draft?.language ?? open.language,
    customerTimeZone: open.customerTimeZone,
    tokens: catalogue(open.own),
    signature: open.signature,
    stationery: open.stationery,
    threadSubject: open.subject,
    caseNumber: open.label,
    recipient: open.recipient,
    sentReplies: open.sentReplies,
    contentId: (id) => id,
    ...choice,
  };
}
