import { useState } from "react";
import { fieldTypes, listFields } from "#server/house/fields";
import { requireRole } from "#server/people/viewer";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import { Button } from "../ui/button";
import { Select } from "../ui/select";
import type { Route } from "./+types/fields";
import { useSend } from "./use-send";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "lead");
    return { fields: await listFields(em), types: [...fieldTypes] };
  });
}

/** Fields that the house adds to its cases; each is a token at once. */
export default function Fields({ loaderData }: Route.ComponentProps) {
  const { fields, types } = loaderData;
  const { send, problem } = useSend("/setup");
  const [label, setLabel] = useState("");
  const [type, setType] = useState<(typeof types)[number]>("text");
  return (
    <>
      <title>Case fields · Plain Shelf</title>
      <h1 className="text-xl font-bold">Case fields</h1>
      <p className="mt-1 text-soft">
        What your cases say beyond the usual. Every field can be used in replies at once.
      </p>
      <ul className="mt-4 max-w-2xl">
        {fields.map((field) => (
          <li key={field.key} className="flex items-baseline gap-4 border-b border-line py-2">
            <span className="font-semibold">{field.label}</span>
            <code className="text-sm text-soft">{`{$case.${field.key}}`}</code>
            <span className="text-sm text-soft">{field.type.replace("_", " ")}</span>
            <span className="ml-auto text-sm text-soft">
              {field.uses === 0 ? (
                <button
                  type="button"
                  className="quiet-link"
                  onClick={() => void send(`fields/${field.key}/remove`, {}, "It is gone.")}
                >
                  take away
                </button>
              ) : (
                `used by ${field.uses} ${field.uses === 1 ? "reply" : "replies"}`
              )}
            </span>
          </li>
        ))}
      </ul>
      {fields.length === 0 && (
        <p className="mt-6 font-serif text-lg text-soft">Cases have only the usual fields.</p>
      )}
      <form
        className="mt-6 flex max-w-2xl flex-wrap items-end gap-5"
        onSubmit={(event) => {
          event.preventDefault();
          void send("new-field", { label, type }, "Replies can use it now.").then((ok) => {
            if (ok) setLabel("");
          });
        }}
      >
        <label className="flex grow flex-col gap-1 text-sm">
          A new field
          <input
            className="lined-field text-base"
            required
            maxLength={200}
            placeholder="harbour concerned"
            value={label}
            onChange={(event) => setLabel(event.target.value)}
          />
        </label>
        <label className="flex flex-col gap-1 text-sm">
          Kind
          <Select
            className="lined-field text-base"
            value={type}
            options={types.map((one) => [one, one.replace("_", " ")] as const)}
            onChange={setType}
          />
        </label>
        <Button type="submit">Add it</Button>
      </form>
      {problem && (
        <p role="alert" className="mt-3 text-stop">
          {problem}
        </p>
      )}
    </>
  );
}
