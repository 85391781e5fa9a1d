import { Link, NavLink } from "react-router";
import { z } from "zod";
import { idInPath } from "#server/edge";
import { listRules, whatRuleDid, type StandingRow } from "#server/standing/rules";
import { rehearsalOf } from "#server/standing/rehearsals";
import { signedIn } from "#server/web/context";
import { loaderResult } from "#server/web/results";
import { SortableList } from "../ui/sortable-list";
import { Time } from "../ui/time";
import { useSave } from "../ui/use-save";
import { Rule } from "./rule";
import type { Route } from "./+types/route";
import { t } from "../words/standing";

const chosen = z.union([z.literal("new"), idInPath]).optional();

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return loaderResult(async () => {
    const answers = await listRules(em, viewer, now);
    const asked = chosen.parse(args.params.id) ?? answers.rules[0]?.id ?? null;
    const rule = answers.rules.find((one) => one.id === asked) ?? null;
    return {
      answers,
      isNew: asked === "new",
      rule,
      rehearsal: rule ? rehearsalOf(em, viewer, rule.id) : ({ kind: "none" } as const),
      did: rule ? await whatRuleDid(em, viewer, rule.id) : [],
    };
  });
}

/** The rules that answer by themselves, in the order in which they are asked, and one of them. */
export default function Standing({ loaderData }: Route.ComponentProps) {
  const { answers, rule, isNew } = loaderData;
  const { send } = useSave("/standing");
  const { rules } = answers;
  const nameOf = (key: string) => rules.find((one) => String(one.id) === key)?.name ?? key;
  return (
    <div className="grid min-h-0 grow grid-cols-[minmax(0,1fr)] gap-x-5 gap-y-3 px-5 pb-5 max-sm:px-3 md:grid-cols-[15.5rem_minmax(0,1fr)]">
      <title>{t("standingAnswersPlainShelf")}</title>
      <nav aria-label={t("rules")} className="py-3 md:overflow-y-auto">
        <p className="px-2.5 pb-2 text-sm text-soft">{t("askedInThisOrder")}</p>
        <SortableList
          label={t("rules")}
          keys={rules.map((one) => String(one.id))}
          nameOf={nameOf}
          onOrder={async (order) => {
            await send("order", { ids: order.map(Number) });
          }}
          className="flex flex-col border-t border-line"
          itemClassName="border-b border-line"
        >
          {(key, handle) => {
            const one = rules.find((found) => String(found.id) === key);
            return (
              one && (
                <div className={`flex items-start gap-1 ${one.id === rule?.id ? "bg-sheet" : ""}`}>
                  <NavLink
                    to={`/standing/${one.id}`}
                    aria-current={one.id === rule?.id ? "page" : undefined}
                    className="block min-w-0 grow py-2 pl-2.5"
                  >
                    <span className="block font-bold [overflow-wrap:anywhere]">{one.name}</span>
                    <Status rule={one} />
                  </NavLink>
                  <span className="pt-2 pr-1">{handle}</span>
                </div>
              )
            );
          }}
        </SortableList>
        <p className="px-2.5 pt-3">
          <Link to="/standing/new" className="quiet-link">
            {t("writeARule")}
          </Link>
        </p>
      </nav>
      {rule || isNew ? (
        <Rule key={rule?.id ?? "new"} {...loaderData} />
      ) : (
        <main className="bg-sheet px-8 py-6">
          <h1 className="text-xl font-bold">{t("standingAnswers")}</h1>
          <p className="mt-2 max-w-xl text-soft">{t("noRuleYet")}</p>
        </main>
      )}
    </div>
  );
}

/** Whether a rule is on and what it does, in words. */
function Status({ rule }: { rule: StandingRow }) {
  const words = (): string => {
    if (rule.idle !== null) return rule.idle;
    if (rule.isOver) return t("overItsLimit");
    if (rule.switchedOnAt !== null)
      return t(rule.mode === "send" ? "sendsCount" : "preparesCount", { count: rule.lately });
    if (rule.offWhy !== null) return t("switchedOffBecause", { why: rule.offWhy });
    if (rule.rehearsed === null) return t("offNeverRehearsed");
    return t(rule.rehearsed.isOfThis ? "offRehearsed" : "offToRehearse");
  };
  const isTold = rule.idle !== null || rule.offWhy !== null || rule.isOver;
  const look = isTold ? "text-stop" : rule.switchedOnAt === null ? "text-soft" : "text-look";
  return (
    <span className={`block text-sm [overflow-wrap:anywhere] ${look}`}>
      {words()}
      {rule.until !== null && (
        <>
          {" "}
          · {t("until")} <Time at={rule.until} />
        </>
      )}
    </span>
  );
}
