import { z } from "zod";
import type { EntityManager } from "@mikro-orm/postgresql";
import { PasswordLink } from "../db/entities/people";
import { findHouse } from "../house/house";
import { log } from "../log";
import { urlOf } from "../people/links";
import { mailServer } from "./deliver";

/** A job that sends somebody the link by which they choose a password. */
export const noticeJob = z.object({ link: z.int(), base: z.url() });

/**
 * Sends the link of a job to its person, in plain words. One that was used, replaced or is too old meanwhile is not sent.
 * @throws Error when the mail server does not take it: it is worth another try
 */
export async function sendNotice(
  em: EntityManager,
  { link: id, base }: z.infer<typeof noticeJob>,
  now: Date,
): Promise<void> {
  const link = await em.findOne(PasswordLink, { id }, { populate: ["person.team", "madeBy"] });
  if (!link || link.usedAt != null || link.expiresAt <= now) return;
  const { person, purpose, madeBy } = link;
  const house = await findHouse(em);
  const until = new Intl.DateTimeFormat("en-GB", {
    dateStyle: "full",
    timeStyle: "short",
    timeZone: person.timeZone,
  }).format(link.expiresAt);
  const who = madeBy?.name ?? house.name;
  const lines =
    purpose === "invited"
      ? [
          `${who} invites you to answer customers with ${house.name}, in Plain Shelf.`,
          "Choose a password here:",
        ]
      : [`${who} has taken your old password for Plain Shelf away.`, "Choose another one here:"];
  await mailServer().sendMail({
    from: { name: house.name, address: person.team.mailbox },
    to: { name: person.name, address: person.email },
    subject: purpose === "invited" ? `Your place at ${house.name}` : "Another password for Plain Shelf",
    text: [
      `Hello ${person.firstName},`,
      lines.join("\n"),
      urlOf(link, base),
      `The link is good until ${until} (${person.timeZone}), once, and for you alone: you sign in as ${person.email}.`,
      `If you do not know what this is about, leave it: without the link nothing happens.`,
    ].join("\n\n"),
    headers: { "Auto-Submitted": "auto-generated" },
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  log.info({ event: "password link sent", link: id });
}
