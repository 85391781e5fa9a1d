import { useMemo } from "react";
import { readSignatures } from "#server/house/signatures";
import { ownContext } from "#server/house/own-context";
import { signedIn } from "#server/web/context";
import { catalogue } from "#core/tokens/catalogue";
import type { Route } from "./+types/signatures";
import { ownTokensOnly, ReadWords } from "./own-words";
import { SignatureForm } from "./signature-form";

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
              <>
                <p className="mb-1 text-sm text-soft">Imposed on its letters; a lead changes it.</p>
                {team.imposed && (
                  <ReadWords
                    label={`Signature of the ${team.name}`}
                    doc={team.imposed}
                    tokens={tokens}
                    context={context}
                  />
                )}
              </>
            )}
          </section>
        ))}
    </>
  );
}
