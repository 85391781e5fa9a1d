import { useState } from "react";
import { Link } from "react-router";
import { listFields, type FieldRow } from "#server/fields/fields";
import { topicsOf } from "#server/cases/topics";
import { requireRole } from "#server/people/viewer";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { FormProblem } from "../ui/form";
import { Popover } from "../ui/popover";
import { RowMenu } from "../ui/row-menu";
import { useSave } from "../ui/use-save";
import type { Route } from "./+types/fields";
import { ChangeField } from "./change-field";
import { NewField, OF } from "./new-field";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "lead");
    const [fields, topics] = await Promise.all([listFields(em), topicsOf(em)]);
    return { fields, topics };
  });
}

const OWNERS = ["case", "customer", "organisation", "agent"] as const;

/** Fields that the house adds to what it keeps; each is a token at once. */
export default function Fields({ loaderData }: Route.ComponentProps) {
  const { fields, topics } = loaderData;
  const { send, problem } = useSave("/setup");
  const [changing, setChanging] = useState<FieldRow | null>(null);
  return (
    <>
      <title>{t("fieldsPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("fields")}</h1>
      <p className="mt-1 text-soft">
        {t("whatYourCasesSayBeyondThe")}{" "}
        <Link to="/setup/gaps" className="underline underline-offset-2">
          {t("gapsInTheData")}
        </Link>
      </p>
      {OWNERS.map((of) => {
        const listed = fields.filter((field) => field.of === of);
        return listed.length === 0 ? null : (
          <section key={of} aria-label={OF()[of]}>
            <h2 className="mt-6 font-bold">{OF()[of]}</h2>
            <ul className="mt-1 max-w-3xl">
              {listed.map((field) => (
                <li key={field.key} className="flex items-baseline gap-4 border-b border-line py-2">
                  <span
                    className={`min-w-0 [overflow-wrap:anywhere] ${field.retired ? "text-soft" : "font-semibold"}`}
                  >
                    {field.label}
                    <span className="block text-sm font-normal text-soft">{about(field)}</span>
                  </span>
                  <code className="text-sm text-soft">{`{$${of}.${field.key}}`}</code>
                  <span className="ml-auto flex items-baseline gap-3 text-sm whitespace-nowrap">
                    <Uses field={field} />
                    <RowMenu
                      label={t("moreWithField", { field: field.label })}
                      actions={[
                        { words: t("changeIt"), run: () => setChanging(field) },

                        {
                          words: field.retired ? t("useItAgain") : t("retireIt"),
                          run: () =>
                            void send(
                              `fields/${of}/${field.key}/retire`,
                              { retired: !field.retired },
                              field.retired
                                ? t("fieldIsInUse", { field: field.label })
                                : t("fieldIsRetired", { field: field.label }),
                            ),
                        },
                        ...(field.uses.length > 0
                          ? []
                          : [
                              {
                                words: t("remove"),
                                run: () =>
                                  void send(
                                    `fields/${of}/${field.key}/remove`,
                                    {},
                                    t("fieldIsRemoved", { field: field.label }),
                                  ),
                              },
                            ]),
                      ]}
                    />
                  </span>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      {fields.length === 0 && (
        <p className="mt-6 font-serif text-lg text-soft">{t("casesHaveOnlyTheUsualFields")}</p>
      )}
      <FormProblem words={problem ?? undefined} />
      <NewField topics={topics} />
      {changing && <ChangeField field={changing} topics={topics} onClose={() => setChanging(null)} />}
    </>
  );
}

/** What a field is, beside what it is called. */
function about({ type, options, topics, required, retired }: FieldRow): string {
  return [
    type === "choice" ? t("choiceOf", { options: options.join(", ") }) : type.replace("_", " "),
    topics.length > 0 ? t("onTopics", { topics: topics.join(", ") }) : null,
    required ? t("required") : null,
    retired ? t("retired") : null,
  ]
    .filter((part) => part !== null)
    .join("; ");
}

/** The replies that read a field, a list over the page. */
function Uses({ field }: { field: FieldRow }) {
  const { uses } = field;
  if (uses.length === 0) return <span className="text-soft">{t("noReplyReadsIt")}</span>;
  return (
    <Popover words={t("usedByCountReplies", { count: uses.length })} className="w-72">
      <ul>
        {uses.map(({ key, title }) => (
          <li key={key} className="py-0.5">
            <Link to={`/replies/${encodeURIComponent(key)}`} className="underline underline-offset-2">
              {title}
            </Link>
          </li>
        ))}
      </ul>
    </Popover>
  );
}
