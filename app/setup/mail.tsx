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
      <title>Mail · Plain Shelf</title>
      <h1 className="text-xl font-bold">Mail</h1>
      <section aria-label="Going out" className="mt-5 max-w-3xl">
        <h2 className="border-b border-line pb-1 font-bold">Going out</h2>
        <p className="mt-2">
          Letters are handed to{" "}
          <code className="font-mono text-sm">{`${ways.out.host}:${ways.out.port}`}</code>
          {ways.simulated
            ? ", the simulated outside that comes with the program: nothing leaves this machine."
            : ways.out.encrypted === "always"
              ? ", always encrypted."
              : ", encrypted where that server can."}{" "}
          <span className="text-soft">
            Whoever runs the program sets it by <code className="font-mono text-sm">SMTP_URL</code>.
          </span>
        </p>
        <p className="mt-3 flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <Button disabled={state.busy === true} onClick={() => void test()}>
            Send a test letter
          </Button>
          <span className="text-soft">to yourself, {email}</span>
        </p>
        {state.to !== undefined && (
          <p role="status" className="mt-3">
            The mail server took it.{" "}
            {ways.simulated ? (
              <Link to={`/outside/${encodeURIComponent(state.to)}`} className="quiet-link">
                Read it in your mailbox outside
              </Link>
            ) : (
              `Look for it in the mailbox of ${state.to}, and among the junk there.`
            )}
          </p>
        )}
        <FormProblem words={state.problem} />
      </section>
      <section aria-label="Coming in" className="mt-8 max-w-3xl">
        <h2 className="border-b border-line pb-1 font-bold">Coming in</h2>
        <p className="mt-2">
          The program takes mail (SMTP) at{" "}
          <code className="font-mono text-sm">{`${ways.in.host}:${ways.in.port}`}</code>. Have your mail
          server hand on what comes for{" "}
          {ways.in.addresses.map(({ address, team }, index) => (
            <span key={address}>
              {index > 0 && ", "}
              <strong className="font-semibold">{address}</strong> ({team})
            </span>
          ))}
          .{" "}
          <Link to="/setup/teams" className="quiet-link">
            Change the addresses
          </Link>
        </p>
        <p className="mt-2 text-soft">
          {ways.latest === null ? (
            <>
              No mail has come yet.{" "}
              {ways.simulated && (
                <Link to="/outside" className="quiet-link">
                  Write one as a customer
                </Link>
              )}
            </>
          ) : (
            <>
              Mail came last <Time at={ways.latest} />.
            </>
          )}
        </p>
      </section>
    </>
  );
}
