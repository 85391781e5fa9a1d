import type { EntityManager } from "@mikro-orm/postgresql";
import type { ContactFormInput } from "#core/forms/contact";
import { readMarkdown } from "#core/formats/markdown";
import { ContactForm } from "../db/entities/mailboxes";
import { Team } from "../db/entities/people";
import { NotFound, Unusable } from "../errors";
import { findHouse } from "../house/house";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** The first form that is on, by its key; null where there is none. */
export async function firstForm(em: EntityManager): Promise<string | null> {
  const [form] = await em.find(ContactForm, { isOn: true }, { orderBy: { id: "asc" }, limit: 1 });
  return form?.key ?? null;
}

/** A form that people may fill in. @throws NotFound where there is none, or it is off */
export async function openForm(em: EntityManager, key: string): Promise<ContactForm> {
  const form = await em.findOne(ContactForm, { key, isOn: true }, { populate: ["team"] });
  if (!form) throw new NotFound(t("thereIsNoSuchForm"));
  return form;
}

/** A form as the setup lists it. */
export interface FormRow extends ContactFormInput {
  id: number;
}

/** All forms, and the sites that may hold them. @throws NotAllowed unless lead */
export async function listForms(
  em: EntityManager,
  viewer: Viewer,
): Promise<{ forms: FormRow[]; origins: string[] }> {
  requireRole(viewer, "lead");
  const forms = await em.find(ContactForm, {}, { orderBy: { id: "asc" } });
  const house = await findHouse(em);
  return {
    forms: forms.map(({ team, firstMail, ...form }) => ({
      ...form,
      team: team.id,
      firstMail: firstMail ?? null,
    })),
    origins: house.embedOrigins,
  };
}

/**
 * Makes a form, or changes one.
 * @param id null for a new one
 * @throws NotAllowed unless lead; NotFound; Unusable with what is wrong, and where
 */
export async function saveForm(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
  { team: teamId, ...input }: ContactFormInput,
): Promise<number> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    const team = await inner.findOne(Team, { id: teamId });
    if (!team) throw new NotFound(t("thereIsNoSuchTeam"));
    const other = await inner.findOne(ContactForm, { key: input.key });
    if (other && other.id !== id) throw new Unusable(t("anotherFormHasThatAddress"), "key");
    for (const field of input.fields)
      if (field.kind === "choice" && field.options.length === 0)
        throw new Unusable(t("giveFieldSomethingToChoose", { field: field.label }), "fields");
    const labels = input.fields.map((field) => field.label.toLowerCase());
    if (new Set(labels).size < labels.length) throw new Unusable(t("twoFieldsAreCalledTheSame"), "fields");
    const [problem] = input.firstMail === null ? [] : readMarkdown(input.firstMail).problems;
    if (problem) throw new Unusable(problem.message, "firstMail");
    if (id === null) {
      const made = inner.create(ContactForm, { ...input, team });
      await inner.flush();
      return made.id;
    }
    const form = await inner.findOne(ContactForm, { id });
    if (!form) throw new NotFound(t("thereIsNoSuchForm"));
    Object.assign(form, { ...input, team });
    return id;
  });
}

/** Takes a form away; what was written by it stays. @throws NotAllowed unless lead; NotFound */
export async function removeForm(em: EntityManager, viewer: Viewer, id: number): Promise<void> {
  requireRole(viewer, "lead");
  if ((await em.nativeDelete(ContactForm, { id })) === 0) throw new NotFound(t("thereIsNoSuchForm"));
}

/** Says which sites may hold our form and chat. @throws NotAllowed unless lead; Unusable where one is no site */
export async function saveOrigins(em: EntityManager, viewer: Viewer, origins: string[]): Promise<void> {
  requireRole(viewer, "lead");
  const kept = origins.map((one) => {
    const origin = URL.canParse(one) ? new URL(one).origin : "null";
    if (!/^https?:\/\//.test(origin))
      throw new Unusable(t("siteIsNoSite", { site: one.slice(0, 100) }), "origins");
    return origin;
  });
  const house = await findHouse(em);
  house.embedOrigins = [...new Set(kept)];
  await em.flush();
}
