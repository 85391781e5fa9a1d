import type { ReactNode } from "react";
import { Links, Meta, Outlet, Scripts, ScrollRestoration } from "react-router";
import type { Route } from "./+types/root";
import { ErrorPage } from "./ui/error-page";
import { interfaceFontLink } from "./ui/fonts";
import { useNonce, type RootData } from "./ui/nonce";
import "./styles.css";

export const links = () => [interfaceFontLink];

export function loader({ context }: Route.LoaderArgs): RootData {
  return { nonce: context.nonce };
}

/** The nonce is for the first page only: scripts that run later were allowed by it. */
export const shouldRevalidate = () => false;

export function Layout({ children }: { children: ReactNode }) {
  const nonce = useNonce();
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta name="color-scheme" content="light dark" />
        <link rel="icon" href="/mark.svg" type="image/svg+xml" />
        <Meta />
        <Links nonce={nonce} />
      </head>
      <body>
        {children}
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  );
}

export default function Root() {
  return <Outlet />;
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <ErrorPage error={error} />;
}
