import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { Message } from "../db/entities/messages";
import { Team } from "../db/entities/people";
import { environment } from "../environment";
import { Unusable } from "../errors";
import { findHouse } from "../house/house";
import { doStep } from "../house/steps";
import { requireRole, type Viewer } from "../people/viewer";
import { mailServer } from "./deliver";
import { t } from "../words";

/** How mail goes out and comes in, as the setup tells it. */
export interface MailWays {
  /** The server that letters are handed to, without what signs in there. */
  out: { host: string; port: number; encrypted: "always" | "where it can" };
  /** Where the program takes mail. */
  in: { host: string; port: number; addresses: { team: string; address: string }[] };
  /** Whether both are the simulated outside. */
  simulated: boolean;
  /** When mail came last; null for never. ISO 8601 instant. */
  latest: string | null;
}

/** How mail goes out and comes in. @throws NotAllowed unless lead */
export async function mailWays(em: EntityManager, viewer: Viewer): Promise<MailWays> {
  requireRole(viewer, "lead");
  const settings = environment();
  const server = new URL(settings.smtpUrl);
  const teams = await em.find(Team, {}, { orderBy: { name: "asc" } });
  const latest = await em.findOne(
    Message,
    { direction: "in", channel: "email" },
    { orderBy: { id: "desc" }, fields: ["at"] },
  );
  return {
    out: {
      host: server.hostname,
      port: Number(server.port || (server.protocol === "smtps:" ? 465 : 587)),
      encrypted: server.protocol === "smtps:" || settings.smtpTlsRequired ? "always" : "where it can",
    },
    in: {
      host: settings.host,
      port: settings.inboundSmtpPort,
      addresses: teams.map(({ name, mailbox }) => ({ team: name, address: mailbox })),
    },
    simulated: settings.standins.on,
    latest: latest?.at.toISOString() ?? null,
  };
}

const refusal = z.object({ response: z.string().optional(), message: z.string() });

/**
 * Sends the viewer a letter at once, from the address of a team, to see that mail goes out.
 * @returns the address that it went to
 * @throws NotAllowed unless lead; Unusable with the mail server's own words where it is not taken
 */
export async function sendTestLetter(em: EntityManager, viewer: Viewer, now: Date): Promise<string> {
  requireRole(viewer, "lead");
  const house = await findHouse(em);
  const team = await em.findOneOrFail(Team, { id: viewer.teamId });
  try {
    await mailServer().sendMail({
      from: { name: `${team.name}, ${house.name}`, address: team.mailbox },
      to: { name: viewer.name, address: viewer.email },
      subject: "A test letter from Plain Shelf",
      text: `Hello ${viewer.name},\n\nthis letter went out as your answers will: from ${team.mailbox}. When you can read it, mail goes out.\n`,
      headers: { "Auto-Submitted": "auto-generated" },
      disableFileAccess: true,
      disableUrlAccess: true,
    });
  } catch (error) {
    const { response, message } = refusal.parse(error);
    throw new Unusable(t("theMailServerDidNotTake", { response: response ?? message }));
  }
  await doStep(em, viewer, "mail", now);
  return viewer.email;
}
