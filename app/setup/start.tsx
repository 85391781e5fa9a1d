import { Link } from "react-router";
import type { StepName } from "#core/forms/steps";
import { readSteps, type Step } from "#server/house/steps";
import { requireRole } from "#server/people/viewer";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { FormProblem } from "../ui/form";
import { useSave } from "../ui/use-save";
import type { Route } from "./+types/start";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "lead");
    return { steps: await readSteps(em) };
  });
}

const STEPS: Record<StepName, { title: string; words: string; to: string; act: string }> = {
  house: {
    title: "The house",
    words: "Its name, time zone and languages: every letter prints or uses them.",
    to: "/setup/house",
    act: "Name the house",
  },
  team: {
    title: "A team and its address",
    words: "Mail to the address becomes the team’s cases, and its answers come from there.",
    to: "/setup/teams",
    act: "Set up the team",
  },
  people: {
    title: "People",
    words: "Invite those who answer with you. They choose their password by a link.",
    to: "/setup/people",
    act: "Invite a colleague",
  },
  shelf: {
    title: "A shelf",
    words: "Shared replies stand on shelves, each for everyone or for some teams.",
    to: "/shelves/arrange",
    act: "Add a shelf",
  },
  reply: {
    title: "A first reply",
    words: "Write what you are asked most, paste it, or start from one of three of ours.",
    to: "/replies/new",
    act: "Write the first reply",
  },
  mail: {
    title: "Mail",
    words: "Where it comes in and goes out, with a test letter to yourself.",
    to: "/setup/mail",
    act: "Check the mail",
  },
};

/** What is left to make an empty house a working desk, in order. */
export default function Start({ loaderData }: Route.ComponentProps) {
  const { steps } = loaderData;
  const { send, problem } = useSave("/setup");
  const next = steps.find((step) => step.state === "open");
  const done = steps.filter((step) => step.state === "done").length;
  const skip = (step: Step) => void send("skip-step", { step: step.name }, "Skipped. It stays on this list.");
  return (
    <>
      <title>First steps · Plain Shelf</title>
      <h1 className="text-xl font-bold">First steps</h1>
      <p className="mt-1 text-soft">
        {next === undefined
          ? "Everything is ready. Cases come in under Waiting."
          : `${done} of ${steps.length} are done. Each can be skipped and done later.`}
      </p>
      <ol className="mt-5 max-w-3xl border-t border-line">
        {steps.map((step, index) => {
          const { title, words, to, act } = STEPS[step.name];
          const isNext = step === next;
          return (
            <li
              key={step.name}
              aria-current={isNext ? "step" : undefined}
              className={`flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-l-[3px] border-b-line py-3.5 pr-4 pl-4 ${isNext ? "border-l-accent bg-wash" : "border-l-transparent"}`}
            >
              <span className="w-5 font-serif text-lg text-soft">{index + 1}</span>
              <span className="min-w-0 grow basis-64">
                <span className="font-semibold">{title}</span>
                <span className="block text-soft">{words}</span>
              </span>
              <span className="flex items-baseline gap-4">
                {step.state === "open" ? (
                  <>
                    <Link to={to} className={isNext ? "filled-link" : "quiet-link"}>
                      {act}
                    </Link>
                    <button
                      type="button"
                      className="text-sm text-soft hover:underline"
                      aria-label={`Skip: ${title}`}
                      onClick={() => skip(step)}
                    >
                      Skip
                    </button>
                  </>
                ) : (
                  <>
                    <span className={step.state === "done" ? "" : "text-soft"}>{step.state}</span>
                    <Link to={to} className="quiet-link text-sm" aria-label={`Open: ${title}`}>
                      Open
                    </Link>
                  </>
                )}
              </span>
            </li>
          );
        })}
      </ol>
      <FormProblem words={problem ?? undefined} />
    </>
  );
}
