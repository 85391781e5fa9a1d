import type { EntityManager } from "@mikro-orm/postgresql";
import type { MailboxInput } from "#core/forms/mailboxes";
import { Reply, Stationery } from "../db/entities/library";
import { Mailbox } from "../db/entities/mailboxes";
import { Team } from "../db/entities/people";
import { query } from "../db/sql";
import { NotFound, Unusable } from "../errors";
import { usualReplies } from "../house/usual";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** A mailbox as the setup shows it. */
export interface MailboxRow extends MailboxInput {
  id: number;
  /** Whether it is its team's own address, which the team's page changes. */
  isOwn: boolean;
  /** Cases that came to it. */
  cases: number;
}

/** What a mailbox may be given. */
export interface MailboxChoices {
  teams: { id: number; name: string }[];
  /** Teams that have stationery. */
  papers: { team: number; name: string }[];
  openings: { team: number; key: string; title: string }[];
  closings: { team: number; key: string; title: string }[];
}

/** All mailboxes, and what they may be given. @throws NotAllowed unless lead */
export async function listMailboxes(
  em: EntityManager,
  viewer: Viewer,
): Promise<{ mailboxes: MailboxRow[]; choices: MailboxChoices }> {
  requireRole(viewer, "lead");
  const mailboxes = await query<MailboxRow>(
    em,
    `select m.id, m.address, m.name, m.team_id as team, s.team_id as stationery, coalesce(o.key, '') as opening,
            coalesce(c.key, '') as closing, m.quotes, t.mailbox = m.address as "isOwn",
            (select count(*)::int from cases k where k.mailbox_id = m.id) as cases
       from mailboxes m join teams t on t.id = m.team_id left join stationery s on s.id = m.stationery_id
       left join replies o on o.id = m.opening_id left join replies c on c.id = m.closing_id
      order by t.name, t.mailbox = m.address desc, m.address`,
  );
  const teams = await em.find(Team, {}, { orderBy: { name: "asc" } });
  const papers = await em.find(Stationery, {}, { orderBy: { name: "asc" } });
  const usual = (await usualReplies(em)).filter((row) => row.channel === "email");
  const offered = (part: "opening" | "closing") =>
    usual
      .filter((row) => row.part === part)
      .flatMap(({ team, offered: replies }) => replies.map(({ key, title }) => ({ team, key, title })));
  return {
    mailboxes,
    choices: {
      teams: teams.map(({ id, name }) => ({ id, name })),
      papers: papers.map(({ team, name }) => ({ team: team.id, name })),
      openings: offered("opening"),
      closings: offered("closing"),
    },
  };
}

/**
 * Makes a mailbox, or changes one.
 * @param id null for a new one
 * @throws NotAllowed unless lead; NotFound; Unusable with what is wrong, and where
 */
export async function saveMailbox(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
  input: MailboxInput,
): Promise<number> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    const team = await inner.findOne(Team, { id: input.team });
    if (!team) throw new NotFound(t("thereIsNoSuchTeam"));
    const other = await inner.findOne(Mailbox, { address: input.address }, { populate: ["team"] });
    if (other && other.id !== id)
      throw new Unusable(t("thatIsTheAddressOfOwner", { owner: other.team.name }), "address");
    const known = id === null ? null : await inner.findOne(Mailbox, { id }, { populate: ["team"] });
    if (id !== null && !known) throw new NotFound(t("thereIsNoSuchMailbox"));
    const isOwn = known !== null && known.team.mailbox === known.address;
    if (isOwn && (known.address !== input.address || known.team.id !== team.id))
      throw new Unusable(t("itIsTheTeamsOwnAddress", { team: known.team.name }), "address");
    const part = async (key: string, of: "opening" | "closing") => {
      if (key === "") return null;
      const reply = await inner.findOne(Reply, { key, part: of, state: "shelved" });
      if (!reply) throw new Unusable(t("thatReplyIsNotOneThat"), of);
      return reply;
    };
    const paper =
      input.stationery === null ? null : await inner.findOne(Stationery, { team: input.stationery });
    const values = {
      address: input.address,
      name: input.name,
      team,
      stationery: paper,
      opening: await part(input.opening, "opening"),
      closing: await part(input.closing, "closing"),
      quotes: input.quotes,
    };
    if (known) Object.assign(known, values);
    else {
      const made = inner.create(Mailbox, values);
      await inner.flush();
      return made.id;
    }
    return known.id;
  });
}

/**
 * Takes a mailbox away: mail to it is refused from then on, and its cases go on by their team's own address.
 * @throws NotAllowed unless lead; NotFound; Unusable where it is a team's own
 */
export async function removeMailbox(em: EntityManager, viewer: Viewer, id: number): Promise<void> {
  requireRole(viewer, "lead");
  const known = await em.findOne(Mailbox, { id }, { populate: ["team"] });
  if (!known) throw new NotFound(t("thereIsNoSuchMailbox"));
  if (known.team.mailbox === known.address)
    throw new Unusable(t("itIsTheTeamsOwnAddress", { team: known.team.name }));
  await em.nativeDelete(Mailbox, { id });
}
