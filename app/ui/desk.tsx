import { Form, Link, NavLink, Outlet, useLocation } from "react-router";
import { dueSoon } from "#server/cases/soon";
import { waitingCount } from "#server/cases/waiting";
import { ownChats } from "#server/chats/desk";
import { notesFor } from "#server/notes/notes";
import { settingsOf } from "#server/house/settings";
import { rulesToLookAt } from "#server/standing/rules";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/desk";
import { Acts } from "./act";
import { Questions } from "./ask";
import { RegionContext } from "./region";
import { Popover } from "./popover";
import { DueWarnings } from "./due-warnings";
import { ErrorPage } from "./error-page";
import { Hint, Hints } from "./hint";
import { steadily } from "./stale";
import { ToastProvider } from "./toast";
import { useScrollKept } from "./use-scroll-kept";
import { useStillThere } from "./use-still-there";
import { t } from "../words/ui";

export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  const { house } = await settingsOf(em);
  return {
    viewer,
    waiting: await waitingCount(em, viewer),
    chats: await ownChats(em, viewer),
    notes: await notesFor(em, viewer),
    due: await dueSoon(em, viewer, now),
    rules: await rulesToLookAt(em, viewer, now),
    now: now.toISOString(),
    /** What the house writes in, with its region. */
    language: house.language,
  };
}
export type DeskData = typeof loader;

const load = steadily<Awaited<ReturnType<typeof loader>>>();

/** A reload in the background that fails leaves the screen where it is. */
export function clientLoader({ serverLoader }: Route.ClientLoaderArgs) {
  return load("desk", () => serverLoader());
}
clientLoader.hydrate = true as const;

const tab = ({ isActive }: { isActive: boolean }) =>
  `-mb-px border-b-2 py-2.5 whitespace-nowrap ${isActive ? "border-ink font-bold text-ink" : "border-transparent text-soft hover:text-ink"}`;

/** The screens whose work is in a list, which is to be reached in three presses of Tab. */
const LISTED = new Set(["/waiting", "/shelves"]);

/** Pages of the record that begin otherwise. */
const RECORD = /^\/(?:cases\/\d+\/record|customers\/|organisations\/)/;

/** What all screens of a signed-in person share: the line of places at the top, and the foot for messages. */
export default function Desk({ loaderData }: Route.ComponentProps) {
  const { viewer, waiting, chats, notes, due, rules, language } = loaderData;
  const scroll = useScrollKept();
  const { pathname } = useLocation();
  const isRecord = RECORD.test(pathname);
  // Whoever has chats stays there for them elsewhere too; Chats itself is for those as well who have none yet.
  useStillThere(chats > 0 || pathname === "/chats");
  return (
    <RegionContext value={language}>
      <Hints>
        <Acts>
          <Questions>
            <ToastProvider>
              <DueWarnings due={due} />
              <div className="flex h-dvh flex-col">
                <a
                  href="#main"
                  className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-2"
                >
                  {t("toThePagesContent")}
                </a>
                {LISTED.has(pathname) && (
                  <a
                    href="#list"
                    className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-2"
                  >
                    {t("toTheList")}
                  </a>
                )}
                <header className="flex flex-wrap items-center gap-x-4 gap-y-1 px-5 sm:gap-x-7">
                  <span className="border-b-4 border-accent pt-2 leading-5 font-bold">{t("plainShelf")}</span>
                  <nav
                    aria-label={t("places")}
                    className="flex gap-4 overflow-x-auto max-sm:order-2 max-sm:w-full sm:gap-6"
                  >
                    <NavLink to="/waiting" className={tab}>
                      {t("waiting")} {waiting > 0 && <span className="tabular-nums">{waiting}</span>}
                    </NavLink>
                    <NavLink to="/chats" className={tab}>
                      {t("chats")} {chats > 0 && <span className="tabular-nums">{chats}</span>}
                    </NavLink>
                    <NavLink to="/shelves" className={tab}>
                      {t("shelves")}
                    </NavLink>
                    <NavLink
                      to="/record"
                      className={({ isActive }) => tab({ isActive: isActive || isRecord })}
                    >
                      {t("record")}
                    </NavLink>
                    {viewer.role === "lead" && (
                      <NavLink to="/standing" className={tab}>
                        {t("standingAnswers")}{" "}
                        {rules > 0 && (
                          <span className="font-bold text-stop tabular-nums">
                            {rules}
                            <span className="sr-only"> {t("toLookAt")}</span>
                          </span>
                        )}
                      </NavLink>
                    )}
                    <NavLink to="/report" className={tab}>
                      {t("report")}
                    </NavLink>
                    <NavLink to="/setup" className={tab}>
                      {t("setup")}
                    </NavLink>
                    <NavLink to="/outside" className={tab}>
                      {t("outside")}
                    </NavLink>
                    <NavLink to="/keys" className={tab}>
                      {t("keys")}
                    </NavLink>
                  </nav>
                  <div
                    id="place-tools"
                    className="ml-auto flex items-center gap-2 text-sm text-soft max-sm:order-3 max-sm:w-full max-sm:justify-end max-sm:empty:hidden"
                  />
                  <NotesForMe notes={notes} />
                  <Hint words={t("yourDetailsPasswordAndSessions")}>
                    <Link to="/account" className="text-sm hover:underline max-sm:ml-auto">
                      {viewer.name}
                      <span className="max-sm:hidden">, {viewer.teamName}</span>
                    </Link>
                  </Hint>
                  <Form method="post" action="/sign-out">
                    <button
                      type="submit"
                      className="text-sm text-soft underline underline-offset-2 hover:text-ink"
                    >
                      {t("signOut")}
                    </button>
                  </Form>
                </header>
                <div id="main" {...scroll} className="flex min-h-0 grow flex-col overflow-y-auto">
                  <Outlet />
                </div>
              </div>
            </ToastProvider>
          </Questions>
        </Acts>
      </Hints>
    </RegionContext>
  );
}

/** Notes that colleagues wrote for the viewer, until their cases were opened. */
function NotesForMe({ notes }: { notes: Awaited<ReturnType<typeof loader>>["notes"] }) {
  if (notes.length === 0) return null;
  return (
    <Popover words={t("notesForYou", { count: notes.length })} className="w-96">
      <ul>
        {notes.map((note) => (
          <li key={`${note.case} ${note.at}`} className="border-t border-line py-2 first:border-t-0">
            <Link to={`/cases/${note.case}`} className="block hover:bg-wash">
              <strong>{t("byOnLabel", { by: note.by, label: note.label })}</strong>
              <span className="line-clamp-3 [overflow-wrap:anywhere]">{note.text}</span>
            </Link>
          </li>
        ))}
      </ul>
    </Popover>
  );
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <ErrorPage error={error} />;
}
