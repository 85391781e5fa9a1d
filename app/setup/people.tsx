import { useState } from "react";
import { peopleDetails, type LackingPerson } from "#server/house/signatures";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { Button } from "../ui/button";
import type { Route } from "./+types/people";
import { useSend } from "./use-send";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(() => peopleDetails(em, viewer));
}

/** What signatures and replies print of colleagues, and who lacks what. */
export default function People({ loaderData }: Route.ComponentProps) {
  const { people, printed } = loaderData;
  const lacking = people.filter((person) => person.lacks.length > 0);
  return (
    <>
      <title>What letters say of us · Plain Shelf</title>
      <h1 className="text-xl font-bold">What letters say of us</h1>
      <p className="mt-1 text-soft">
        {printed.length === 0
          ? "Signatures and replies print nothing of colleagues but their names."
          : `Signatures and replies print: ${printed.join(", ")}.`}{" "}
        {lacking.length === 0
          ? "Everybody has it."
          : `${lacking.length} ${lacking.length === 1 ? "colleague lacks" : "colleagues lack"} some of it.`}
      </p>
      <ul className="mt-4 max-w-4xl">
        {[...lacking, ...people.filter((person) => person.lacks.length === 0)].map((person) => (
          <Row key={person.id} person={person} />
        ))}
      </ul>
    </>
  );
}

function Row({ person }: { person: LackingPerson }) {
  const { send, problem } = useSend("/setup");
  const [draft, setDraft] = useState({
    title: person.title ?? "",
    department: person.department ?? "",
    phone: person.phone ?? "",
  });
  const changed = (["title", "department", "phone"] as const).some(
    (key) => draft[key] !== (person[key] ?? ""),
  );
  return (
    <li className="border-b border-line py-2.5">
      <form
        className="flex flex-wrap items-end gap-x-5 gap-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          void send(`people/${person.id}/keep`, draft);
        }}
      >
        <span className="w-56">
          <span className="font-semibold">{person.name}</span>
          <span className="block text-sm text-soft">{person.team}</span>
          {person.lacks.length > 0 && (
            <span className="block text-sm text-look">lacks {person.lacks.join(", ")}</span>
          )}
        </span>
        {(["title", "department", "phone"] as const).map((key) => (
          <label key={key} className="flex flex-col text-sm text-soft">
            {key}
            <input
              aria-label={`${key} of ${person.name}`}
              className={`lined-field w-44 text-base text-ink ${person.lacks.includes(key) ? "bg-look-wash" : ""}`}
              maxLength={200}
              value={draft[key]}
              onChange={(event) => setDraft({ ...draft, [key]: event.target.value })}
            />
          </label>
        ))}
        {changed && <Button type="submit">Keep</Button>}
      </form>
      {problem && (
        <p role="alert" className="text-stop">
          {problem}
        </p>
      )}
    </li>
  );
}
