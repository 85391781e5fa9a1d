import { useState } from "react";
import { Link } from "react-router";
import * as z from "zod/mini";
import { mailWays } from "#server/sending/outgoing";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { useAct } from "../ui/act";
import { Button } from "../ui/button";
import { FormProblem } from "../ui/form";
import { Time } from "../ui/time";
import type { Route } from "./+types/mail";
import { t } from "../words/setup";
import { Sentence } from "../words/sentence";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => ({ ways: await mailWays(em, viewer), email: viewer.email }));
}

const sent = z.object({ to: z.string() });

/** Where mail goes out and comes in, and the way to see that it does. */
export default function Mail({ loaderData }: Route.ComponentProps) {
  const { ways, email } = loaderData;
  const ask = useAct();
  const [state, setState] = useState<{ to?: string; problem?: string; busy?: boolean }>({});
  const test = async () => {
    setState({ busy: true });
    const outcome = await ask("/setup/test-letter", {}, sent);
    setState(outcome.ok ? { to: outcome.data.to } : { problem: outcome.problem });
  };
  return (
    <>
      <title>{t("mailPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("mail")}</h1>
      <section aria-label={t("goingOut")} className="mt-5 max-w-3xl">
        <h2 className="border-b border-line pb-1 font-bold">{t("goingOut")}</h2>
        <p className="mt-2">
          <Sentence
            of={t}
            name={
              ways.simulated
                ? "handedToTheOutside"
                : ways.out.encrypted === "always"
                  ? "handedOnEncrypted"
                  : "handedOnEncryptedIfPossible"
            }
            values={{ server: `${ways.out.host}:${ways.out.port}` }}
            parts={[<code key="0" className="font-mono text-sm" />]}
          />{" "}
          <span className="text-soft">
            <Sentence
              of={t}
              name="whoeverRunsTheProgramSetsIt"
              values={{ setting: "SMTP_URL" }}
              parts={[<code key="0" className="font-mono text-sm" />]}
            />
          </span>
        </p>
        <p className="mt-3 flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <Button disabled={state.busy === true} onClick={() => void test()}>
            {t("sendATestLetter")}
          </Button>
          <span className="text-soft">{t("toYourselfEmail", { email })}</span>
        </p>
        {state.to !== undefined && (
          <p role="status" className="mt-3">
            {t("theMailServerTookIt")}{" "}
            {ways.simulated ? (
              <Link to={`/outside/${encodeURIComponent(state.to)}`} className="quiet-link">
                {t("readItInYourMailboxOutside")}
              </Link>
            ) : (
              t("lookForItInTheMailbox", { to: state.to })
            )}
          </p>
        )}
        <FormProblem words={state.problem} />
      </section>
      <section aria-label={t("comingIn")} className="mt-8 max-w-3xl">
        <h2 className="border-b border-line pb-1 font-bold">{t("comingIn")}</h2>
        <p className="mt-2">
          {t("theProgramTakesMailSmtpAt")}{" "}
          <code className="font-mono text-sm">{`${ways.in.host}:${ways.in.port}`}</code>
          {t("haveYourMailServerHandOn")}{" "}
          {ways.in.addresses.map(({ address, team }, index) => (
            <span key={address}>
              {index > 0 && ", "}
              <strong className="font-semibold">{address}</strong> ({team})
            </span>
          ))}
          .{" "}
          <Link to="/setup/teams" className="quiet-link">
            {t("changeTheAddresses")}
          </Link>
        </p>
        <p className="mt-2 text-soft">
          {ways.latest === null ? (
            <>
              {t("noMailHasComeYet")}{" "}
              {ways.simulated && (
                <Link to="/outside" className="quiet-link">
                  {t("writeOneAsACustomer")}
                </Link>
              )}
            </>
          ) : (
            <Sentence of={t} name="mailCameLast" parts={[<Time key="0" at={ways.latest} />]} />
          )}
        </p>
      </section>
    </>
  );
}
