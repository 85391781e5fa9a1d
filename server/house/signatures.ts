import type { EntityManager } from "@mikro-orm/postgresql";
import type { Doc } from "#core/document/types";
import { tokensUsed } from "#core/checks/tokens-used";
import { Signature } from "../db/entities/library";
import { Person, Team } from "../db/entities/people";
import { query } from "../db/sql";
import { NotFound } from "../errors";
import { requireRole, type Viewer } from "../people/viewer";

/** Signatures as the page of a person shows them. */
export interface Signatures {
  /** The viewer's own; null where they have none. */
  own: Doc | null;
  /** Teams, each with the signature that it imposes. */
  teams: { id: number; name: string; mine: boolean; imposed: Doc | null }[];
}

export async function readSignatures(em: EntityManager, viewer: Viewer): Promise<Signatures> {
  const all = await em.find(Signature, {});
  const teams = await em.find(Team, {}, { orderBy: { name: "asc" } });
  return {
    own: all.find((one) => one.person?.id === viewer.id)?.document ?? null,
    teams: teams.map((team) => ({
      id: team.id,
      name: team.name,
      mine: team.id === viewer.teamId,
      imposed: all.find((one) => one.team?.id === team.id)?.document ?? null,
    })),
  };
}

/**
 * Keeps the viewer's own signature, or the one that a team imposes; an empty one is none.
 * @param teamId null for the viewer's own; teams' are for leads
 * @throws NotAllowed; NotFound
 */
export async function saveSignature(
  em: EntityManager,
  viewer: Viewer,
  teamId: number | null,
  doc: Doc | null,
): Promise<void> {
  if (teamId !== null) requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const team = teamId === null ? null : await inner.findOne(Team, { id: teamId });
    if (teamId !== null && !team) throw new NotFound("There is no such team");
    const known = await inner.findOne(Signature, team ? { team } : { person: viewer.id });
    if (doc === null || isEmpty(doc)) {
      if (known) inner.remove(known);
    } else if (known) known.document = doc;
    else
      inner.create(Signature, {
        team,
        person: team ? null : inner.getReference(Person, viewer.id),
        document: doc,
      });
  });
}

function isEmpty(doc: Doc): boolean {
  return doc.content.every((block) => block.type === "paragraph" && block.content.length === 0);
}

const details = ["title", "department", "phone"] as const;

/** What signatures and replies print of agents, and who of some people lacks what of it. */
export interface LackingDetails {
  printed: string[];
  /** By person's id; everyone of them is there. */
  lacks: Map<number, string[]>;
}

/** Finds what signatures and replies print of agents, and who lacks it. */
export async function lackingDetails(em: EntityManager, people: Person[]): Promise<LackingDetails> {
  const signatures = await em.find(Signature, {});
  const inReplies = await query<{ name: string }>(
    em,
    `select distinct m[1] as name from reply_variants t join replies r on r.current_version_id = t.version_id,
       regexp_matches(t.document::text || coalesce(t.subject, ''), 'agent\\.([a-z_]+)', 'g') m where r.state <> 'retired'`,
  );
  const names = (doc: Doc) =>
    [...tokensUsed({ blanks: {}, passages: {}, variants: [{ subject: null, document: doc }] })]
      .filter((name) => name.startsWith("agent."))
      .map((name) => name.slice("agent.".length));
  const common = new Set(inReplies.map((row) => row.name));
  const printed = new Set([...common, ...signatures.flatMap((one) => names(one.document))]);
  const lacks = people.map((person): [number, string[]] => {
    const imposed = signatures.find((one) => one.team?.id === person.team.id);
    const signature = imposed ?? signatures.find((one) => one.person?.id === person.id);
    const wanted = new Set([...common, ...(signature ? names(signature.document) : [])]);
    return [person.id, details.filter((detail) => wanted.has(detail) && !person[detail]?.trim())];
  });
  return { printed: details.filter((detail) => printed.has(detail)), lacks: new Map(lacks) };
}
