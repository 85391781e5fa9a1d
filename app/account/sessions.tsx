import { Form, redirect } from "react-router";
import { z } from "zod";
import { idInPath } from "#server/edge";
import { endSessions, sessionsOf } from "#server/people/sessions";
import { loaderResult } from "#server/web/results";
import { readForm } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { Time } from "../ui/time";
import type { Route } from "./+types/sessions";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return { sessions: await sessionsOf(em, viewer, now), own: args.context.sessionId };
}

const form = z.union([z.object({ id: idInPath }), z.object({ others: z.literal("yes") })]);

export async function action(args: Route.ActionArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    const asked = form.parse(Object.fromEntries(await readForm(args.request)));
    await endSessions(em, viewer, "id" in asked ? asked : { allBut: args.context.sessionId ?? 0 });
    return redirect("/sessions");
  });
}

/** Where one is signed in, and the way to end it. */
export default function Sessions({ loaderData }: Route.ComponentProps) {
  const { sessions, own } = loaderData;
  return (
    <main className="mx-5 mb-5 grow bg-sheet px-8 py-6">
      <title>Where you are signed in · Plain Shelf</title>
      <h1 className="text-xl font-bold">Where you are signed in</h1>
      <ul className="mt-4 max-w-3xl">
        {sessions.map((session) => (
          <li
            key={session.id}
            className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-line py-2.5"
          >
            <span className="min-w-0 grow">
              <strong className="font-semibold">{browserName(session.browser)}</strong>
              {session.id === own && " (this one)"}
              <span className="block text-sm text-soft [overflow-wrap:anywhere]">
                {session.address ?? "from an unknown address"}, since <Time at={session.began} />, last used{" "}
                <Time at={session.seen} />
              </span>
            </span>
            {session.id !== own && (
              <Form method="post">
                <input type="hidden" name="id" value={session.id} />
                <button type="submit" className="quiet-link">
                  End it
                </button>
              </Form>
            )}
          </li>
        ))}
      </ul>
      {sessions.length > 1 && (
        <Form method="post" className="mt-4">
          <input type="hidden" name="others" value="yes" />
          <button type="submit" className="quiet-link">
            End all others
          </button>
        </Form>
      )}
    </main>
  );
}

/** A browser as people call it, from how it names itself. */
function browserName(agent: string | null): string {
  if (agent === null) return "A browser that does not say its name";
  const system = /Windows|Mac OS X|Android|iPhone|iPad|Linux/.exec(agent)?.[0]?.replace("Mac OS X", "macOS");
  const program = /Edg|Firefox|Chrome|Safari/.exec(agent)?.[0]?.replace("Edg", "Edge");
  if (!program) return agent.slice(0, 60);
  return system ? `${program} on ${system}` : program;
}
