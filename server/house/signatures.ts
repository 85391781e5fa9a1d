import type { EntityManager } from "@mikro-orm/postgresql";
import type { Doc } from "#core/document/types";
import { languageName } from "#core/language/tag";
import type { Written } from "#core/language/written";
import { agentDetails, detailsPrinted } from "#core/checks/agent-details";
import { Signature } from "../db/entities/library";
import { Person, Team } from "../db/entities/people";
import { query } from "../db/sql";
import { NotFound, Unusable } from "../errors";
import { firstLanguage } from "./house";
import { requireRole, type Viewer } from "../people/viewer";
import { namesOf } from "./team-names";
import { t } from "../words";

/** Signatures as the page of a person shows them. */
export interface Signatures {
  /** The viewer's own; null where they have none. */
  own: Written<Doc> | null;
  /** Teams, each with the signature that it imposes. */
  teams: { id: number; name: string; names: Written<string>; mine: boolean; imposed: Written<Doc> | null }[];
}

/** A signature as letters carry it. */
export function signatureFrom({ language, document, texts }: Signature): Written<Doc> {
  return { language, text: document, others: texts };
}

export async function readSignatures(em: EntityManager, viewer: Viewer): Promise<Signatures> {
  const all = await em.find(Signature, {});
  const teams = await em.find(Team, {}, { orderBy: { name: "asc" } });
  const written = (wanted: (one: Signature) => boolean) => {
    const found = all.find(wanted);
    return found ? signatureFrom(found) : null;
  };
  return {
    own: written((one) => one.person?.id === viewer.id),
    teams: teams.map((team) => ({
      id: team.id,
      name: team.name,
      names: namesOf(team),
      mine: team.id === viewer.teamId,
      imposed: written((one) => one.team?.id === team.id),
    })),
  };
}

/**
 * Keeps the viewer's own signature, or the one that a team imposes, in one language; an empty one is none.
 * Without the one that was written first there are none in other languages.
 * @param teamId null for the viewer's own; teams' are for leads
 * @param language null for the one that was written first
 * @throws NotAllowed; NotFound; Unusable for a further language of none
 */
export async function saveSignature(
  em: EntityManager,
  viewer: Viewer,
  teamId: number | null,
  doc: Doc | null,
  language: string | null = null,
): Promise<void> {
  if (teamId !== null) requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const team = teamId === null ? null : await inner.findOne(Team, { id: teamId });
    if (teamId !== null && !team) throw new NotFound(t("thereIsNoSuchTeam"));
    const known = await inner.findOne(Signature, team ? { team } : { person: viewer.id });
    const words = doc === null || isEmpty(doc) ? null : doc;
    if (known && language !== null && language !== known.language) {
      const { [language]: _before, ...others } = known.texts;
      known.texts = words ? { ...others, [language]: words } : others;
    } else if (known && words) known.document = words;
    else if (known) inner.remove(known);
    else if (words) {
      const first = await firstLanguage(inner);
      if (language !== null && language !== first)
        throw new Unusable(t("writeItInFirstFirst", { first: languageName(first) }));
      inner.create(Signature, {
        team,
        person: team ? null : inner.getReference(Person, viewer.id),
        language: first,
        document: words,
      });
    }
  });
}

function isEmpty(doc: Doc): boolean {
  return doc.content.every((block) => block.type === "paragraph" && block.content.length === 0);
}

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
       regexp_matches(t.document::text || t.texts::text || coalesce(t.subject, ''), 'agent\\.([a-z_]+)', 'g') m where r.state <> 'retired'`,
  );
  const names = ({ document, texts }: Signature) => detailsPrinted([document, ...Object.values(texts)]);
  const common = new Set(inReplies.map((row) => row.name));
  const printed = new Set<string>([...common, ...signatures.flatMap((one) => names(one))]);
  const lacks = people.map((person): [number, string[]] => {
    const imposed = signatures.find((one) => one.team?.id === person.team.id);
    const signature = imposed ?? signatures.find((one) => one.person?.id === person.id);
    const wanted = new Set<string>([...common, ...(signature ? names(signature) : [])]);
    return [person.id, agentDetails.filter((detail) => wanted.has(detail) && !person[detail]?.trim())];
  });
  return { printed: agentDetails.filter((detail) => printed.has(detail)), lacks: new Map(lacks) };
}
