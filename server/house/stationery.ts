import type { EntityManager } from "@mikro-orm/postgresql";
import type { PaperTexts, Stationery as CoreStationery } from "#core/compose/stationery";
import type { Doc } from "#core/document/types";
import type { Written } from "#core/language/written";
import type { StationeryInput } from "#core/forms/papers";
import { Stationery } from "../db/entities/library";
import { StoredFile } from "../db/entities/files";
import { Team } from "../db/entities/people";
import { query } from "../db/sql";
import { NotFound, Unusable } from "../errors";
import { firstLanguage } from "./house";
import { requireRole, type Viewer } from "../people/viewer";
import { namesOf } from "./team-names";
import { t } from "../words";

/** A team with its stationery. */
export interface TeamStationery {
  team: number;
  teamName: string;
  /** The same in its languages. */
  names: Written<string>;
  paper: CoreStationery | null;
}

export async function allStationery(em: EntityManager): Promise<TeamStationery[]> {
  const teams = await em.find(Team, {}, { orderBy: { name: "asc" } });
  const papers = await em.find(Stationery, {}, { populate: ["logo"] });
  return teams.map((team) => {
    const paper = papers.find((one) => one.team.id === team.id);
    return {
      team: team.id,
      teamName: team.name,
      names: namesOf(team),
      paper: paper ? stationeryFrom(paper) : null,
    };
  });
}

/** Stationery as letters carry it. @param paper with its logo populated */
export function stationeryFrom(paper: Stationery): CoreStationery {
  return {
    name: paper.name,
    header: partIn(paper, "header"),
    footer: partIn(paper, "footer"),
    accent: paper.accent,
    textColour: paper.textColour,
    background: paper.background,
    logo: paper.logo
      ? {
          id: String(paper.logo.id),
          name: `logo.${(paper.logoType ?? "image/png").split("/")[1] ?? "png"}`,
          contentType: paper.logoType ?? "image/png",
          size: paper.logo.size,
          alt: paper.logoAlt,
        }
      : null,
  };
}

/** A part of stationery in all its languages; null where no language has it. */
function partIn(paper: Stationery, part: keyof PaperTexts): Written<Doc> | null {
  const others = Object.fromEntries(
    Object.entries(paper.texts).flatMap(([language, texts]) =>
      texts[part] ? [[language, texts[part]]] : [],
    ),
  );
  return paper[part] ? { language: paper.language, text: paper[part], others } : null;
}

/** Keeps a team's stationery. @throws NotAllowed unless curator; NotFound; Unusable for a logo that is no picture of the viewer's */
export async function saveStationery(
  em: EntityManager,
  viewer: Viewer,
  input: StationeryInput,
): Promise<void> {
  requireRole(viewer, "curator");
  await em.transactional(async (inner) => {
    const team = await inner.findOne(Team, { id: input.team });
    if (!team) throw new NotFound(t("thereIsNoSuchTeam"));
    const known = await inner.findOne(Stationery, { team }, { populate: ["logo"] });
    const logo = await readLogo(inner, viewer, input.logo, known);
    const values = {
      name: input.name,
      header: input.header,
      footer: input.footer,
      texts: input.texts,
      accent: input.accent,
      textColour: input.textColour,
      background: input.background,
      logo: logo && inner.getReference(StoredFile, logo.id),
      logoType: logo?.type ?? null,
      logoAlt: input.logoAlt,
    };
    if (known) Object.assign(known, values);
    else inner.create(Stationery, { team, language: await firstLanguage(inner), ...values });
  });
}

async function readLogo(
  em: EntityManager,
  viewer: Viewer,
  id: string | null,
  known: Stationery | null,
): Promise<{ id: number; type: string } | null> {
  if (id === null) return null;
  if (known?.logo && String(known.logo.id) === id)
    return { id: known.logo.id, type: known.logoType ?? "image/png" };
  const [upload] = await query<{ file_id: number; content_type: string }>(
    em,
    "select file_id, content_type from file_uploads where person_id = ? and file_id = ?",
    [viewer.id, Number(id)],
  );
  if (!upload?.content_type.startsWith("image/")) throw new Unusable(t("theLogoIsNoPictureOf"));
  return { id: upload.file_id, type: upload.content_type };
}
