import { Link } from "react-router";
import type { StepName } from "#core/forms/steps";
import { readSteps, type Step } from "#server/house/steps";
import { requireRole } from "#server/people/viewer";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { FormProblem } from "../ui/form";
import { useSave } from "../ui/use-save";
import type { Route } from "./+types/start";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return loaderResult(async () => {
    requireRole(viewer, "lead");
    return { steps: await readSteps(em) };
  });
}

const STEPS = (): Record<StepName, { title: string; words: string; to: string; act: string }> => ({
  house: {
    title: t("theHouse"),
    words: t("itsNameTimeZoneAndLanguages"),
    to: "/setup/house",
    act: t("nameTheHouse"),
  },
  team: {
    title: t("aTeamAndItsAddress"),
    words: t("mailToTheAddressBecomesThe"),
    to: "/setup/teams",
    act: t("setUpTheTeam"),
  },
  people: {
    title: t("people"),
    words: t("inviteThoseWhoAnswerWithYou"),
    to: "/setup/people",
    act: t("inviteAColleague"),
  },
  shelf: {
    title: t("aShelf"),
    words: t("sharedRepliesStandOnShelvesEach"),
    to: "/shelves/arrange",
    act: t("addAShelf"),
  },
  reply: {
    title: t("aFirstReply"),
    words: t("writeWhatYouAreAskedMost"),
    to: "/replies/new",
    act: t("writeTheFirstReply"),
  },
  mail: {
    title: t("mail"),
    words: t("whereItComesInAndGoes"),
    to: "/setup/mail",
    act: t("checkTheMail"),
  },
});

/** What is left to make an empty house a working desk, in order. */
export default function Start({ loaderData }: Route.ComponentProps) {
  const { steps } = loaderData;
  const { send, problem } = useSave("/setup");
  const next = steps.find((step) => step.state === "open");
  const done = steps.filter((step) => step.state === "done").length;
  const skip = (step: Step) => void send("skip-step", { step: step.name }, t("skippedItStaysOnThisList"));
  return (
    <>
      <title>{t("firstStepsPlainShelf")}</title>
      <h1 className="text-xl font-bold">{t("firstSteps")}</h1>
      <p className="mt-1 text-soft">
        {next === undefined
          ? t("everythingIsReadyCasesComeIn")
          : t("doneOfCountAreDoneEach", { done, count: steps.length })}
      </p>
      <ol className="mt-5 max-w-3xl border-t border-line">
        {steps.map((step, index) => {
          const { title, words, to, act } = STEPS()[step.name];
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
                      aria-label={t("skipTitle", { title })}
                      onClick={() => skip(step)}
                    >
                      {t("skip")}
                    </button>
                  </>
                ) : (
                  <>
                    <span className={step.state === "done" ? "" : "text-soft"}>{t(step.state)}</span>
                    <Link to={to} className="quiet-link text-sm" aria-label={t("openTitle", { title })}>
                      {t("open")}
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
