import { useMemo } from "react";
import { Controller } from "react-hook-form";
import { readSignatures } from "#server/house/signatures";
import { ownContext } from "#server/house/own-context";
import { signedIn } from "#server/web/context";
import { catalogue, type Token } from "#core/tokens/catalogue";
import type { Context } from "#core/tokens/context";
import type { Doc } from "#core/document/types";
import { signatureSchema } from "#core/forms/papers";
import { Button } from "../ui/button";
import { FormProblem, taken, useFormOf } from "../ui/form";
import type { Route } from "./+types/signatures";
import { OwnWords, ownTokensOnly } from "./own-words";
import { useSave } from "./use-save";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  const { context, own } = await ownContext(em, viewer, now);
  return { signatures: await readSignatures(em, viewer), context, words: own, role: viewer.role };
}

/** One's own signature, and those that teams impose. */
export default function Signatures({ loaderData }: Route.ComponentProps) {
  const { signatures, context, words, role } = loaderData;
  const tokens = useMemo(() => ownTokensOnly(catalogue(words)), [words]);
  const imposing = signatures.teams.find((team) => team.mine && team.imposed !== null);
  return (
    <>
      <title>Signatures · Plain Shelf</title>
      <h1 className="text-xl font-bold">Your signature</h1>
      <p className="mt-1 text-soft">
        {imposing
          ? `Letters of the ${imposing.name} carry the team’s signature below; yours stands where a team has none.`
          : "It stands once under every letter of yours, however many replies it is made of."}
      </p>
      <SignatureForm
        team={null}
        doc={signatures.own}
        tokens={tokens}
        context={context}
        label="Your signature"
      />
      {(role === "lead" || signatures.teams.some((team) => team.imposed)) && (
        <h2 className="mt-10 text-lg font-bold">Signatures of teams</h2>
      )}
      {signatures.teams
        .filter((team) => role === "lead" || team.imposed !== null)
        .map((team) => (
          <section key={team.id} className="mt-4">
            <h3 className="font-bold">{team.name}</h3>
            {role === "lead" ? (
              <SignatureForm
                team={team.id}
                doc={team.imposed}
                tokens={tokens}
                context={context}
                label={`Signature of the ${team.name}`}
              />
            ) : (
              <p className="text-sm text-soft">Imposed on its letters; a lead changes it.</p>
            )}
          </section>
        ))}
    </>
  );
}

function SignatureForm({
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
          Keep it
        </Button>
        {isDirty && <span className="text-sm text-look">not kept yet; empty means none</span>}
      </span>
    </form>
  );
}
