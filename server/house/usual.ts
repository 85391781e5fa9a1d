import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { agentDetails, type AgentDetail } from "#core/checks/agent-details";
import { replyChannels } from "#core/words/named";
import { Reply, UsualReply } from "../db/entities/library";
import { Team } from "../db/entities/people";
import { query } from "../db/sql";
import { idSchema } from "../edge";
import { NotFound, Unusable } from "../errors";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";

const parts = ["opening", "closing"] as const;

/** What a team's first answers by a channel open and close with, and what could be chosen. */
export interface UsualRow {
  team: number;
  teamName: string;
  channel: (typeof replyChannels)[number];
  part: (typeof parts)[number];
  chosen: string | null;
  /** With the details of its writer that each prints. */
  offered: { key: string; title: string; prints: AgentDetail[] }[];
}

/** The usual openings and closings of every team and channel. */
export async function usualReplies(em: EntityManager): Promise<UsualRow[]> {
  const teams = await em.find(Team, {}, { orderBy: { name: "asc" } });
  const usual = await em.find(UsualReply, {}, { populate: ["reply"] });
  const offered = await query<{
    team: number;
    key: string;
    title: string;
    part: string;
    channels: string[];
    names: string[];
  }>(
    em,
    `select t.id as team, r.key, r.title, r.part, r.channels,
            array(select distinct m[1] from reply_variants v,
              regexp_matches(v.document::text || v.texts::text, 'agent\\.([a-z_]+)', 'g') m where v.version_id = r.current_version_id) as names
       from teams t
       join replies r on r.part in ('opening', 'closing') and r.state = 'shelved' join shelves s on s.id = r.shelf_id
        and (s.audience = 'everyone' or exists (select 1 from shelf_teams st where st.shelf_id = s.id and st.team_id = t.id and s.audience = 'teams'))
      order by lower(r.title)`,
  );
  return teams.flatMap((team) =>
    replyChannels.flatMap((channel) =>
      parts.map((part): UsualRow => ({
        team: team.id,
        teamName: team.name,
        channel,
        part,
        chosen:
          usual.find((one) => one.team.id === team.id && one.channel === channel && one.part === part)?.reply
            .key ?? null,
        offered: offered
          .filter((one) => one.team === team.id && one.part === part && one.channels.includes(channel))
          .map(({ key, title, names }) => ({
            key,
            title,
            prints: agentDetails.filter((detail) => names.includes(detail)),
          })),
      })),
    ),
  );
}

export const usualSchema = z.strictObject({
  team: idSchema,
  channel: z.enum(replyChannels),
  part: z.enum(parts),
  reply: z.string().nullable(),
});

/** Chooses a team's usual opening or closing by a channel; null for none. @throws NotAllowed unless curator; NotFound; Unusable */
export async function setUsual(
  em: EntityManager,
  viewer: Viewer,
  input: z.infer<typeof usualSchema>,
): Promise<void> {
  requireRole(viewer, "curator");
  await em.transactional(async (inner) => {
    const team = await inner.findOne(Team, { id: input.team });
    if (!team) throw new NotFound(t("thereIsNoSuchTeam"));
    const offered = (await usualReplies(inner)).find(
      (row) => row.team === input.team && row.channel === input.channel && row.part === input.part,
    )?.offered;
    if (input.reply !== null && !offered?.some((one) => one.key === input.reply))
      throw new Unusable(t("thatReplyIsNotOneThat"));
    const key = { team, channel: input.channel, part: input.part };
    const known = await inner.findOne(UsualReply, key);
    if (input.reply === null) {
      if (known) inner.remove(known);
      return;
    }
    const reply = await inner.findOneOrFail(Reply, { key: input.reply });
    if (known) known.reply = reply;
    else inner.create(UsualReply, { ...key, reply });
  });
}
