import { useMemo } from "react";
import { readSignatures } from "#server/house/signatures";
import { settingsOf } from "#server/house/settings";
import { listWriters } from "#server/house/writers";
import { ownContext } from "#server/house/own-context";
import { signedIn } from "#server/web/context";
import { catalogue } from "#core/tokens/catalogue";
import type { Route } from "./+types/signatures";
import { asOf } from "./as-of";
import { ownTokensOnly, ReadWords } from "./own-words";
import { SignatureForm } from "./signature-form";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  const { context, own } = await ownContext(em, viewer, now);
  const { languages } = await settingsOf(em);
  const signatures = await readSignatures(em, viewer);
  const writers = await listWriters(em, viewer);
  return {
    signatures,
    writers,
    languages,
    context,
    words: own,
    viewer: { id: viewer.id, role: viewer.role },
  };
}

/** One's own signature, and those that teams impose. */
export default function Signatures({ loaderData }: Route.ComponentProps) {
  const { signatures, writers, languages, context, words, viewer } = loaderData;
  const { role } = viewer;
  const tokens = useMemo(() => ownTokensOnly(catalogue(words)), [words]);
  const imposing = signatures.teams.find((team) => team.mine && team.imposed !== null);
  return (
    <>
      <title>{t("signaturesPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("yourSignature")}</h1>
      <p className="mt-1 text-soft">
        {imposing
          ? t("lettersOfTheImposingCarryThe", { imposing: imposing.name })
          : t("itStandsOnceUnderEveryLetter")}
      </p>
      <SignatureForm
        team={null}
        signature={signatures.own}
        languages={languages}
        writers={imposing ? [] : writers.filter((writer) => writer.id === viewer.id)}
        nobody={t("yourLettersDoNotChangeWhile")}
        viewer={viewer}
        tokens={tokens}
        context={context}
        label={t("yourSignature")}
      />
      {(role === "lead" || signatures.teams.some((team) => team.imposed)) && (
        <h2 className="mt-10 text-lg font-bold">{t("signaturesOfTeams")}</h2>
      )}
      {signatures.teams
        .filter((team) => role === "lead" || team.imposed !== null)
        .map((team) => (
          <section key={team.id} className="mt-4">
            <h3 className="font-bold">{team.name}</h3>
            {role === "lead" ? (
              <SignatureForm
                team={team.id}
                signature={team.imposed}
                languages={languages}
                writers={writers.filter((writer) => writer.teams.includes(team.id))}
                viewer={viewer}
                tokens={tokens}
                context={asOf(context, team.names)}
                label={t("signatureOfTheTeam", { team: team.name })}
              />
            ) : (
              <>
                <p className="mb-1 text-sm text-soft">{t("imposedOnItsLettersALead")}</p>
                {team.imposed && (
                  <ReadWords
                    label={t("signatureOfTheTeam", { team: team.name })}
                    doc={team.imposed.text}
                    language={team.imposed.language ?? "en"}
                    tokens={tokens}
                    context={asOf(context, team.names)}
                  />
                )}
              </>
            )}
          </section>
        ))}
    </>
  );
}
