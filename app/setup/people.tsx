import { counted } from "#core/text/counted";
import { personDetailsSchema } from "#core/forms/house";
import { peopleDetails, type LackingPerson } from "#server/house/signatures";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { Button } from "../ui/button";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import type { Route } from "./+types/people";
import { useSave } from "./use-save";

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
          : `${counted(lacking.length, "colleague lacks", "colleagues lack")} some of it.`}
      </p>
      <ul className="mt-4 max-w-4xl">
        {[...lacking, ...people.filter((person) => person.lacks.length === 0)].map((person) => (
          <Row key={person.id} person={person} />
        ))}
      </ul>
    </>
  );
}

const DETAILS = ["title", "department", "phone"] as const;

function Row({ person }: { person: LackingPerson }) {
  const { act } = useSave("/setup");
  const form = useFormOf(personDetailsSchema, {
    title: person.title ?? "",
    department: person.department ?? "",
    phone: person.phone ?? "",
  });
  const { errors, isDirty, isSubmitting } = form.formState;
  const keep = form.handleSubmit(async (details) => {
    if (taken(form, await act(`people/${person.id}/keep`, details))) form.reset(form.getValues());
  });
  return (
    <li className="border-b border-line py-2.5">
      <form
        noValidate
        className="flex flex-wrap items-end gap-x-5 gap-y-2"
        onSubmit={(event) => void keep(event)}
      >
        <span className="w-56">
          <span className="font-semibold">{person.name}</span>
          <span className="block text-sm text-soft">{person.team}</span>
          {person.lacks.length > 0 && (
            <span className="block text-sm text-look">lacks {person.lacks.join(", ")}</span>
          )}
        </span>
        {DETAILS.map((key) => (
          <label key={key} className="flex flex-col text-sm text-soft">
            {key}
            <LineInput
              field={form.register(key)}
              problem={errors[key]?.message}
              aria-label={`${key} of ${person.name}`}
              className={`w-44 text-base text-ink ${person.lacks.includes(key) ? "bg-look-wash" : ""}`}
            />
          </label>
        ))}
        {isDirty && (
          <Button type="submit" disabled={isSubmitting}>
            Keep
          </Button>
        )}
      </form>
      <FormProblem words={errors.root?.message} />
    </li>
  );
}
