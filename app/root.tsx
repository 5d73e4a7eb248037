import { setNonce } from "get-nonce";
import type { ReactNode } from "react";
import {
  isRouteErrorResponse,
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  useRouteLoaderData,
} from "react-router";
import type { Route } from "./+types/root";
import { displayOf } from "./session.ts";
import "./styles.css";

export async function loader({ request, context }: Route.LoaderArgs) {
  return { display: await displayOf(request), nonce: context.nonce };
}

// What dialogs add to the page's styles must carry the nonce that this document came with.
if (typeof document !== "undefined")
  setNonce(document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce ?? "");

export const meta: Route.MetaFunction = () => [{ title: "Livery" }];

export function Layout({ children }: { children: ReactNode }) {
  const loaded = useRouteLoaderData<typeof loader>("root");
  return (
    <html lang="en" data-display={loaded?.display ?? "system"}>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <link rel="icon" href="/livery.svg" type="image/svg+xml" />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration nonce={loaded?.nonce} />
        <Scripts nonce={loaded?.nonce} />
      </body>
    </html>
  );
}

export default function App() {
  return <Outlet />;
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const { title, text } = words(error);
  return (
    <main className="mx-auto max-w-xl p-8">
      <h1>{title}</h1>
      <p className="mt-3">{text}</p>
      <p className="mt-4">
        <a className="go" href="/themes">
          Go to the themes
        </a>
      </p>
    </main>
  );
}

function words(error: unknown): { title: string; text: string } {
  if (isRouteErrorResponse(error) && error.status === 404)
    return {
      title: "There is nothing at this address",
      text: "It may have been mistyped, or what it showed has been removed.",
    };
  if (isRouteErrorResponse(error) && error.status === 403)
    return {
      title: "Your account can only read",
      text: "Nothing was changed. Ask an administrator to do this, or to let you do it.",
    };
  return {
    title: "Livery could not answer",
    text: "Nothing was changed. Try again in a moment; if it stays so, the server's log says why.",
  };
}
