import { counted } from "#core/text/counted";
import { Controller } from "react-hook-form";
import { houseTypes, newFieldSchema } from "#core/forms/house";
import { listFields } from "#server/house/fields";
import { requireRole } from "#server/people/viewer";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { Button } from "../ui/button";
import { FormProblem, LineInput, taken, useFormOf } from "../ui/form";
import { Select } from "../ui/select";
import type { Route } from "./+types/fields";
import { useSave } from "../ui/use-save";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "lead");
    return { fields: await listFields(em) };
  });
}

/** Fields that the house adds to its cases; each is a token at once. */
export default function Fields({ loaderData }: Route.ComponentProps) {
  const { fields } = loaderData;
  const { send, problem } = useSave("/setup");
  return (
    <>
      <title>Case fields · Plain Shelf</title>
      <h1 className="text-xl font-bold">Case fields</h1>
      <p className="mt-1 text-soft">
        What your cases say beyond the usual. Every field can be used in replies at once.
      </p>
      {(["case", "booking"] as const).map((of) => {
        const listed = fields.filter((field) => field.of === of);
        return listed.length === 0 ? null : (
          <section key={of} aria-label={OF[of]}>
            <h2 className="mt-6 font-bold">{OF[of]}</h2>
            <ul className="mt-1 max-w-2xl">
              {listed.map((field) => (
                <li key={field.key} className="flex items-baseline gap-4 border-b border-line py-2">
                  <span className="font-semibold">{field.label}</span>
                  <code className="text-sm text-soft">{`{$${of}.${field.key}}`}</code>
                  <span className="text-sm text-soft">{field.type.replace("_", " ")}</span>
                  <span className="ml-auto text-sm text-soft">
                    {field.uses === 0 ? (
                      <button
                        type="button"
                        className="quiet-link"
                        onClick={() =>
                          void send(`fields/${of}/${field.key}/remove`, {}, `${field.label} is removed.`)
                        }
                      >
                        Remove
                      </button>
                    ) : (
                      `used by ${counted(field.uses, "reply", "replies")}`
                    )}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      {fields.length === 0 && (
        <p className="mt-6 font-serif text-lg text-soft">Cases have only the usual fields.</p>
      )}
      <FormProblem words={problem ?? undefined} />
      <NewField />
    </>
  );
}

const OF = { case: "Of the case", booking: "Of its booking, as the booking system tells it" } as const;

function NewField() {
  const form = useFormOf(newFieldSchema, { label: "", type: "text", of: "case" });
  const { act } = useSave("/setup");
  const { errors } = form.formState;
  const add = form.handleSubmit(async (input) => {
    if (taken(form, await act("new-field", input, "Replies can use it now."))) form.reset();
  });
  return (
    <form
      noValidate
      className="mt-6 flex max-w-2xl flex-wrap items-end gap-5"
      onSubmit={(event) => void add(event)}
    >
      <label className="flex grow flex-col gap-1 text-sm">
        A new field
        <LineInput
          field={form.register("label")}
          problem={errors.label?.message}
          className="text-base"
          placeholder="harbour concerned"
        />
      </label>
      <label className="flex flex-col gap-1 text-sm">
        Kind
        <Controller
          control={form.control}
          name="type"
          render={({ field }) => (
            <Select
              className="lined-field text-base"
              value={field.value}
              options={houseTypes.map((one) => [one, one.replace("_", " ")] as const)}
              onChange={field.onChange}
            />
          )}
        />
      </label>
      <label className="flex flex-col gap-1 text-sm">
        Of
        <Controller
          control={form.control}
          name="of"
          render={({ field }) => (
            <Select
              className="lined-field text-base"
              value={field.value ?? "case"}
              options={[
                ["case", "the case"],
                ["booking", "its booking"],
              ]}
              onChange={field.onChange}
            />
          )}
        />
      </label>
      <Button type="submit">Add field</Button>
      <FormProblem words={errors.root?.message} />
    </form>
  );
}
