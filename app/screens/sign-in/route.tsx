import { data, Form, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { signIn } from "#server/auth/sign-in.ts";
import { Field, Problem } from "../../components/field.tsx";
import { safePath, setSession } from "../../session.ts";
import type { Route } from "./+types/route";

const form = z.object({
  email: z.string().trim().min(1).max(254),
  password: z.string().min(1).max(1000),
  to: z.string().optional(),
});

export const meta: Route.MetaFunction = () => [{ title: "Sign in · Livery" }];

export async function loader({ request }: Route.LoaderArgs) {
  return { to: safePath(new URL(request.url).searchParams.get("to")) };
}

/** Opens a session. Open to everybody, since it is how one gets in; attempts are limited. */
export async function action({ request, context }: Route.ActionArgs) {
  const entered = Object.fromEntries(await request.formData());
  const email = typeof entered.email === "string" ? entered.email : "";
  const read = form.safeParse(entered);
  if (!read.success)
    return data(
      { email, problem: "Enter your e-mail address and your password." },
      { status: 400 },
    );
  const result = await signIn(read.data.email, read.data.password, context.address);
  if (!result.ok && result.code === "too-many") {
    const minutes = Math.ceil(result.retryAfterSeconds / 60);
    const problem = `Too many attempts. Wait ${minutes === 1 ? "a minute" : `${minutes} minutes`}, then try again.`;
    return data(
      { email, problem },
      { status: 429, headers: { "retry-after": String(result.retryAfterSeconds) } },
    );
  }
  if (!result.ok)
    return data(
      { email, problem: "No account has this address and password. Check both and try again." },
      { status: 401 },
    );
  return redirect(safePath(read.data.to ?? null), {
    headers: { "set-cookie": await setSession(result.token) },
  });
}

export default function SignIn({ loaderData, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  return (
    <main className="grid min-h-screen md:grid-cols-[1fr_1.2fr]">
      <div className="flex flex-col justify-center px-10 py-12 md:px-16">
        <div className="w-full max-w-sm">
          <p className="flex items-center gap-2 text-lg font-bold">
            <img src="/livery.svg" alt="" className="size-6" />
            Livery
          </p>
          <h1 className="mt-8">Sign in</h1>
          <Form method="post" className="mt-5 space-y-4" noValidate>
            <input type="hidden" name="to" value={loaderData.to} />
            <Field
              id="email"
              label="E-mail address"
              type="email"
              autoComplete="username"
              defaultValue={actionData?.email}
              required
            />
            <Field
              id="password"
              label="Password"
              type="password"
              autoComplete="current-password"
              required
            />
            {actionData ? <Problem>{actionData.problem}</Problem> : null}
            <button type="submit" className="press press-main" disabled={busy}>
              {busy ? "Signing in …" : "Sign in"}
            </button>
          </Form>
        </div>
      </div>
      <Chain />
    </main>
  );
}

/** What Livery does, in four lines. Grey: there is no theme on this screen. */
function Chain() {
  const links = [
    ["One colour", "Your organisation's, in any notation."],
    ["Its shades", "Eleven steps, each at a known contrast."],
    ["Light and dark", "Every text, line and button, checked."],
    ["Where people work", "Delivered, read back, and reversible."],
  ];
  return (
    <div className="hidden flex-col justify-center border-l border-hair bg-surface px-16 md:flex">
      <ol className="space-y-0">
        {links.map(([title, text], i) => (
          <li key={title} className="flex gap-5">
            <span aria-hidden="true" className="flex flex-col items-center">
              <svg viewBox="0 0 32 32" className="size-10 border border-edge" aria-hidden="true">
                <path d="M0 0h32L0 32z" fill={`oklch(${92 - i * 9}% 0 0)`} />
                <path d="M32 0v32H0z" fill={`oklch(${22 + i * 9}% 0 0)`} />
              </svg>
              {i < links.length - 1 ? <span className="h-9 w-px bg-edge" /> : null}
            </span>
            <span className="pt-0.5">
              <span className="block text-lg font-semibold leading-tight">{title}</span>
              <span className="text-faint">{text}</span>
            </span>
          </li>
        ))}
      </ol>
    </div>
  );
}
