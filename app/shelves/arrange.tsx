import { useState } from "react";
import { Link } from "react-router";
import { Controller, useWatch } from "react-hook-form";
import { shelfSchema, type ShelfInput } from "#core/forms/library";
import { allTeams, listShelves, type ShelfRow } from "#server/replies/shelves";
import { requireRole } from "#server/people/viewer";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { Button } from "../ui/button";
import { Confirm } from "../ui/confirm";
import { FieldProblem, FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { Mark } from "../ui/mark";
import { useAct, type Outcome } from "../ui/act";
import { SortableList } from "../ui/sortable-list";
import { useToast } from "../ui/toast";
import type { Route } from "./+types/arrange";
import { Checkbox } from "../ui/checkbox";
import { RadioGroup } from "../ui/radio-group";
import { t } from "../words/shelves";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "curator");
    const shelves = await listShelves(em, viewer);
    return { shelves: shelves.filter((shelf) => !shelf.mine), teams: await allTeams(em) };
  });
}

/** The shared shelves: their order, names, marks and for whom they are. */
export default function Arrange({ loaderData }: Route.ComponentProps) {
  const { shelves, teams } = loaderData;
  const act = useAct();
  const toast = useToast();
  const [open, setOpen] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const change = async (path: string, body: object, words: string) => {
    const outcome = await act(path, body);
    if (outcome.ok) {
      toast({ words });
      setOpen(null);
    }
    return outcome;
  };
  const send = async (path: string, body: object, words: string) => {
    const outcome = await change(path, body, words);
    setProblem(outcome.ok ? null : outcome.problem);
  };
  const byKey = new Map(shelves.map((shelf) => [shelf.key, shelf]));
  return (
    <main className="mx-5 mb-5 grow bg-sheet px-8 pt-4 pb-8">
      <title>{t("arrangeShelvesPlainShelf")}</title>
      <p className="text-sm">
        <Link to="/shelves" className="quiet-link">
          {t("toTheShelves")}
        </Link>
      </p>
      <h1 className="mt-2 text-xl font-bold">{t("arrangeTheShelves")}</h1>
      {problem && (
        <p role="alert" className="mt-2 text-stop">
          {problem}
        </p>
      )}
      <SortableList
        label={t("shelves")}
        keys={shelves.map((shelf) => shelf.key)}
        nameOf={(key) => byKey.get(key)?.name ?? key}
        onOrder={(keys) => send("/shelves/order", { keys }, t("theShelvesStandInThisOrder"))}
        className="mt-3 max-w-2xl"
        itemClassName="border-b border-line py-2.5"
      >
        {(key, handle) => {
          const shelf = byKey.get(key);
          if (!shelf) return null;
          return (
            <>
              <p className="flex items-baseline gap-3">
                {handle}
                <Mark letters={shelf.mark} />
                <button
                  type="button"
                  className="font-semibold"
                  aria-expanded={open === key}
                  onClick={() => setOpen(open === key ? null : key)}
                >
                  {shelf.name}
                </button>
                <span className="text-sm text-soft">
                  {shelf.audience === "everyone"
                    ? t("everyone")
                    : shelf.teams.map((team) => team.name).join(", ")}
                  , {t("countReplies", { count: shelf.replies })}
                </span>
              </p>
              {open === key && (
                <ShelfForm
                  shelf={shelf}
                  teams={teams}
                  onSave={(input) => change("/shelves/save", { key, shelf: input }, "Kept.")}
                  onRemove={() =>
                    void send(`/shelves/${key}/remove`, {}, t("shelfIsGone", { shelf: shelf.name }))
                  }
                />
              )}
            </>
          );
        }}
      </SortableList>
      <section className="mt-6 max-w-2xl">
        <h2 className="font-bold">{t("aNewShelf")}</h2>
        <ShelfForm
          shelf={null}
          teams={teams}
          onSave={(input) => change("/shelves/save", { key: null, shelf: input }, t("theShelfIsAdded"))}
          onRemove={null}
        />
      </section>
    </main>
  );
}

function ShelfForm({
  shelf,
  teams,
  onSave,
  onRemove,
}: {
  shelf: ShelfRow | null;
  teams: { id: number; name: string }[];
  onSave: (input: ShelfInput) => Promise<Outcome<unknown>>;
  onRemove: (() => void) | null;
}) {
  const form = useFormOf(shelfSchema, {
    name: shelf?.name ?? "",
    mark: shelf?.mark ?? "",
    audience: shelf?.audience === "teams" ? "teams" : "everyone",
    teams: shelf?.teams.map((team) => team.id) ?? [],
  });
  const { errors, isSubmitting } = form.formState;
  const [name, audience] = useWatch({ control: form.control, name: ["name", "audience"] });
  const save = form.handleSubmit(async (input) => {
    if (taken(form, await onSave({ ...input, teams: input.audience === "teams" ? input.teams : [] })))
      form.reset(shelf ? form.getValues() : undefined);
  });
  return (
    <form
      noValidate
      className="mt-2 flex flex-wrap items-start gap-x-6 gap-y-3 text-sm"
      onSubmit={(event) => {
        // A shelf without a mark has its name’s first letter.
        if (form.getValues("mark").trim() === "") form.setValue("mark", name.trim().slice(0, 1));
        void save(event);
      }}
    >
      <label className="flex flex-col gap-1">
        {t("name")}
        <LineInput field={form.register("name")} problem={errors.name?.message} className="w-56" />
      </label>
      <label className="flex flex-col gap-1">
        {t("mark")}
        <LineInput
          field={form.register("mark")}
          problem={name.trim() === "" ? undefined : errors.mark?.message}
          className="w-14"
          placeholder={name.slice(0, 1)}
        />
      </label>
      <fieldset className="flex flex-wrap items-center gap-x-4">
        <legend className="mb-1">{t("for")}</legend>
        <Controller
          control={form.control}
          name="audience"
          render={({ field }) => (
            <RadioGroup
              label={t("for")}
              value={field.value}
              options={AUDIENCES()}
              onChange={field.onChange}
              className="flex gap-x-4"
            />
          )}
        />
        <Controller
          control={form.control}
          name="teams"
          render={({ field: { value = [], onChange } }) => (
            <>
              {teams.map((team) => (
                <label key={team.id} className="flex items-center gap-1.5">
                  <Checkbox
                    disabled={audience !== "teams"}
                    checked={value.includes(team.id)}
                    onChange={(on) =>
                      onChange(on ? [...value, team.id] : value.filter((one) => one !== team.id))
                    }
                  />
                  {team.name}
                </label>
              ))}
            </>
          )}
        />
        <FieldProblem words={errors.teams?.message} />
      </fieldset>
      <span className="flex items-baseline gap-5 self-end">
        <Button type="submit" disabled={isSubmitting}>
          {shelf ? t("save") : t("addTheShelf")}
        </Button>
        {onRemove && shelf && (
          <Confirm
            title={t("removeShelf", { shelf: shelf.name })}
            words={shelf.replies === 0 ? t("itIsEmptyNothingElseGoes") : t("itHoldsRepliesTheyMustBe")}
            yes={t("removeIt")}
            onYes={onRemove}
          >
            <button type="button" className="quiet-link">
              {t("removeIt2")}
            </button>
          </Confirm>
        )}
      </span>
      <FormProblem words={errors.root?.message} />
    </form>
  );
}

const AUDIENCES = () => [
  { value: "everyone", words: t("everyone") },
  { value: "teams", words: t("only") },
];
