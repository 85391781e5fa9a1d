import { NavLink, Outlet } from "react-router";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/route";
import { t } from "../words/setup";

export async function loader(args: Route.LoaderArgs) {
  const { viewer } = await signedIn(args);
  return { role: viewer.role };
}

const pages = (): { to: string; label: string; from: "agent" | "curator" | "lead" }[] => [
  { to: "/setup/start", label: t("firstSteps"), from: "lead" },
  { to: "/setup/house", label: t("theHouse"), from: "lead" },
  { to: "/setup/mail", label: t("mail"), from: "lead" },
  { to: "/setup/mailboxes", label: t("mailboxes"), from: "lead" },
  { to: "/setup/forwarders", label: t("forwarders"), from: "lead" },
  { to: "/setup/numbers", label: t("shortMessages"), from: "lead" },
  { to: "/setup/forms", label: t("formAndChat"), from: "lead" },
  { to: "/setup/teams", label: t("teams"), from: "lead" },
  { to: "/setup/answer-times", label: t("answerTimes"), from: "lead" },
  { to: "/setup/notices", label: t("notices"), from: "lead" },
  { to: "/setup/people", label: t("people"), from: "lead" },
  { to: "/setup/signatures", label: t("signatures"), from: "agent" },
  { to: "/setup/facts", label: t("houseFacts"), from: "agent" },
  { to: "/setup/usual", label: t("openingsAndClosings"), from: "curator" },
  { to: "/setup/questions", label: t("questions"), from: "curator" },
  { to: "/setup/stationery", label: t("stationery"), from: "curator" },
  { to: "/setup/fields", label: t("fields"), from: "lead" },
  { to: "/setup/sources", label: t("detailSources"), from: "lead" },
  { to: "/setup/gaps", label: t("gapsInTheData"), from: "lead" },
];

const rank = { agent: 0, curator: 1, lead: 2 };

/** What the house sets up for all its letters, page by page; each sees the pages of their role. */
export default function Setup({ loaderData }: Route.ComponentProps) {
  const { role } = loaderData;
  return (
    <div className="grid grow grid-cols-[minmax(0,1fr)] gap-x-5 gap-y-2 px-5 pb-5 max-md:grid-rows-[auto_1fr] max-sm:px-3 md:min-h-0 md:grid-cols-[13rem_minmax(0,1fr)]">
      <nav aria-label={t("setup")} className="flex gap-x-5 gap-y-1 overflow-x-auto py-2 md:flex-col md:py-4">
        {pages()
          .filter((page) => rank[role] >= rank[page.from])
          .map((page) => (
            <NavLink
              key={page.to}
              to={page.to}
              className={({ isActive }) =>
                `border-b-[3px] py-1 whitespace-nowrap md:border-b-0 md:border-l-[3px] md:pl-2.5 ${isActive ? "border-ink font-bold" : "border-transparent text-soft hover:text-ink"}`
              }
            >
              {page.label}
            </NavLink>
          ))}
      </nav>
      <main className="min-w-0 overflow-x-auto bg-sheet px-4 pt-5 pb-10 sm:px-8">
        <Outlet />
      </main>
    </div>
  );
}
