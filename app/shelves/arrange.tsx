import { useState } from "react";
import { Link } from "react-router";
import * as z from "zod/mini";
import { allTeams, listShelves, type ShelfRow } from "#server/replies/shelves";
import { requireRole } from "#server/people/viewer";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { Button } from "../ui/button";
import { Mark } from "../ui/mark";
import { useAct } from "../ui/act";
import { SortableList } from "../ui/sortable-list";
import { useToast } from "../ui/toast";
import type { Route } from "./+types/arrange";
import { Checkbox } from "../ui/checkbox";
import { RadioGroup } from "../ui/radio-group";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "curator");
    const shelves = await listShelves(em, viewer);
    return { shelves: shelves.filter((shelf) => !shelf.mine), teams: await allTeams(em) };
  });
}

const done = z.object({});

/** The shared shelves: their order, names, marks and for whom they are. */
export default function Arrange({ loaderData }: Route.ComponentProps) {
  const { shelves, teams } = loaderData;
  const act = useAct();
  const toast = useToast();
  const [open, setOpen] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (path: string, body: object, words: string) => {
    const result = await act(path, body, done);
    setProblem(result.ok ? null : result.problem);
    if (result.ok) {
      toast({ words });
      setOpen(null);
    }
  };
  const byKey = new Map(shelves.map((shelf) => [shelf.key, shelf]));
  return (
    <main className="mx-5 mb-5 grow bg-sheet px-8 pt-4 pb-8">
      <title>Arrange shelves · Plain Shelf</title>
      <p className="text-sm">
        <Link to="/shelves" className="quiet-link">
          To the shelves
        </Link>
      </p>
      <h1 className="mt-2 text-xl font-bold">Arrange the shelves</h1>
      {problem && (
        <p role="alert" className="mt-2 text-stop">
          {problem}
        </p>
      )}
      <SortableList
        label="Shelves"
        keys={shelves.map((shelf) => shelf.key)}
        nameOf={(key) => byKey.get(key)?.name ?? key}
        onOrder={(keys) => send("/shelves/order", { keys }, "The shelves stand in this order.")}
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
                    ? "everyone"
                    : shelf.teams.map((team) => team.name).join(", ")}
                  , {shelf.replies} {shelf.replies === 1 ? "reply" : "replies"}
                </span>
              </p>
              {open === key && (
                <ShelfForm
                  shelf={shelf}
                  teams={teams}
                  onSave={(input) => void send("/shelves/save", { key, ...input }, "Kept.")}
                  onRemove={() => void send(`/shelves/${key}/remove`, {}, `“${shelf.name}” is gone.`)}
                />
              )}
            </>
          );
        }}
      </SortableList>
      <section className="mt-6 max-w-2xl">
        <h2 className="font-bold">A new shelf</h2>
        <ShelfForm
          key={shelves.length}
          shelf={null}
          teams={teams}
          onSave={(input) => void send("/shelves/save", { key: null, ...input }, "There is a new shelf.")}
          onRemove={null}
        />
      </section>
    </main>
  );
}

interface ShelfInput {
  name: string;
  mark: string;
  audience: string;
  teams: number[];
}

function ShelfForm({
  shelf,
  teams,
  onSave,
  onRemove,
}: {
  shelf: ShelfRow | null;
  teams: { id: number; name: string }[];
  onSave: (input: ShelfInput) => void;
  onRemove: (() => void) | null;
}) {
  const [name, setName] = useState(shelf?.name ?? "");
  const [mark, setMark] = useState(shelf?.mark ?? "");
  const [audience, setAudience] = useState<string>(shelf?.audience ?? "everyone");
  const [chosen, setChosen] = useState(shelf?.teams.map((team) => team.id) ?? []);
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        onSave({
          name,
          mark: mark || name.trim().slice(0, 1),
          audience,
          teams: audience === "teams" ? chosen : [],
        });
      }}
    >
      <label className="flex flex-col gap-1">
        Name
        <input
          className="lined-field w-56"
          value={name}
          maxLength={200}
          required
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <label className="flex flex-col gap-1">
        Mark
        <input
          className="lined-field w-14"
          value={mark}
          maxLength={2}
          placeholder={name.slice(0, 1)}
          onChange={(event) => setMark(event.target.value)}
        />
      </label>
      <fieldset className="flex flex-wrap items-baseline gap-x-4">
        <legend className="mb-1">For</legend>
        <RadioGroup
          label="For"
          value={audience}
          options={AUDIENCES}
          onChange={(next) => setAudience(next === "teams" ? "teams" : "everyone")}
          className="flex gap-x-4"
        />
        {teams.map((team) => (
          <label key={team.id} className="flex items-center gap-1.5">
            <Checkbox
              disabled={audience !== "teams"}
              checked={chosen.includes(team.id)}
              onChange={(on) =>
                setChosen(on ? [...chosen, team.id] : chosen.filter((one) => one !== team.id))
              }
            />
            {team.name}
          </label>
        ))}
      </fieldset>
      <Button type="submit">{shelf ? "Keep" : "Put it up"}</Button>
      {onRemove && (
        <button type="button" className="quiet-link" onClick={onRemove}>
          take it away
        </button>
      )}
    </form>
  );
}

const AUDIENCES = [
  { value: "everyone", words: "everyone" },
  { value: "teams", words: "only" },
];
