import { Form, Link, NavLink, Outlet, useLocation } from "react-router";
import { type Display, displayOf, signedIn } from "../../session.ts";
import type { Route } from "./+types/route";

export async function loader({ request }: Route.LoaderArgs) {
  const person = await signedIn(request);
  return { name: person.name, capability: person.capability, display: await displayOf(request) };
}

const SCREENS = [
  { to: "/themes", label: "Themes" },
  { to: "/estate", label: "Estate" },
  { to: "/rollouts", label: "Rollouts" },
  { to: "/platforms", label: "Platforms" },
  { to: "/log", label: "Log" },
  { to: "/policy", label: "Policy" },
];

export default function Frame({ loaderData }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen flex-col">
      <a href="#content" className="absolute -top-20 left-2 z-10 bg-surface px-3 py-2 focus:top-2">
        Skip to content
      </a>
      <header className="flex min-h-12 shrink-0 flex-wrap items-stretch gap-x-6 border-b border-edge bg-surface px-4">
        <Link to="/themes" className="flex items-center gap-2 text-lg font-bold tracking-tight">
          <img src="/livery.svg" alt="" className="size-5" />
          Livery
        </Link>
        <nav aria-label="Screens" className="flex items-stretch gap-1">
          {SCREENS.map(({ to, label }) => (
            <NavLink
              key={to}
              to={to}
              className={({ isActive }) =>
                `flex items-center border-b-2 px-3 pt-0.5 ${isActive ? "border-ink font-semibold" : "border-transparent text-faint hover:text-ink"}`
              }
            >
              {label}
            </NavLink>
          ))}
        </nav>
        <div className="ml-auto flex flex-wrap items-center gap-x-4 text-sm">
          <DisplayChoice chosen={loaderData.display} />
          <span className="text-faint">
            {loaderData.name}
            {loaderData.capability === "reader" ? " (reads only)" : ""}
          </span>
          <Form method="post" action="/sign-out">
            <button type="submit" className="go">
              Sign out
            </button>
          </Form>
        </div>
      </header>
      <main id="content" className="flex min-h-0 flex-1 flex-col" tabIndex={-1}>
        <Outlet />
      </main>
    </div>
  );
}

const DISPLAYS: { value: Display; label: string }[] = [
  { value: "system", label: "System" },
  { value: "light", label: "Light" },
  { value: "dark", label: "Dark" },
];

/** Livery's own scheme; each choice is a button, so that it works without scripts. */
function DisplayChoice({ chosen }: { chosen: Display }) {
  const { pathname, search } = useLocation();
  return (
    <Form method="post" action="/display" className="flex items-center gap-1" preventScrollReset>
      <input type="hidden" name="back" value={pathname + search} />
      <span className="mr-1 text-faint" id="display-label">
        Display
      </span>
      {DISPLAYS.map(({ value, label }) => (
        <button
          key={value}
          type="submit"
          name="display"
          value={value}
          aria-pressed={value === chosen}
          className="rounded-sm px-1.5 py-0.5 aria-pressed:bg-sunken aria-pressed:font-semibold aria-pressed:text-ink text-faint hover:text-ink"
        >
          {label}
        </button>
      ))}
    </Form>
  );
}
