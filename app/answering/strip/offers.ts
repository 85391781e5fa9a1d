import { useState } from "react";
import type { Offer } from "#server/db/entities/answering";
import type { OpenCase } from "#server/answering/open";
import type { StripReply } from "#server/strip/strip";

/** Most offers that are told of a letter. */
const MOST = 60;

/** Keeps what the shelf offered for an answer, and what was looked at and taken of it. */
export class Offers {
  readonly #offers = new Map<string, Offer>();

  constructor(open: OpenCase) {
    for (const offer of open.draft?.offers ?? []) this.#offers.set(offer.reply, offer);
    for (const [position, reply] of open.strip.replies.entries())
      if (reply.fit !== null) this.#of(reply, position);
  }

  look(reply: StripReply, position: number): void {
    this.#of(reply, position).looked = true;
  }

  take(reply: StripReply, position: number): void {
    const offer = this.#of(reply, position);
    offer.looked = true;
    offer.taken = true;
  }

  /** What is stored with the letter. What was taken or looked at goes before what was only there. */
  all(): Offer[] {
    const weight = (offer: Offer) => Number(offer.taken) * 2 + Number(offer.looked);
    return [...this.#offers.values()]
      .sort((a, b) => weight(b) - weight(a) || a.position - b.position)
      .slice(0, MOST)
      .sort((a, b) => a.position - b.position);
  }

  #of(reply: StripReply, position: number): Offer {
    const known = this.#offers.get(reply.key);
    if (known) return known;
    const { key, versionId, fit } = reply;
    const offer = { reply: key, versionId, position, fit, looked: false, taken: false };
    this.#offers.set(key, offer);
    return offer;
  }
}

/** The offers of an opened case, from when it was opened. */
export function useOffers(open: OpenCase): Offers {
  const [offers] = useState(() => new Offers(open));
  return offers;
}
