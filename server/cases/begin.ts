import type { EntityManager } from "@mikro-orm/postgresql";
import type { BeginInput } from "#core/forms/begin";
import { CaseEvent } from "../db/entities/cases";
import { Person, Team } from "../db/entities/people";
import { Unusable } from "../errors";
import { settingsOf } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { customerOf, openCase } from "../receiving/arrival";
import { setState } from "./standing";
import { t } from "../words";

/**
 * Begins a case that no customer wrote first: a mail to a customer, of the viewer's team. It waits for nobody until the mail
 * is sent. Whom nobody knew by the address becomes a customer by it.
 * @returns the case's number
 * @throws Unusable where the address is a mailbox of ours
 */
export async function beginCase(
  em: EntityManager,
  viewer: Viewer,
  { address, subject: about }: BeginInput,
  now: Date,
): Promise<{ number: number }> {
  return em.transactional(async (inner) => {
    const { mailboxes, house } = await settingsOf(inner);
    if (mailboxes.has(address)) throw new Unusable(t("addressIsAMailboxOfOurs", { address }), "address");
    const newcomer = { displayName: address, language: house.language };
    const customer = await customerOf(inner, { channel: "email", address }, newcomer);
    const subject = await openCase(inner, {
      channel: "email",
      subject: about,
      language: customer.language ?? house.language,
      customer,
      team: inner.getReference(Team, viewer.teamId),
      now,
    });
    const person = inner.getReference(Person, viewer.id);
    setState(subject, "set aside");
    subject.assignee = person;
    inner.create(CaseEvent, { case: subject, person, kind: "begun", data: {}, at: now });
    await inner.flush();
    return { number: subject.number };
  });
}
