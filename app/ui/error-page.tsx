import { isRouteErrorResponse, Link } from "react-router";
import { t } from "../words/ui";

interface PageWords {
  title: string;
  words: string;
}

function wordsFor(error: unknown): PageWords {
  if (!isRouteErrorResponse(error)) {
    return {
      title: t("somethingWentWrongHere"),
      words: t("itWasNotedNothingOfYours"),
    };
  }
  const problem = (error.data as { problem?: unknown } | null)?.problem;
  const words = typeof problem === "string" ? problem : null;
  if (error.status === 404) return { title: t("notHere"), words: words ?? t("thereIsNoSuchPage") };
  if (error.status === 403) return { title: t("notForYou"), words: words ?? t("yourRoleDoesNotIncludeThis") };
  return { title: t("thatDidNotWork"), words: words ?? t("theServerSaidStatus", { status: error.status }) };
}

/** The one error page. */
export function ErrorPage({ error }: { error: unknown }) {
  const { title, words } = wordsFor(error);
  return (
    <main className="mx-auto mt-16 max-w-xl bg-sheet px-10 py-8">
      <title>{t("titlePlainShelf", { title })}</title>
      <h1 className="text-xl font-bold">{title}</h1>
      <p className="mt-2 text-soft">{words}</p>
      <p className="mt-6 flex gap-6">
        <Link to="/waiting" className="quiet-link">
          {t("toTheWaitingCases")}
        </Link>
        <button type="button" className="quiet-link" onClick={() => window.location.reload()}>
          {t("tryAgain")}
        </button>
      </p>
    </main>
  );
}
