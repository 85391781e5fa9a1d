import { useRef } from "react";
import { Form, Link, useNavigate, useSearchParams, useSubmit } from "react-router";
import { z } from "zod";
import { replyChannels } from "#core/words/named";
import { daySchema, idInPath } from "#server/edge";
import { recordChoices } from "#server/record/choices";
import { searchRecord } from "#server/record/search";
import { versionsOf } from "#server/replies/history";
import { findReply } from "#server/access/replies";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { letterFontLink } from "../ui/fonts";
import { withParams } from "../ui/params";
import { useFindKeys } from "../ui/use-find-keys";
import { useShortcut } from "../ui/use-shortcut";
import { t } from "../words/record";
import type { Route } from "./+types/search";
import { Filters } from "./filters";
import { FoundRow } from "./found-row";

const text = z.string().trim().max(300).catch("");
const query = z.object({
  words: text,
  customer: text,
  organisation: text,
  agent: idInPath.nullable().catch(null),
  reply: z.string().min(1).max(200).nullable().catch(null),
  version: idInPath.nullable().catch(null),
  topic: z.string().min(1).max(200).nullable().catch(null),
  channel: z.enum(replyChannels).nullable().catch(null),
  direction: z.enum(["in", "out"]).nullable().catch(null),
  from: daySchema.nullable().catch(null),
  until: daySchema.nullable().catch(null),
  /** The message before which more is wanted: its instant and its id. */
  before: z
    .string()
    .transform((given) => given.split("_"))
    .pipe(z.tuple([z.iso.datetime(), idInPath]))
    .transform(([at, id]) => ({ at, id }))
    .nullable()
    .catch(null),
});

export const links = () => [letterFontLink];

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    const filter = readQuery(args.request, query);
    const reply = filter.reply === null ? null : await findReply(em, viewer, filter.reply);
    const [{ found, more }, choices, versions] = await Promise.all([
      searchRecord(em, filter),
      recordChoices(em),
      reply ? versionsOf(em, viewer, reply) : [],
    ]);
    return {
      filter,
      found,
      more,
      choices,
      reply: reply && {
        key: reply.key,
        title: reply.title,
        versions: versions.flatMap(({ id, number }) => (number === null ? [] : [{ id, number }])),
      },
    };
  });
}

/** Everything that was sent and received, found by its words and by whom, about what and when it was said. */
export default function Search({ loaderData }: Route.ComponentProps) {
  const { filter, found, more } = loaderData;
  const [params] = useSearchParams();
  const submit = useSubmit();
  const navigate = useNavigate();
  const field = useRef<HTMLInputElement>(null);
  const go = (changes: Record<string, string | null>) =>
    void navigate(withParams("/record", params, { before: null, ...changes }), { replace: true });
  useShortcut("findSaid", () => field.current?.focus());
  useFindKeys(field, {
    searched: filter.words,
    toList: () => document.querySelector<HTMLElement>("[data-found]")?.focus(),
    open: () => {
      const [first] = found;
      if (first) void navigate(`/cases/${first.case}/record?message=${first.id}`);
    },
    clear: () => {
      if (field.current) field.current.value = "";
      go({ words: null });
    },
  });
  const isNarrowed = [...params.keys()].some((key) => key !== "before");
  const last = found.at(-1);
  return (
    <main className="mx-5 mb-5 grow bg-sheet px-8 pt-4 pb-8">
      <title>{t("everythingSaidPlainShelf")}</title>
      <h1 className="sr-only">{t("everythingSaid")}</h1>
      <Form
        role="search"
        onChange={(event) => {
          // What is chosen goes its own way.
          const typed = event.target;
          if (typed instanceof HTMLInputElement && typed.name !== "")
            void submit(event.currentTarget, { replace: true });
        }}
      >
        <Filters {...loaderData} field={field} go={go} />
      </Form>
      {isNarrowed && (
        <p className="mt-3 text-sm">
          <Link to="/record" className="quiet-link">
            {t("clearAll")}
          </Link>
        </p>
      )}
      {found.length === 0 ? (
        <div className="py-14 text-center">
          <p className="font-serif text-lg">
            {isNarrowed ? t("nothingSaidIsLikeThat") : t("nothingWasSaidYet")}
          </p>
          {isNarrowed && <p className="mt-2 text-soft">{t("tryFewerWords")}</p>}
        </div>
      ) : (
        <ol className="mt-4">
          {found.map((one) => (
            <FoundRow key={one.id} found={one} />
          ))}
        </ol>
      )}
      <p className="mt-4 flex gap-6 text-sm">
        {filter.before !== null && (
          <Link to={withParams("/record", params, { before: null })} className="quiet-link">
            {t("toTheLatest")}
          </Link>
        )}
        {more && last && (
          <Link
            to={withParams("/record", params, { before: `${last.at}_${last.id}` })}
            className="quiet-link"
          >
            {t("earlierOnes")}
          </Link>
        )}
      </p>
    </main>
  );
}
