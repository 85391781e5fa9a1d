import { Link, useLocation } from "react-router";

/** The way to sign in again, and back to where one is. */
export function SignInAgain({ children }: { children: string }) {
  const { pathname, search } = useLocation();
  return (
    <Link to={`/sign-in?to=${encodeURIComponent(pathname + search)}`} reloadDocument className="quiet-link">
      {children}
    </Link>
  );
}
