import { isRouteErrorResponse, Link } from "react-router";

interface PageWords {
  title: string;
  words: string;
}

function wordsFor(error: unknown): PageWords {
  if (!isRouteErrorResponse(error)) {
    return {
      title: "Something went wrong here",
      words: "It was noted. Nothing of yours is lost; please try again.",
    };
  }
  const problem = (error.data as { problem?: unknown } | null)?.problem;
  const words = typeof problem === "string" ? problem : null;
  if (error.status === 404) return { title: "Not here", words: words ?? "There is no such page." };
  if (error.status === 403)
    return { title: "Not for you", words: words ?? "Your role does not include this." };
  return { title: "That did not work", words: words ?? `The server said ${error.status}.` };
}

/** The one error page. */
export function ErrorPage({ error }: { error: unknown }) {
  const { title, words } = wordsFor(error);
  return (
    <main className="mx-auto mt-16 max-w-xl bg-sheet px-10 py-8">
      <title>{`${title} · Plain Shelf`}</title>
      <h1 className="text-xl font-bold">{title}</h1>
      <p className="mt-2 text-soft">{words}</p>
      <p className="mt-6 flex gap-6">
        <Link to="/waiting" className="quiet-link">
          To the waiting cases
        </Link>
        <button type="button" className="quiet-link" onClick={() => window.location.reload()}>
          Try again
        </button>
      </p>
    </main>
  );
}
