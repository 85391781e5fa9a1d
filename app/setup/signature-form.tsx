import { Controller } from "react-hook-form";
import type { Doc } from "#core/document/types";
import { signatureSchema } from "#core/forms/papers";
import type { Token } from "#core/tokens/catalogue";
import type { Context } from "#core/tokens/context";
import { Button } from "../ui/button";
import { FormProblem, taken, useFormOf } from "../ui/form";
import { OwnWords } from "./own-words";
import { useSave } from "../ui/use-save";

/** A signature, one's own or one that a team imposes, and how it reads. @param team null for one's own */
export function SignatureForm({
  team,
  doc,
  tokens,
  context,
  label,
}: {
  team: number | null;
  doc: Doc | null;
  tokens: ReadonlyMap<string, Token>;
  context: Context;
  label: string;
}) {
  const { act } = useSave("/setup");
  const form = useFormOf(signatureSchema, { document: doc });
  const { errors, isDirty, isSubmitting } = form.formState;
  const keep = form.handleSubmit(async (signature) => {
    if (taken(form, await act("keep-signature", { team, ...signature }))) form.reset(form.getValues());
  });
  return (
    <form noValidate className="mt-3 flex flex-col gap-3" onSubmit={(event) => void keep(event)}>
      <Controller
        control={form.control}
        name="document"
        render={({ field }) => (
          <OwnWords label={label} doc={doc} tokens={tokens} context={context} onChange={field.onChange} />
        )}
      />
      <FormProblem words={errors.document?.message ?? errors.root?.message} />
      <span className="flex items-center gap-4">
        <Button type="submit" disabled={!isDirty || isSubmitting}>
          Save
        </Button>
        {isDirty && <span className="text-sm text-look">not saved yet; empty means none</span>}
      </span>
    </form>
  );
}
